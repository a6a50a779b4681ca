package brightlantern.core.take.csv;

import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.take.Take;
import brightlantern.core.take.csv.Dialect.Clock;
import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.Role;
import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.RecordType;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Reads a file in a known dialect into a take. A line that cannot be read costs that line, a field
 * that field; both are counted and told. Times count from the first one; what has no value at a
 * moment has none there.
 */
public final class CsvImport {
    /** More different words than this are texts, not states. */
    private static final int MOST_STATES = 200;

    private static final int TOLD = 5;
    private static final double DAY = 86_400;

    /** A number of seconds larger than this counts from 1970. */
    private static final double EPOCH_SECONDS = 1e9;

    /** A sample takes 16 bytes, twice while its column grows; a third of the memory is for them. */
    private static final long MOST_SAMPLES = Runtime.getRuntime().maxMemory() / 3 / 32;

    private final Dialect dialect;
    private final ZoneId zone;
    private Optional<Instant> start = Optional.empty();
    private long samples;
    private final Map<Integer, Mapped> mapped;
    private final Growing[] columns;
    private final List<Take.Mark> marks = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();
    private final double[] zero;
    private final double[] shift;
    private final double[] last;
    private final double[] newest;
    private int badFields;
    private int badLines;
    private int headers;
    private int replaced;
    private boolean jumped;
    private long rows;

    private CsvImport(Dialect dialect, Map<Integer, Mapped> mapped, ZoneId zone) {
        this.zone = zone;
        this.dialect = dialect;
        this.mapped = mapped;
        int width = dialect.columns().size();
        columns = new Growing[width];
        for (Column c : dialect.columns()) {
            if (mapped.containsKey(c.index())) {
                columns[c.index()] = new Growing();
            }
        }
        zero = new double[width + 1];
        shift = new double[width + 1];
        last = new double[width + 1];
        newest = new double[width + 1];
        Arrays.fill(zero, Double.NaN);
        Arrays.fill(last, Double.NEGATIVE_INFINITY);
    }

    /**
     * What a column of the file becomes.
     *
     * @param value its id, name and unit in the take
     * @param unit in which the file gives it; converted to the value's own
     */
    public record Mapped(Value value, String unit) {}

    /**
     * @param values the values that the vehicle's description does not know
     * @param remarks what was left out or assumed, in words
     * @param start when it began, where the file tells the date
     */
    public record Imported(
            Take take,
            List<Value> values,
            List<String> remarks,
            long rows,
            Optional<Instant> start) {}

    /** Columns of the file as values of their own, for what nobody mapped. */
    public static Map<Integer, Mapped> own(Dialect dialect) {
        Map<Integer, Mapped> own = new LinkedHashMap<>();
        Set<String> used = new HashSet<>();
        for (Column c : dialect.columns()) {
            if (c.role() == Role.VALUE || c.role() == Role.STATE) {
                String id =
                        "log." + c.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
                while (!used.add(id)) {
                    id += "-" + (c.index() + 1);
                }
                own.put(c.index(), new Mapped(value(id, c.name(), c.unit(), Map.of()), c.unit()));
            }
        }
        return own;
    }

    private static Value value(String id, String name, String unit, Map<Integer, String> states) {
        return new Value(
                id, "log", 0, 4, true, 1, 0, name, unit, unit, 2, states, List.of(), List.of());
    }

    /**
     * @param mapped column index → what it becomes; others are not read
     * @throws IOException when the file cannot be read
     */
    public static Imported read(InputStream in, Dialect dialect, Map<Integer, Mapped> mapped)
            throws IOException {
        return read(in, dialect, mapped, ZoneOffset.UTC);
    }

    /**
     * @param mapped column index → what it becomes; others are not read
     * @param zone of dates that do not tell their own
     * @throws IOException when the file cannot be read
     * @throws IllegalArgumentException when it holds more than this machine's memory takes
     */
    public static Imported read(
            InputStream in, Dialect dialect, Map<Integer, Mapped> mapped, ZoneId zone)
            throws IOException {
        return new CsvImport(dialect, mapped, zone).read(in);
    }

