package brightlantern.core.take.csv;

import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.Role;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Writer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A log that has a line for each name and value instead of a column for each name. It is turned
 * into the ordinary form: one line for each time, in the order of the file.
 *
 * @param unit column with the unit of the line's value; -1 when there is none
 */
public record LongForm(Dialect dialect, int time, int name, int value, int unit) {
    /** More names than this are not names. */
    private static final int MOST_NAMES = CsvLook.MOST_COLUMNS - 1;

    private static final Set<String> NAMES =
            Set.of("name", "signal", "channel", "parameter", "variable", "sensor", "item", "pid");
    private static final Set<String> VALUES = Set.of("value", "val", "reading", "result", "data");
    private static final Set<String> UNITS = Set.of("unit", "units", "einheit");

    /** Whether a file that was looked at is written so. */
    public static Optional<LongForm> of(CsvLook look) {
        List<Column> columns = look.dialect().columns();
        int name = -1;
        int value = -1;
        int unit = -1;
        int time = -1;
        for (Column c : columns) {
            String called = c.name().toLowerCase(Locale.ROOT).trim();
            if (c.role() == Role.TIME && time < 0) {
                time = c.index();
            } else if (NAMES.contains(called) && c.role() == Role.STATE) {
                name = c.index();
            } else if (VALUES.contains(called)) {
                value = c.index();
            } else if (UNITS.contains(called)) {
                unit = c.index();
            }
        }
        return time >= 0 && name >= 0 && value >= 0
                ? Optional.of(new LongForm(look.dialect(), time, name, value, unit))
                : Optional.empty();
    }

    /** A file can be read as often as it is needed. */
    public interface Source {
        InputStream open() throws IOException;
    }

    /**
     * Writes the log with a column for each name, commas between, decimal signs as they were.
     *
     * @return what was seen of it, in words
     * @throws IOException when it cannot be read or written
     * @throws IllegalArgumentException when it has too many names
     */
    public List<String> widen(Source source, Writer out) throws IOException {
        Map<String, String> names = names(source);
        List<String> order = List.copyOf(names.keySet());
        Map<String, Integer> at = new LinkedHashMap<>();
        order.forEach(n -> at.put(n, at.size() + 1));
        List<String> head = new ArrayList<>(List.of(dialect.columns().get(time).name()));
        order.forEach(n -> head.add(names.get(n).isEmpty() ? n : n + " [" + names.get(n) + "]"));
        long lines = 0;
        CsvWriter csv = CsvWriter.builder().fieldSeparator(';').build(out);
        csv.writeRecord(head);
        String[] row = new String[order.size() + 1];
        Arrays.fill(row, "");
        try (CsvReader<CsvRecord> in = reader(source)) {
            for (CsvRecord record : in) {
                if (lines++ < dialect.dataLine() || record.getFieldCount() <= last()) {
                    continue;
                }
                String t = record.getField(time).trim();
                int column = at.getOrDefault(record.getField(name).trim(), -1);
                if (column < 0) {
                    continue;
                }
                if (!t.equals(row[0]) || !row[column].isEmpty()) {
                    flush(csv, row);
                    row[0] = t;
                }
                row[column] = record.getField(value).trim();
            }
        }
        flush(csv, row);
        csv.flush();
        return List.of(
                "The file has a line for each name and value; its "
                        + order.size()
                        + " names became columns.");
    }

    private static void flush(CsvWriter csv, String[] row) {
        if (!row[0].isEmpty()) {
            csv.writeRecord(row);
        }
        Arrays.fill(row, "");
    }

    private int last() {
        return Math.max(time, Math.max(name, value));
    }

    /** Name → unit, in the order in which they come first. */
    private Map<String, String> names(Source source) throws IOException {
        Map<String, String> names = new LinkedHashMap<>();
        long lines = 0;
        try (CsvReader<CsvRecord> in = reader(source)) {
            for (CsvRecord record : in) {
                if (lines++ < dialect.dataLine() || record.getFieldCount() <= last()) {
                    continue;
                }
                String its =
                        unit >= 0 && unit < record.getFieldCount()
                                ? record.getField(unit).trim()
                                : "";
                names.putIfAbsent(record.getField(name).trim(), its);
                if (names.size() > MOST_NAMES) {
                    throw new IllegalArgumentException(
                            "Column '"
                                    + dialect.columns().get(name).name()
                                    + "' holds more than "
                                    + MOST_NAMES
                                    + " different names");
                }
            }
        }
        names.remove("");
        return names;
    }

    private CsvReader<CsvRecord> reader(Source source) throws IOException {
        return CsvReader.builder()
                .fieldSeparator(dialect.separator())
                .skipEmptyLines(true)
                .allowExtraFields(true)
                .allowMissingFields(true)
                .allowExtraCharsAfterClosingQuote(true)
                .allowUnclosedQuote(true)
                .ofCsvRecord(new InputStreamReader(source.open(), dialect.charset()));
    }
}
