package brightlantern.core.take.csv;

import brightlantern.core.take.csv.Dialect.Clock;
import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.Role;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Finds out from the beginning of a file how it is written, and says what was assumed.
 *
 * @param rows the first lines of data, as they stand
 * @param remarks what was assumed where the file does not say it
 */
public record CsvLook(Dialect dialect, List<List<String>> rows, List<String> remarks) {
    /** So much of the beginning is enough to tell. */
    public static final int ENOUGH_BYTES = 1 << 18;

    /** Nobody reads more columns than this, and a damaged file has them easily. */
    public static final int MOST_COLUMNS = 2000;

    private static final int SHOWN_ROWS = 8;
    private static final int LOOKED_AT = 60;
    private static final char[] SEPARATORS = {';', '\t', ',', '|'};

    /** What a line of names counts when the separator is guessed, in shares of all lines. */
    private static final double NAMED = 0.5;

    private static final Pattern NUMBER = Pattern.compile("[-+]?\\d*[.,]?\\d+([eE][-+]?\\d+)?");
    private static final Pattern COMMA = Pattern.compile("[-+]?[\\d.]*\\d,\\d+");
    private static final Pattern CLOCK = Pattern.compile("\\d{1,2}:\\d{2}(:\\d{2}([.,]\\d+)?)?");
    private static final Pattern STAMP =
            Pattern.compile("\\d{4}-\\d{2}-\\d{2}[T ]\\d{2}:\\d{2}(:\\d{2}([.,]\\d+)?)?.*");
    private static final Pattern UNIT_IN_NAME =
            Pattern.compile("(.*?)\\s*[\\[(]([^\\])]*)[\\])]\\s*");
    private static final Pattern TIME_NAME =
            Pattern.compile(
                    "(?i)\\s*(time|zeit|timestamp|seconds|sec|millis|milliseconds|clock|date|datetime|t|ms)([ _.-].*|\\d*)?");

    public CsvLook {
        rows = rows.stream().map(List::copyOf).toList();
        remarks = List.copyOf(remarks);
    }

    /**
     * @param beginning the first {@link #ENOUGH_BYTES} of the file, or all of it
     * @throws IllegalArgumentException says what is missing when this is no table
     */
    public static CsvLook at(byte[] beginning) {
        Charset charset = charset(beginning);
        String text = new String(beginning, charset);
        if (!text.isEmpty() && text.charAt(0) == '\uFEFF') {
            text = text.substring(1);
        }
        if (text.isBlank()) {
            throw new IllegalArgumentException(
                    "The file is empty; expected a line of names and lines of numbers");
        }
        if (text.chars().limit(4000).filter(c -> c == 0).count() > 0) {
            throw new IllegalArgumentException(
                    "This is no text: it holds zero bytes; expected a table as CSV");
        }
        boolean whole = beginning.length < ENOUGH_BYTES;
        char separator = separator(text, whole);
        List<List<String>> lines = lines(text, separator, whole);
        if (lines.get(0).size() > MOST_COLUMNS) {
            throw new IllegalArgumentException(
                    "Line 1: "
                            + lines.get(0).size()
                            + " columns; at most "
                            + MOST_COLUMNS
                            + " are read. Is '"
                            + separator
                            + "' what separates them?");
        }
        return new Looking(charset, separator, lines).look();
    }

