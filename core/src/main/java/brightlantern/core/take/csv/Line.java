package brightlantern.core.take.csv;

import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.Role;
import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.RecordType;

/** The fields of the line that is read, as numbers where they are. */
final class Line extends CsvCallbackHandler<Line> {
    private final Dialect dialect;
    private final double[] numbers;
    private final String[] texts;
    private int fields;
    private long at;
    private RecordType type = RecordType.DATA;

    Line(Dialect dialect) {
        this.dialect = dialect;
        numbers = new double[dialect.columns().size()];
        texts = new String[dialect.columns().size()];
    }

    int fields() {
        return fields;
    }

    /** Number of the line in the file, from 1. */
    long at() {
        return at;
    }

    /** NaN where there is none. */
    double number(Column c) {
        return numbers[c.index()];
    }

    /** What stands there where that is no number; may be empty. */
    String text(Column c) {
        return texts[c.index()];
    }

    @Override
    protected RecordType getRecordType() {
        return type;
    }

    @Override
    protected int getFieldCount() {
        return fields;
    }

    @Override
    protected void beginRecord(long startingLine) {
        fields = 0;
        at = startingLine;
        type = RecordType.DATA;
    }

    @Override
    protected void addField(char[] buffer, int offset, int length, boolean quoted) {
        if (fields < numbers.length) {
            Column c = dialect.columns().get(fields);
            boolean number =
                    c.role() == Role.VALUE
                            || c.role() == Role.TIME && c.clock().orElseThrow().isNumber();
            double v =
                    number
                            ? Numbers.parse(buffer, offset, length, dialect.decimalComma())
                            : Double.NaN;
            numbers[fields] = v;
            texts[fields] =
                    Double.isNaN(v) && length > 0 ? new String(buffer, offset, length).trim() : "";
        }
        fields++;
    }

    @Override
    protected void setComment(char[] buffer, int offset, int length) {
        type = RecordType.COMMENT;
    }

    @Override
    protected void setEmpty() {
        type = RecordType.EMPTY;
    }

    @Override
    protected Line buildRecord() {
        return this;
    }
}