    /** A stream that remembers the last byte, to tell a torn line from a last one. */
    private static final class Remembering extends FilterInputStream {
        private int newest = '\n';

        Remembering(InputStream in) {
            super(in);
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            int n = super.read(bytes, offset, length);
            newest = n > 0 ? bytes[offset + n - 1] : newest;
            return n;
        }

        boolean endsWithLine() {
            return newest == '\n' || newest == '\r' || newest == 0;
        }
    }

    private Imported read(InputStream in) throws IOException {
        Remembering bytes = new Remembering(in);
        Line line = new Line();
        try (CsvReader<Line> csv =
                CsvReader.builder()
                        .fieldSeparator(dialect.separator())
                        .skipEmptyLines(true)
                        .allowExtraFields(true)
                        .allowMissingFields(true)
                        .allowExtraCharsAfterClosingQuote(true)
                        .allowUnclosedQuote(true)
                        .detectBomHeader(false)
                        .build(line, bytes, dialect.charset())) {
            long number = -1;
            int width = dialect.columns().size();
            int torn = -1;
            for (Line next : csv) {
                number++;
                if (number < dialect.dataLine()) {
                    continue;
                }
                torn = next.fields < width ? next.fields : -1;
                take(next);
            }
            if (torn >= 0 && !bytes.endsWithLine()) {
                dropLast();
                remarks.add("The last line is torn; it was left out.");
            }
        } catch (CsvParseException damaged) {
            remarks.add("What follows could not be read: " + damaged.getMessage());
        }
        return imported();
    }

    /** The fields of the line that is read, as numbers where they are. */
    private final class Line extends CsvCallbackHandler<Line> {
        private final double[] numbers = new double[dialect.columns().size()];
        private final String[] texts = new String[dialect.columns().size()];
        private int fields;
        private long at;
        private RecordType type = RecordType.DATA;

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
                        Double.isNaN(v) && length > 0
                                ? new String(buffer, offset, length).trim()
                                : "";
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

    private void take(Line line) {
        if (line.fields < dialect.columns().size() && line.fields <= 1) {
            badLine(line, "one field only");
            return;
        }
        if (isHeader(line)) {
            headers++;
            return;
        }
        rows++;
        int width = Math.min(line.fields, columns.length);
        double rowTime = rows - 1;
        for (int i = 0; i < width; i++) {
            Column c = dialect.columns().get(i);
            if (c.role() == Role.TIME) {
                seconds(line, c);
            } else if (c.role() == Role.MARK && !line.texts[i].isEmpty()) {
                double t = c.time() < 0 ? rowTime : timeOf(line, c);
                if (!Double.isNaN(t)) {
                    marks.add(new Take.Mark(t, line.texts[i]));
                }
            }
        }
        for (int i = 0; i < width; i++) {
            if (columns[i] == null) {
                continue;
            }
            Column c = dialect.columns().get(i);
            double t = c.time() < 0 ? rowTime : timeOf(line, c);
            double v = line.numbers[i];
            if (!Double.isNaN(v)) {
                if (++samples > MOST_SAMPLES) {
                    throw new IllegalArgumentException(
                            text(
                                    "Line %d: more than %d million samples; leave columns out, or cut the file",
                                    line.at, MOST_SAMPLES / 1_000_000));
                }
                columns[i].add(t, v);
            } else if (!line.texts[i].isEmpty()) {
                word(line, c, t);
            }
        }
    }

    private double timeOf(Line line, Column c) {
        return c.time() < line.fields ? newest[c.time()] : Double.NaN;
    }

