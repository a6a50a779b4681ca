package brightlantern.core.circuit;

import java.util.List;
import java.util.Locale;

/** What a meter on ohms may read of a part alone, and how resistances are told. */
public final class Ohms {
    /** Below the first it is shorted, above the last open; between them it may be worn. */
    private static final double SHORTED = 0.4;

    private static final double WORN = 1.8;
    private static final double OPEN = 15;

    /** A sensor has other ohms at another temperature; only what it never has tells something. */
    private static final double LEAST_SENSOR = 0.02;

    private static final double MOST_SENSOR = 50;

    private static final double KILO = 1000;
    private static final double TENS = 10;

    private Ohms() {}

    /**
     * What a consumer alone tells, unplugged at its connector.
     *
     * @param at its two pins, and other
     */
    static Gauge gauge(Consumer its, String plug, String at, String other) {
        return new Gauge(
                its.id() + "-ohms",
                "Ohms of " + SheetPlan.lower(its.name()) + " alone, " + plug + " unplugged",
                its.id(),
                at,
                other,
                its.coldOhm(),
                bands(its),
                "",
                "",
                "",
                Gauge.Scale.NONE,
                Gauge.By.OHMMETER);
    }

    /** Bands over the ohms of a healthy one, from the fewest up. */
    private static List<Band> bands(Consumer its) {
        Band open = new Band("open", "open, nothing through it", Double.MAX_VALUE, "", false);
        String right = "about " + told(its.coldOhm());
        return its.kind() == ConsumerKind.SENSOR
                ? List.of(
                        new Band("shorted", "next to nothing", LEAST_SENSOR, "", false),
                        new Band("right", right + ", as its table has it", MOST_SENSOR, "", true),
                        open)
                : List.of(
                        new Band("shorted", "next to nothing", SHORTED, "", false),
                        new Band("right", right, WORN, "", true),
                        new Band(
                                "worn",
                                "clearly more than " + told(its.coldOhm()),
                                OPEN,
                                "",
                                false),
                        open);
    }

    /**
     * A resistance in two figures, as people say it: without powers of ten.
     *
     * @param ohm at least 0
     */
    public static String told(double ohm) {
        if (ohm >= KILO) {
            double kilo = ohm / KILO;
            return String.format(Locale.ROOT, kilo >= TENS ? "%.0f kΩ" : "%.2g kΩ", kilo);
        }
        return String.format(Locale.ROOT, ohm >= TENS ? "%.0f Ω" : "%.2g Ω", ohm);
    }
}
