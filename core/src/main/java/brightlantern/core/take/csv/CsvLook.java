package brightlantern.core.take.csv;

import brightlantern.core.signal.Units;
import brightlantern.core.take.csv.Dialect.Clock;
import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.DateOrder;
import brightlantern.core.take.csv.Dialect.Role;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.io.UncheckedIOException;
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
import java.util.OptionalInt;
import java.util.Set;
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
    private static final Pattern UNIT_IN_NAME =
            Pattern.compile("(.*?)\\s*[\\[(]([^\\])]*)[\\])]\\s*");
    private static final Pattern TIME_NAME =
            Pattern.compile(
                    "(?i)\\s*(time|zeit|timestamp|seconds|sec|millis|milliseconds|micros|microseconds|minutes|clock|date|datetime|t|ms|us)([ _.-].*|\\d*)?");
    private static final String TIME_UNITS =
            "(?i)s|sec|secs|seconds|ms|msec|millis|milliseconds|µs|μs|us|usec|micros|microseconds|min|minutes|h:m:s|hh:mm:ss.*|mm:ss.*";

    /** What a logger writes where it has no value. */
    private static final Set<String> NO_VALUE =
            Set.of(
                    "nan",
                    "-nan",
                    "inf",
                    "-inf",
                    "+inf",
                    "infinity",
                    "-infinity",
                    "null",
                    "n/a",
                    "na",
                    "-",
                    "--",
                    "---",
                    "none");

    public CsvLook {
        rows = rows.stream().map(List::copyOf).toList();
        remarks = List.copyOf(remarks);
    }

    /**
     * What somebody who looked at the file says of it; what is empty is found out.
     *
     * @param time the column of times, from 0; -1 when there is none
     */
    public record Corrections(
            Optional<Character> separator,
            Optional<Boolean> decimalComma,
            OptionalInt time,
            Optional<Clock> clock,
            Optional<DateOrder> dates) {
        /** Nothing that a person corrected. */
        public static Corrections none() {
            return new Corrections(
                    Optional.empty(),
                    Optional.empty(),
                    OptionalInt.empty(),
                    Optional.empty(),
                    Optional.empty());
        }
    }

    /**
     * @param beginning the first {@link #ENOUGH_BYTES} of the file, or all of it
     * @throws IllegalArgumentException says what is missing when this is no table
     */
    public static CsvLook at(byte[] beginning) {
        return at(beginning, Corrections.none());
    }

    /**
     * The same, with what somebody said of it.
     *
     * @throws IllegalArgumentException says what is missing when this is no table
     */
    public static CsvLook at(byte[] beginning, Corrections said) {
        otherKind(beginning);
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
        char separator = said.separator().orElse(separator(text, whole));
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
        return new Looking(charset, separator, lines, said).look();
    }

    /** Files that are no text at all are called by their name. */
    private static void otherKind(byte[] bytes) {
        if (begins(bytes, 0x50, 0x4B, 0x03, 0x04)) {
            throw new IllegalArgumentException(
                    "This is a workbook (.xlsx) or another packed file; save the sheet as CSV and bring that in");
        }
        if (begins(bytes, 0xD0, 0xCF, 0x11, 0xE0)) {
            throw new IllegalArgumentException(
                    "This is a workbook of the old kind (.xls); save the sheet as CSV and bring that in");
        }
        if (begins(bytes, 0x1F, 0x8B)) {
            throw new IllegalArgumentException(
                    "This is a packed file (.gz); unpack it and bring in what is inside");
        }
        if (begins(bytes, 0x25, 0x50, 0x44, 0x46)) {
            throw new IllegalArgumentException(
                    "This is a PDF; export the log as CSV and bring that in");
        }
    }

    private static boolean begins(byte[] bytes, int... with) {
        for (int i = 0; i < with.length; i++) {
            if (i >= bytes.length || (bytes[i] & 0xFF) != with[i]) {
                return false;
            }
        }
        return true;
    }

    /** UTF-16 without a mark shows by a zero in every other byte, as most letters are Latin. */
    private static Optional<Charset> wide(byte[] bytes) {
        int looked = Math.min(bytes.length, 4000) / 2;
        int even = 0;
        int odd = 0;
        for (int i = 0; i < looked; i++) {
            even += bytes[2 * i] == 0 ? 1 : 0;
            odd += bytes[2 * i + 1] == 0 ? 1 : 0;
        }
        if (odd > looked / 2 && even == 0) {
            return Optional.of(StandardCharsets.UTF_16LE);
        }
        return even > looked / 2 && odd == 0
                ? Optional.of(StandardCharsets.UTF_16BE)
                : Optional.empty();
    }

    private static Charset charset(byte[] bytes) {
        if (bytes.length >= 2 && (bytes[0] & 0xFF) == 0xFF && (bytes[1] & 0xFF) == 0xFE) {
            return StandardCharsets.UTF_16LE;
        }
        if (bytes.length >= 2 && (bytes[0] & 0xFF) == 0xFE && (bytes[1] & 0xFF) == 0xFF) {
            return StandardCharsets.UTF_16BE;
        }
        Optional<Charset> wide = wide(bytes);
        if (wide.isPresent()) {
            return wide.get();
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
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
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
                                                            .noneMatch(CsvLook::beginsAsFigure));
            double its = mode < 2 ? 0 : alike + (named ? NAMED : 0);
            if (its > score + 0.25) {
                best = candidate;
                score = its;
            }
        }
        return best;
    }

    static boolean isNumber(String field) {
        String f = field.trim();
        return NUMBER.matcher(f).matches()
                || Numbers.isGrouped(f, false)
                || Numbers.isGrouped(f, true);
    }

    /** A part of a line of figures, split in the wrong place or not. */
    private static boolean beginsAsFigure(String field) {
        return field.trim().matches("[-+]?\\d.*");
    }

    private static boolean isNoValue(String field) {
        return NO_VALUE.contains(field.trim().toLowerCase(Locale.ROOT));
    }

    private static boolean isTime(String field) {
        String f = field.trim();
        return Times.isClock(f) || Times.isStamp(f);
    }

    /** One look, with what it found so far. */
    private static final class Looking {
        private final Charset charset;
        private final char separator;
        private final List<List<String>> lines;
        private final Corrections said;
        private final List<String> remarks = new ArrayList<>();
        private final int width;

        Looking(Charset charset, char separator, List<List<String>> lines, Corrections said) {
            this.said = said;
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
                remarks.add(
                        head == 1
                                ? "1 line before the names was passed over."
                                : head + " lines before the names were passed over.");
            }
            // a logger that was switched on again writes its names once more
            List<List<String>> named = lines.subList(Math.max(0, head), first);
            List<List<String>> data =
                    lines.subList(first, lines.size()).stream()
                            .filter(l -> l.size() == width && !named.contains(l))
                            .toList();
            boolean comma = said.decimalComma().orElse(decimalComma(data));
            List<Column> columns = columns(head, unitRow, data);
            if (columns.stream().noneMatch(c -> c.role() == Role.TIME)) {
                remarks.add("No column of times was found; each line is taken for one second.");
            }
            if (charset.name().equals("windows-1252")) {
                remarks.add("The file is not UTF-8; it was read as Windows-1252.");
            }
            return new CsvLook(
                    new Dialect(
                            charset,
                            separator,
                            comma,
                            head,
                            unitRow,
                            dates(columns, data),
                            columns),
                    data.stream().limit(SHOWN_ROWS).toList(),
                    remarks);
        }

        /** The first line with as many fields as most, of which many are numbers or times. */
        private int firstData() {
            for (int i = 0; i < lines.size(); i++) {
                List<String> line = lines.get(i);
                long full = line.stream().filter(f -> !f.isBlank()).count();
                long numbers =
                        line.stream().filter(f -> isNumber(f) || isTime(f) || isNoValue(f)).count();
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
                                            Units.isKnown(f)
                                                    || f.equals("s")
                                                    || f.equals("ms")
                                                    || f.equals("%"));
        }

        /** Commas are decimal signs unless they set thousands apart. */
        private boolean decimalComma(List<List<String>> data) {
            List<String> numbers = data.stream().flatMap(List::stream).map(String::trim).toList();
            if (numbers.stream().anyMatch(f -> f.matches("[-+]?\\d{1,3}(,\\d{3})+\\.\\d+"))) {
                return false;
            }
            long comma = numbers.stream().filter(f -> COMMA.matcher(f).matches()).count();
            long grouped =
                    numbers.stream().filter(f -> f.matches("[-+]?[1-9]\\d{0,2}(,\\d{3})+")).count();
            boolean small = numbers.stream().anyMatch(f -> f.matches("[-+]?\\d{1,3}"));
            boolean large = numbers.stream().anyMatch(f -> f.matches("[-+]?\\d{4,}"));
            if (comma > 0 && comma == grouped && small && !large) {
                remarks.add(
                        "Commas were taken for what sets thousands apart; if they are decimal signs, say so below.");
                return false;
            }
            long point = numbers.stream().filter(f -> f.matches("[-+]?\\d+\\.\\d+")).count();
            // between commas only quoted numbers have one
            return separator == ',' ? comma > 0 : comma > point;
        }

        private DateOrder dates(List<Column> columns, List<List<String>> data) {
            if (said.dates().isPresent()) {
                return said.dates().get();
            }
            List<String> stamps =
                    columns.stream()
                            .filter(c -> c.clock().equals(Optional.of(Clock.TIMESTAMP)))
                            .flatMap(c -> data.stream().map(l -> l.get(c.index()).trim()))
                            .filter(Times::isStamp)
                            .toList();
            Optional<DateOrder> sure =
                    stamps.stream().flatMap(f -> Times.order(f).stream()).findFirst();
            if (sure.isEmpty() && !stamps.isEmpty()) {
                remarks.add(
                        "Dates like "
                                + stamps.get(0)
                                + " were read with the day first; say below if the month comes first.");
            }
            return sure.orElse(DateOrder.DAY_FIRST);
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
                if (said.time().isPresent()) {
                    // somebody said which column tells the time; no other does
                    role =
                            said.time().getAsInt() == i
                                    ? Role.TIME
                                    : role == Role.TIME
                                            ? fields.stream().allMatch(CsvLook::isNumber)
                                                    ? Role.VALUE
                                                    : Role.EMPTY
                                            : role;
                }
                Optional<Clock> clock = Optional.empty();
                if (role == Role.TIME && !fields.isEmpty()) {
                    clock = Optional.of(said.clock().orElse(clock(name, unit, fields)));
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
                // what has a name may have values further down
                return name.equalsIgnoreCase("mark")
                        ? Role.MARK
                        : name.isEmpty() || name.startsWith("column ") ? Role.EMPTY : Role.VALUE;
            }
            if (fields.stream().allMatch(CsvLook::isTime)) {
                return Role.TIME;
            }
            long numbers = fields.stream().filter(CsvLook::isNumber).count();
            long nothing = fields.stream().filter(CsvLook::isNoValue).count();
            if (nothing == fields.size()) {
                return Role.VALUE;
            }
            if (numbers * 2 > fields.size() - nothing) {
                boolean named =
                        TIME_NAME.matcher(name).matches()
                                && (unit.isEmpty() || unit.matches(TIME_UNITS));
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
            if (Times.isStamp(fields.get(0))) {
                return Clock.TIMESTAMP;
            }
            if (Times.isClock(fields.get(0))) {
                return fields.stream().anyMatch(Times::isMinutes) || unit.matches("(?i)mm:ss.*")
                        ? Clock.MINUTES_SECONDS
                        : Clock.CLOCK;
            }
            String said = (name + " " + unit).toLowerCase(Locale.ROOT);
            if (said.matches(".*(\\b|_)(ms|msec|millis|milliseconds)\\b.*")) {
                return Clock.MILLIS;
            }
            if (said.matches(".*(\\b|_)(us|usec|micros|microseconds)\\b.*|.*[µμ]s.*")) {
                return Clock.MICROS;
            }
            if (said.matches(".*(\\b|_)(min|minutes)\\b.*")) {
                return Clock.MINUTES;
            }
            double first = number(fields.get(0));
            if (first > 1e14) {
                return Clock.MICROS;
            }
            if (first > 1e11) {
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
