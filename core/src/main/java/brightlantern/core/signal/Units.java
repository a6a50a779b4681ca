package brightlantern.core.signal;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Conversion between units of one quantity, by way of the SI unit (BIPM SI Brochure, 9th ed.). The
 * only place for it.
 */
public final class Units {
    private record Unit(String quantity, double factor, double offset) {}

    private static final Map<String, Unit> KNOWN = new LinkedHashMap<>();

    private static void add(String quantity, Object... namesAndFactors) {
        for (int i = 0; i < namesAndFactors.length; i += 2) {
            KNOWN.put(
                    (String) namesAndFactors[i],
                    new Unit(quantity, ((Number) namesAndFactors[i + 1]).doubleValue(), 0));
        }
    }

    static {
        add(
                "pressure",
                "kPa",
                1e3,
                "bar",
                1e5,
                "hPa",
                100,
                "mbar",
                100,
                "MPa",
                1e6,
                "psi",
                6894.757,
                "Pa",
                1);
        KNOWN.put("°C", new Unit("temperature", 1, 273.15));
        KNOWN.put("°F", new Unit("temperature", 5 / 9.0, 459.67 * 5 / 9));
        KNOWN.put("K", new Unit("temperature", 1, 0));
        add("speed", "km/h", 1 / 3.6, "m/s", 1, "mph", 0.44704);
        add("distance", "km", 1e3, "mi", 1609.344, "m", 1, "mm", 1e-3);
        add("voltage", "V", 1, "mV", 1e-3);
        add("current", "A", 1, "mA", 1e-3);
        add("mass flow", "g/s", 1e-3, "kg/h", 1 / 3600.0, "lb/min", 0.45359237 / 60);
        add("torque", "Nm", 1, "lbf·ft", 1.355818);
        add("power", "kW", 1e3, "hp", 745.69987, "W", 1);
        add("volume", "l", 1e-3, "gal", 3.785411784e-3);
        add("volume flow", "l/h", 1e-3 / 3600, "gal/h", 3.785411784e-3 / 3600);
        add("time", "s", 1, "ms", 1e-3, "min", 60, "h", 3600);
        add("rotation", "rpm", 1, "krpm", 1000, "1/min", 1);
        add("mass", "g", 1, "mg", 1e-3, "kg", 1000);
        add("share", "%", 1);
        add("angle", "°", 1);
    }

    /** Durations in a sentence are spoken of as they are meant: half an hour is no 1800000 ms. */
    private static final String AS_SPOKEN = "time";

    /** Thousands may be set apart by commas. */
    private static final String FIGURE = "-?(?:\\d{1,3}(?:,\\d{3})+|\\d+)(?:\\.\\d+)?";

    /** A figure or a span of two, and its unit; after "by" or "within" it is a difference. */
    private static final Pattern FIGURES =
            Pattern.compile(
                    "(?<by>\\b(?:by|within)(?: (?:less|more) than| at (?:least|most))? )?"
                            + "(?<![\\w.,-])(?<first>%1$s)(?:(?<to> (?:to|and|…) )(?<last>%1$s))? (?<unit>"
                                    .formatted(FIGURE)
                            + KNOWN.keySet().stream()
                                    .sorted(Comparator.comparingInt(String::length).reversed())
                                    .map(Pattern::quote)
                                    .collect(Collectors.joining("|"))
                            + ")(?![\\w/·°²])");

    private Units() {}

    /** Whether a unit is one that can be converted. */
    public static boolean isKnown(String unit) {
        return KNOWN.containsKey(unit);
    }

    /** How loggers write units that have another name here; all letters small, no blanks. */
    private static final Map<String, String> SPELLED = spelled();

    private static Map<String, String> spelled() {
        Map<String, String> spelled = new LinkedHashMap<>();
        KNOWN.keySet().forEach(u -> spelled.putIfAbsent(plain(u), u));
        // a small letter that would be taken for another unit keeps its meaning
        spelled.put("mpa", "MPa");
        List.of("f", "degf", "deg.f", "fahrenheit", "℉").forEach(s -> spelled.put(s, "°F"));
        List.of("c", "degc", "deg.c", "celsius", "centigrade", "℃", "grad", "gradc")
                .forEach(s -> spelled.put(s, "°C"));
        List.of("kelvin").forEach(s -> spelled.put(s, "K"));
        List.of("kph", "kmh", "km/hr", "kmph", "kmh-1", "km/std")
                .forEach(s -> spelled.put(s, "km/h"));
        List.of("mi/h", "miles/h", "milesperhour").forEach(s -> spelled.put(s, "mph"));
        List.of("1/min", "rev/min", "r/min", "u/min", "min-1", "rpm.")
                .forEach(s -> spelled.put(s, "rpm"));
        List.of("percent", "pct", "prozent").forEach(s -> spelled.put(s, "%"));
        List.of("volt", "volts").forEach(s -> spelled.put(s, "V"));
        List.of("millivolt", "millivolts").forEach(s -> spelled.put(s, "mV"));
        List.of("amp", "amps", "ampere").forEach(s -> spelled.put(s, "A"));
        List.of("sec", "secs", "second", "seconds").forEach(s -> spelled.put(s, "s"));
        List.of("msec", "millis", "milliseconds").forEach(s -> spelled.put(s, "ms"));
        List.of("minute", "minutes").forEach(s -> spelled.put(s, "min"));
        List.of("hour", "hours", "hr", "std").forEach(s -> spelled.put(s, "h"));
        List.of("gram/s", "g/sec", "gps", "grams/sec").forEach(s -> spelled.put(s, "g/s"));
        List.of("deg", "degree", "degrees", "°crk", "°ca", "degca")
                .forEach(s -> spelled.put(s, "°"));
        List.of("miles", "mile").forEach(s -> spelled.put(s, "mi"));
        List.of("n·m", "n.m", "newtonmeter").forEach(s -> spelled.put(s, "Nm"));
        List.of("lb-ft", "lbft", "ft-lb", "ftlb", "lbf.ft").forEach(s -> spelled.put(s, "lbf·ft"));
        List.of("bars").forEach(s -> spelled.put(s, "bar"));
        List.of("psia", "psig", "lb/in2").forEach(s -> spelled.put(s, "psi"));
        return spelled;
    }