    private static Charset charset(byte[] bytes) {
        if (bytes.length >= 2 && (bytes[0] & 0xFF) == 0xFF && (bytes[1] & 0xFF) == 0xFE) {
            return StandardCharsets.UTF_16LE;
        }
        if (bytes.length >= 2 && (bytes[0] & 0xFF) == 0xFE && (bytes[1] & 0xFF) == 0xFF) {
            return StandardCharsets.UTF_16BE;
        }
        // the last character of the beginning may be cut in two
        int end = bytes.length;
        while (end > 0 && bytes.length - end < 4 && (bytes[end - 1] & 0x80) != 0) {
            end--;
        }
        try {
            StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, 0, end));
            return StandardCharsets.UTF_8;
        } catch (CharacterCodingException notUtf8) {
            return Charset.forName("windows-1252");
        }
    }

    private static List<List<String>> lines(String text, char separator, boolean whole) {
        List<List<String>> lines = new ArrayList<>();
        try (CsvReader<CsvRecord> csv =
                CsvReader.builder()
                        .fieldSeparator(separator)
                        .skipEmptyLines(true)
                        .allowExtraFields(true)
                        .allowMissingFields(true)
                        .allowExtraCharsAfterClosingQuote(true)
                        .allowUnclosedQuote(true)
                        .ofCsvRecord(text)) {
            for (CsvRecord record : csv) {
                lines.add(record.getFields());
                if (lines.size() == LOOKED_AT) {
                    break;
                }
            }
        } catch (java.io.IOException impossible) {
            throw new java.io.UncheckedIOException(impossible);
        } catch (CsvParseException damaged) {
            throw new IllegalArgumentException(
                    "Line "
                            + (lines.size() + 1)
                            + ": not a line of a table (at most "
                            + MOST_COLUMNS
                            + " are read of its columns): "
                            + damaged.getMessage(),
                    damaged);
        }
        if (!whole && lines.size() > 1 && lines.size() < LOOKED_AT) {
            // the beginning ends within a line
            lines.remove(lines.size() - 1);
        }
        return lines;
    }

    /** What splits most lines into the same number of fields; the least ambiguous one first. */
    private static char separator(String text, boolean whole) {
        char best = ',';
        double score = 0;
        for (char candidate : SEPARATORS) {
            Map<Integer, Integer> sizes = new HashMap<>();
            List<List<String>> lines = lines(text, candidate, whole);
            lines.forEach(l -> sizes.merge(l.size(), 1, Integer::sum));
            int mode =
                    sizes.entrySet().stream()
                            .max(
                                    Map.Entry.<Integer, Integer>comparingByValue()
                                            .thenComparing(Map.Entry.comparingByKey()))
                            .orElseThrow()
                            .getKey();
            double alike = (double) sizes.get(mode) / lines.size();
            // a decimal comma splits the numbers alike as well, but not the names above them
            boolean named =
                    lines.stream()
                            .anyMatch(
                                    l ->
                                            l.size() == mode
                                                    && l.stream()
                                                            .noneMatch(
                                                                    f -> isNumber(f) || isTime(f)));
            double its = mode < 2 ? 0 : alike + (named ? NAMED : 0);
            if (its > score + 0.25) {
                best = candidate;
                score = its;
            }
        }
        return best;
    }

    static boolean isNumber(String field) {
        return NUMBER.matcher(field.trim()).matches();
    }

    private static boolean isTime(String field) {
        String f = field.trim();
        return CLOCK.matcher(f).matches() || STAMP.matcher(f).matches();
    }

    /** One look, with what it found so far. */
    private static final class Looking {
        private final Charset charset;
        private final char separator;
        private final List<List<String>> lines;
        private final List<String> remarks = new ArrayList<>();
        private final int width;

        Looking(Charset charset, char separator, List<List<String>> lines) {
            this.charset = charset;
            this.separator = separator;
            this.lines = lines;
            Map<Integer, Integer> sizes = new HashMap<>();
            lines.forEach(l -> sizes.merge(l.size(), 1, Integer::sum));
            width =
                    sizes.entrySet().stream()
                            .max(
                                    Map.Entry.<Integer, Integer>comparingByValue()
                                            .thenComparing(Map.Entry.comparingByKey()))
                            .orElseThrow()
                            .getKey();
        }

        CsvLook look() {
            int first = firstData();
            int head = first - 1;
            boolean unitRow = false;
            if (head > 0
                    && looksLikeUnits(lines.get(head))
                    && lines.get(head - 1).size() == width) {
                unitRow = true;
                head--;
            }
            if (head < 0) {
                remarks.add("The file has no line of names; columns are called by their number.");
            }
            if (head > 0) {
                remarks.add(head + " line(s) before the names were passed over.");
            }
            // a logger that was switched on again writes its names once more
            List<List<String>> named = lines.subList(Math.max(0, head), first);
            List<List<String>> data =
                    lines.subList(first, lines.size()).stream()
                            .filter(l -> l.size() == width && !named.contains(l))
                            .toList();
            boolean comma = decimalComma(data);
            List<Column> columns = columns(head, unitRow, data);
            if (columns.stream().noneMatch(c -> c.role() == Role.TIME)) {
                remarks.add("No column of times was found; each line is taken for one second.");
            }
            if (charset.name().equals("windows-1252")) {
                remarks.add("The file is not UTF-8; it was read as Windows-1252.");
            }
            return new CsvLook(
                    new Dialect(charset, separator, comma, head, unitRow, columns),
                    data.stream().limit(SHOWN_ROWS).toList(),
                    remarks);
        }

        /** The first line with as many fields as most, of which many are numbers or times. */
        private int firstData() {
            for (int i = 0; i < lines.size(); i++) {
                List<String> line = lines.get(i);
                long full = line.stream().filter(f -> !f.isBlank()).count();
                long numbers = line.stream().filter(f -> isNumber(f) || isTime(f)).count();
                if (line.size() == width && numbers > 0 && numbers * 2 >= full) {
                    return i;
                }
            }
            throw new IllegalArgumentException(
                    "No line of numbers was found in the first "
                            + lines.size()
                            + " lines, separated by '"
                            + (separator == '\t' ? "tab" : separator)
                            + "'; expected names, then numbers");
        }

        private boolean looksLikeUnits(List<String> line) {
            return line.size() == width
                    && line.stream().allMatch(f -> f.trim().length() <= 10)
                    && line.stream().noneMatch(f -> isNumber(f) || isTime(f))
                    && line.stream()
                            .map(f -> f.trim().replaceAll("^[\\[(]|[\\])]$", ""))
                            .anyMatch(
                                    f ->
                                            brightlantern.core.signal.Units.isKnown(f)
                                                    || f.equals("s")
                                                    || f.equals("ms")
                                                    || f.equals("%"));
        }

        private boolean decimalComma(List<List<String>> data) {
            if (separator == ',') {
                // quoted numbers may still have one
                return data.stream()
                        .flatMap(List::stream)
                        .anyMatch(f -> COMMA.matcher(f.trim()).matches());
            }
            long comma = 0;
            long point = 0;
            for (List<String> line : data) {
                for (String f : line) {
                    comma += COMMA.matcher(f.trim()).matches() ? 1 : 0;
                    point += f.trim().matches("[-+]?\\d+\\.\\d+") ? 1 : 0;
                }
            }
            return comma > point;
        }

        private List<Column> columns(int head, boolean unitRow, List<List<String>> data) {
            List<Column> columns = new ArrayList<>();
            int time = -1;
            for (int i = 0; i < width; i++) {
                String name = head < 0 ? "column " + (i + 1) : named(lines.get(head), i);
                String unit = "";
                Matcher inName = UNIT_IN_NAME.matcher(name);
                if (inName.matches() && !inName.group(1).isBlank()) {
                    name = inName.group(1).trim();
                    unit = inName.group(2).trim();
                }
                if (unitRow) {
                    unit = named(lines.get(head + 1), i).replaceAll("^[\\[(]|[\\])]$", "");
                }
                int at = i;
                List<String> fields =
                        data.stream().map(l -> l.get(at).trim()).filter(f -> !f.isEmpty()).toList();
                Role role = role(name, unit, fields, i);
                Optional<Clock> clock = Optional.empty();
                if (role == Role.TIME) {
                    clock = Optional.of(clock(name, unit, fields));
                    time = i;
                }
                columns.add(
                        new Column(
                                i,
                                name.isEmpty() ? "column " + (i + 1) : name,
                                unit,
                                role,
                                clock,
                                role == Role.TIME ? i : time));
            }
            if (time >= 0) {
                int first =
                        columns.stream()
                                .filter(c -> c.role() == Role.TIME)
                                .findFirst()
                                .orElseThrow()
                                .index();
                columns.replaceAll(
                        c ->
                                c.time() < 0
                                        ? new Column(
                                                c.index(), c.name(), c.unit(), c.role(), c.clock(),
                                                first)
                                        : c);
            }
            return columns;
        }

        /** A field of a line of names, which may be shorter than the lines of data. */
        private static String named(List<String> line, int i) {
            return i < line.size() ? line.get(i).trim() : "";
        }

        private Role role(String name, String unit, List<String> fields, int index) {
            if (fields.isEmpty()) {
                return name.equalsIgnoreCase("mark") ? Role.MARK : Role.EMPTY;
            }
            if (fields.stream().allMatch(CsvLook::isTime)) {
                return Role.TIME;
            }
            long numbers = fields.stream().filter(CsvLook::isNumber).count();
            if (numbers * 2 > fields.size()) {
                boolean named =
                        TIME_NAME.matcher(name).matches()
                                && (unit.isEmpty()
                                        || unit.matches("(?i)s|sec|seconds|ms|millis|h:m:s"));
                boolean unnamed = index == 0 && name.startsWith("column ") && rises(fields);
                return (named || unnamed) && rises(fields) ? Role.TIME : Role.VALUE;
            }
            return name.equalsIgnoreCase("mark") ? Role.MARK : Role.STATE;
        }

        private static boolean rises(List<String> fields) {
            double before = Double.NEGATIVE_INFINITY;
            int falls = 0;
            for (String f : fields) {
                double v = number(f);
                falls += v < before ? 1 : 0;
                before = v;
            }
            return falls * 10 <= fields.size();
        }

        private static double number(String f) {
            char[] chars = f.replace(',', '.').toCharArray();
            return Numbers.parse(chars, 0, chars.length, false);
        }

        private Clock clock(String name, String unit, List<String> fields) {
            if (STAMP.matcher(fields.get(0)).matches()) {
                return Clock.TIMESTAMP;
            }
            if (CLOCK.matcher(fields.get(0)).matches()) {
                return Clock.CLOCK;
            }
            String said = (name + " " + unit).toLowerCase(Locale.ROOT);
            if (said.matches(".*\\b(ms|millis|milliseconds)\\b.*")) {
                return Clock.MILLIS;
            }
            if (number(fields.get(0)) > 1e11) {
                return Clock.MILLIS;
            }
            boolean saysSeconds = said.matches(".*\\b(s|sec|seconds)\\b.*");
            double step =
                    fields.size() < 2
                            ? 0
                            : (number(fields.get(fields.size() - 1)) - number(fields.get(0)))
                                    / (fields.size() - 1);
            if (!saysSeconds
                    && step >= 5
                    && fields.stream().noneMatch(f -> f.matches(".*[.,].*"))) {
                remarks.add(
                        "Times of '"
                                + name
                                + "' step by "
                                + Math.round(step)
                                + "; they were taken for milliseconds.");
                return Clock.MILLIS;
            }
            return Clock.SECONDS;
        }
    }
}
