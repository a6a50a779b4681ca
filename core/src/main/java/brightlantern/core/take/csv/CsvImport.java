package brightlantern.core.take.csv;

import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.take.Take;
import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.Role;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
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

    /** A sample takes 16 bytes, twice while its column grows; a third of the memory is for them. */
    private static final long MOST_SAMPLES = Runtime.getRuntime().maxMemory() / 3 / 32;

    private final Dialect dialect;
    private long samples;
    private final Map<Integer, Mapped> mapped;
    private final Growing[] columns;
    private final List<Take.Mark> marks = new ArrayList<>();
    private final Remarks remarks = new Remarks();
    private final Clocks clocks;
    private int headers;
    private int replaced;
    private long rows;

    private CsvImport(Dialect dialect, Map<Integer, Mapped> mapped, ZoneId zone) {
        this.dialect = dialect;
        this.clocks = new Clocks(dialect, zone, remarks, marks);
        this.mapped = mapped;
        int width = dialect.columns().size();
        columns = new Growing[width];
        for (Column c : dialect.columns()) {
            if (mapped.containsKey(c.index())) {
                columns[c.index()] = new Growing();
            }
        }
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

    private Imported read(InputStream in) throws IOException {
        Remembering bytes = new Remembering(in);
        Line line = new Line(dialect);
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
                torn = next.fields() < width ? next.fields() : -1;
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

    private void take(Line line) {
        if (line.fields() < dialect.columns().size() && line.fields() <= 1) {
            remarks.badLine(line, "one field only");
            return;
        }
        if (isHeader(line)) {
            headers++;
            return;
        }
        rows++;
        int width = Math.min(line.fields(), columns.length);
        double rowTime = rows - 1;
        for (int i = 0; i < width; i++) {
            Column c = dialect.columns().get(i);
            if (c.role() == Role.TIME) {
                clocks.read(line, c);
            } else if (c.role() == Role.MARK && !line.text(c).isEmpty()) {
                double t = c.time() < 0 ? rowTime : clocks.of(line, c);
                if (!Double.isNaN(t)) {
                    marks.add(new Take.Mark(t, line.text(c)));
                }
            }
        }
        for (int i = 0; i < width; i++) {
            if (columns[i] == null) {
                continue;
            }
            Column c = dialect.columns().get(i);
            double t = c.time() < 0 ? rowTime : clocks.of(line, c);
            double v = line.number(c);
            if (!Double.isNaN(v)) {
                if (++samples > MOST_SAMPLES) {
                    throw new IllegalArgumentException(
                            Remarks.text(
                                    "Line %d: more than %d million samples; leave columns out, or cut the file",
                                    line.at(), MOST_SAMPLES / 1_000_000));
                }
                columns[i].add(t, v);
            } else if (!line.text(c).isEmpty()) {
                word(line, c, t);
            }
        }
    }

    private boolean isHeader(Line line) {
        int same = 0;
        int words = 0;
        for (Column c : dialect.columns()) {
            if (c.index() < line.fields() && !line.text(c).isEmpty()) {
                words++;
                same += line.text(c).startsWith(c.name()) ? 1 : 0;
            }
        }
        return words > 1 && same == words;
    }

    private void word(Line line, Column c, double t) {
        String word = line.text(c);
        if (word.indexOf('\uFFFD') >= 0 && replaced++ == 0) {
            remarks.add(
                    Remarks.text(
                            "Line %d: bytes that are not %s; they show as \uFFFD.",
                            line.at(), dialect.charset()));
        }
        if (c.role() == Role.STATE) {
            Growing column = columns[c.index()];
            Integer state = column.states().get(word);
            if (state == null && column.states().size() < MOST_STATES) {
                state = column.states().size();
                column.states().put(word, state);
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
        remarks.badField(line, c, "a number");
    }

    private void dropLast() {
        double newestTime =
                Arrays.stream(columns)
                        .filter(c -> c != null && c.size() > 0)
                        .mapToDouble(Growing::newest)
                        .max()
                        .orElse(Double.NaN);
        for (Growing column : columns) {
            if (column != null && column.newest() == newestTime) {
                column.dropNewest();
            }
        }
        rows--;
    }

    private Imported imported() {
        remarks.count();
        if (headers > 0) {
            remarks.add(
                    Words.counted(
                            Remarks.text(
                                    "The line of names stands %d more time(s); passed over.",
                                    headers)));
        }
        Map<String, Take.Column> taken = new LinkedHashMap<>();
        List<Value> values = new ArrayList<>();
        for (Column c : dialect.columns()) {
            Mapped its = mapped.get(c.index());
            Growing column = columns[c.index()];
            if (its == null || column == null || column.size() == 0) {
                continue;
            }
            double[] y = column.values();
            Value value = its.value();
            if (c.role() == Role.STATE) {
                Map<Integer, String> states = new LinkedHashMap<>();
                column.states().forEach((word, n) -> states.put(n, word));
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
        return new Imported(new Take(taken, marks), values, remarks.all(), rows, clocks.start());
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
}