    private boolean isHeader(Line line) {
        int same = 0;
        int words = 0;
        for (Column c : dialect.columns()) {
            if (c.index() < line.fields && !line.texts[c.index()].isEmpty()) {
                words++;
                same += line.texts[c.index()].startsWith(c.name()) ? 1 : 0;
            }
        }
        return words > 1 && same == words;
    }

    /** Puts the line's time of a time column into its place; NaN when there is none. */
    private void seconds(Line line, Column c) {
        int i = c.index();
        Clock clock = c.clock().orElseThrow();
        double raw =
                clock.isNumber()
                        ? line.numbers[i] * clock.seconds()
                        : clock == Clock.TIMESTAMP
                                ? Times.stamp(line.texts[i], dialect.dates(), zone)
                                : Times.clock(line.texts[i], clock);
        if (Double.isNaN(raw)) {
            newest[i] = Double.NaN;
            if (!line.texts[i].isEmpty()) {
                badField(line, c, "a time");
            }
            return;
        }
        if (Double.isNaN(zero[i])) {
            // several columns of one clock begin together
            double common = firstZero(c);
            zero[i] = Double.isNaN(common) ? raw : common;
            if (start.isEmpty() && (clock == Clock.TIMESTAMP || raw > EPOCH_SECONDS)) {
                start = Optional.of(Instant.ofEpochMilli(Math.round(zero[i] * 1000)));
            }
        }
        double t = raw - zero[i] + shift[i];
        if (t < last[i]) {
            if (c.clock().orElseThrow() == Clock.CLOCK && last[i] - t > DAY / 2) {
                shift[i] += DAY;
            } else {
                if (!jumped) {
                    jumped = true;
                    remarks.add(
                            text(
                                    "Line %d: time goes back by %.3f s; what follows was put behind what was there.",
                                    line.at, last[i] - t));
                }
                marks.add(new Take.Mark(last[i] + 1, "time went back here"));
                shift[i] += last[i] - t + 1;
            }
            t = raw - zero[i] + shift[i];
        }
        last[i] = t;
        newest[i] = t;
    }

    private double firstZero(Column c) {
        for (Column other : dialect.columns()) {
            if (other.role() == Role.TIME
                    && other.index() != c.index()
                    && other.clock().equals(c.clock())
                    && !Double.isNaN(zero[other.index()])) {
                return zero[other.index()];
            }
        }
        return Double.NaN;
    }

    private void word(Line line, Column c, double t) {
        String word = line.texts[c.index()];
        if (word.indexOf('\uFFFD') >= 0 && replaced++ == 0) {
            remarks.add(
                    text(
                            "Line %d: bytes that are not %s; they show as \uFFFD.",
                            line.at, dialect.charset()));
        }
        if (c.role() == Role.STATE) {
            Growing column = columns[c.index()];
            Integer state = column.states.get(word);
            if (state == null && column.states.size() < MOST_STATES) {
                state = column.states.size();
                column.states.put(word, state);
            }
            if (state != null) {
                column.add(t, state);
                return;
            }
        }
        String lower = word.toLowerCase(Locale.ROOT);
        if (lower.equals("nan") || lower.startsWith("inf") || lower.startsWith("-inf")) {
            columns[c.index()].add(t, Double.NaN);
            return;
        }
        badField(line, c, "a number");
    }

    private void badField(Line line, Column c, String expected) {
        if (badFields++ < TOLD) {
            String found = line.texts[c.index()];
            remarks.add(
                    text(
                            "Line %d, %s: expected %s, found '%s'; left out.",
                            line.at,
                            c.name(),
                            expected,
                            found.length() > 40 ? found.substring(0, 40) + "…" : found));
        }
    }

    private void badLine(Line line, String why) {
        if (badLines++ < TOLD) {
            remarks.add(text("Line %d: %s; left out.", line.at, why));
        }
    }