    private static String plain(String unit) {
        return unit.toLowerCase(Locale.ROOT).replaceAll("[\\s\\u00A0_]+", "");
    }

    /**
     * A unit as it is called here, however a logger spells it: {@code kph}, {@code degF} or {@code
     * KMH}; empty when nobody here knows it.
     */
    public static Optional<String> spelledAs(String unit) {
        String as = unit.trim();
        return KNOWN.containsKey(as)
                ? Optional.of(as)
                : Optional.ofNullable(SPELLED.get(plain(as)));
    }

    /** What a unit measures; empty when it is not known. */
    public static Optional<String> quantity(String unit) {
        return Optional.ofNullable(KNOWN.get(unit)).map(Unit::quantity);
    }

    /** All units of a quantity. */
    public static List<String> of(String quantity) {
        return KNOWN.entrySet().stream()
                .filter(e -> e.getValue().quantity().equals(quantity))
                .map(Map.Entry::getKey)
                .toList();
    }

    /** Quantity → its units, for those that a person may choose between. */
    public static Map<String, List<String>> choices() {
        Map<String, List<String>> choices = new LinkedHashMap<>();
        KNOWN.forEach(
                (name, unit) ->
                        choices.computeIfAbsent(unit.quantity, q -> new ArrayList<>()).add(name));
        choices.values().removeIf(units -> units.size() < 2);
        return choices;
    }

    /** A number with about three figures, as a sentence needs it. */
    public static String told(double value) {
        double size = Math.abs(value);
        return String.format(
                Locale.ROOT,
                size >= 20
                        ? "%.0f"
                        : size >= 2 ? "%.1f" : size >= 0.1 || size == 0 ? "%.2f" : "%.1g",
                value);
    }

    /**
     * A sentence with its figures in the units that somebody chose, about as exact as three figures
     * are.
     *
     * @param choices quantity → unit
     */
    public static String inText(String text, Map<String, String> choices) {
        if (choices.isEmpty()) {
            return text;
        }
        return FIGURES.matcher(text)
                .replaceAll(m -> Matcher.quoteReplacement(inChosenUnit(m.group(), choices)));
    }

    private static String inChosenUnit(String figures, Map<String, String> choices) {
        Matcher m = FIGURES.matcher(figures);
        if (!m.matches()) {
            return figures;
        }
        String from = m.group("unit");
        String quantity = KNOWN.get(from).quantity;
        String to = quantity.equals(AS_SPOKEN) ? from : choices.getOrDefault(quantity, from);
        if (to.equals(from)) {
            return figures;
        }
        boolean difference = m.group("by") != null;
        Function<String, String> turned =
                figure -> {
                    double value = Double.parseDouble(figure.replace(",", ""));
                    double there =
                            difference
                                    ? convertDifference(value, from, to)
                                    : convert(value, from, to);
                    return figure.contains(",")
                            ? String.format(Locale.ROOT, "%,.0f", there)
                            : told(there);
                };
        return (difference ? m.group("by") : "")
                + turned.apply(m.group("first"))
                + (m.group("to") == null ? "" : m.group("to") + turned.apply(m.group("last")))
                + " "
                + to;
    }

    /** A difference, which an offset does not touch. */
    public static double convertDifference(double value, String from, String to) {
        return convert(value, from, to) - convert(0, from, to);
    }

    /**
     * @throws IllegalArgumentException when the units do not measure the same thing
     */
    public static double convert(double value, String from, String to) {
        if (from.equals(to)) {
            return value;
        }
        Unit a = KNOWN.get(from);
        Unit b = KNOWN.get(to);
        if (a == null || b == null || !a.quantity.equals(b.quantity)) {
            throw new IllegalArgumentException("Cannot turn " + from + " into " + to);
        }
        return (value * a.factor + a.offset - b.offset) / b.factor;
    }
}
