package brightlantern.core.take.csv;

import brightlantern.core.signal.Units;
import brightlantern.core.take.csv.Dialect.Clock;
import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.DateOrder;
import brightlantern.core.take.csv.Dialect.Role;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;

/** One look, with what it found so far. */
final class ColumnLook {
    private final Charset charset;
    private final char separator;
    private final List<List<String>> lines;
    private final CsvLook.Corrections said;
    private final List<String> remarks = new ArrayList<>();
    private final int width;

    ColumnLook(
            Charset charset, char separator, List<List<String>> lines, CsvLook.Corrections said) {
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
        if (head > 0 && looksLikeUnits(lines.get(head)) && lines.get(head - 1).size() == width) {
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
                        charset, separator, comma, head, unitRow, dates(columns, data), columns),
                data.stream().limit(CsvLook.SHOWN_ROWS).toList(),
                remarks);
    }

    /** The first line with as many fields as most, of which many are numbers or times. */
    private int firstData() {
        for (int i = 0; i < lines.size(); i++) {
            List<String> line = lines.get(i);
            long full = line.stream().filter(f -> !f.isBlank()).count();
            long numbers =
                    line.stream()
                            .filter(
                                    f ->
                                            LogLines.isNumber(f)
                                                    || LogLines.isTime(f)
                                                    || LogLines.isNoValue(f))
                            .count();
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
                && line.stream().noneMatch(f -> LogLines.isNumber(f) || LogLines.isTime(f))
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
        long comma = numbers.stream().filter(f -> CsvLook.COMMA.matcher(f).matches()).count();
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
            Matcher inName = CsvLook.UNIT_IN_NAME.matcher(name);
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
                                        ? fields.stream().allMatch(LogLines::isNumber)
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
        if (fields.stream().allMatch(LogLines::isTime)) {
            return Role.TIME;
        }
        long numbers = fields.stream().filter(LogLines::isNumber).count();
        long nothing = fields.stream().filter(LogLines::isNoValue).count();
        if (nothing == fields.size()) {
            return Role.VALUE;
        }
        if (numbers * 2 > fields.size() - nothing) {
            boolean named =
                    CsvLook.TIME_NAME.matcher(name).matches()
                            && (unit.isEmpty() || unit.matches(CsvLook.TIME_UNITS));
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
        if (!saysSeconds && step >= 5 && fields.stream().noneMatch(f -> f.matches(".*[.,].*"))) {
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