    private void dropLast() {
        double newestTime =
                Arrays.stream(columns)
                        .filter(c -> c != null && c.size > 0)
                        .mapToDouble(c -> c.seconds[c.size - 1])
                        .max()
                        .orElse(Double.NaN);
        for (Growing column : columns) {
            if (column != null
                    && column.size > 0
                    && column.seconds[column.size - 1] == newestTime) {
                column.size--;
            }
        }
        rows--;
    }

    private Imported imported() {
        if (badFields > TOLD) {
            remarks.add(text("%d fields in all could not be read.", badFields));
        }
        if (badLines > TOLD) {
            remarks.add(text("%d lines in all could not be read.", badLines));
        }
        if (headers > 0) {
            remarks.add(
                    Words.counted(
                            text(
                                    "The line of names stands %d more time(s); passed over.",
                                    headers)));
        }
        Map<String, Take.Column> taken = new LinkedHashMap<>();
        List<Value> values = new ArrayList<>();
        for (Column c : dialect.columns()) {
            Mapped its = mapped.get(c.index());
            Growing column = columns[c.index()];
            if (its == null || column == null || column.size == 0) {
                continue;
            }
            double[] y = column.values();
            Value value = its.value();
            if (c.role() == Role.STATE) {
                Map<Integer, String> states = new LinkedHashMap<>();
                column.states.forEach((word, n) -> states.put(n, word));
                y = statesOf(value, states, y);
                if (!value.isState()) {
                    value = value(value.id(), value.name(), "", states);
                }
            } else if (its.unit().isEmpty() && !value.unit().isEmpty()) {
                remarks.add(
                        c.name() + ": no unit was told; it was taken for " + value.unit() + ".");
            } else if (!its.unit().equals(value.unit())) {
                Optional<String> whyNot = convert(y, its.unit(), value);
                if (whyNot.isPresent()) {
                    remarks.add(c.name() + ": " + whyNot.get());
                }
            }
            if (value.module().equals("log")) {
                values.add(value);
            }
            taken.put(value.id(), new Take.Column(column.seconds(), y));
        }
        return new Imported(new Take(taken, marks), values, List.copyOf(remarks), rows, start);
    }

    /** Words of the file as the numbers of a described state, where the value has such states. */
    private static double[] statesOf(Value value, Map<Integer, String> words, double[] y) {
        if (!value.isState()) {
            return y;
        }
        double[] mappedTo = new double[words.size()];
        words.forEach(
                (n, word) ->
                        mappedTo[n] =
                                value.states().entrySet().stream()
                                        .filter(e -> e.getValue().equalsIgnoreCase(word))
                                        .mapToDouble(Map.Entry::getKey)
                                        .findFirst()
                                        .orElse(Double.NaN));
        return Arrays.stream(y).map(v -> mappedTo[(int) v]).toArray();
    }

    private static Optional<String> convert(double[] y, String unit, Value value) {
        if (unit.isEmpty() || value.unit().isEmpty()) {
            return Optional.empty();
        }
        try {
            for (int i = 0; i < y.length; i++) {
                y[i] = Units.convert(y[i], unit, value.unit());
            }
            return Optional.empty();
        } catch (IllegalArgumentException other) {
            return Optional.of(other.getMessage() + "; the numbers stand as they are");
        }
    }

    /** A column that grows. */
    private static final class Growing {
        private double[] seconds = new double[1024];
        private double[] values = new double[1024];
        private final Map<String, Integer> states = new LinkedHashMap<>();
        private int size;

        void add(double t, double v) {
            if (Double.isNaN(t)) {
                return;
            }
            if (size == seconds.length) {
                seconds = Arrays.copyOf(seconds, 2 * size);
                values = Arrays.copyOf(values, 2 * size);
            }
            seconds[size] = t;
            values[size++] = v;
        }

        double[] seconds() {
            return Arrays.copyOf(seconds, size);
        }

        double[] values() {
            return Arrays.copyOf(values, size);
        }
    }

    private static String text(String format, Object... args) {
        return Words.counted(String.format(Locale.ROOT, format, args));
    }
}
