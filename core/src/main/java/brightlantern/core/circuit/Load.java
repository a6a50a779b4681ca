package brightlantern.core.circuit;

import java.util.List;
import java.util.Locale;

/** What can be hung on a probe point, to the other battery pole; a lead feeds it from plus. */
public enum Load {
    NOTHING("nothing", Double.POSITIVE_INFINITY),
    LAMP("small lamp, 5 W", 28.8),
    BULB("big bulb, 55 W", 2.62),
    LEAD("lead from battery plus, with a fuse of its own", 0.03);

    /** What is hung to see how the point bears it; a lead feeds what lies behind. */
    static final List<Load> HUNG = List.of(NOTHING, LAMP, BULB);

    private final String words;
    private final double hotOhm;

    Load(String words, double hotOhm) {
        this.words = words;
        this.hotOhm = hotOhm;
    }

    /** What it is called on a page. */
    public String words() {
        return words;
    }

    /**
     * Filament resistance in ohms at a voltage: R grows about with the root of the voltage; that of
     * a lead does not.
     *
     * @param volts across it, of either sign
     */
    public double ohmAt(double volts) {
        if (this == LEAD) {
            return hotOhm;
        }
        return hotOhm * filament().hot(volts);
    }

    /** That of a lamp. */
    Filament filament() {
        return new Filament(hotOhm, 0);
    }

    /**
     * @throws IllegalArgumentException when there is none of that name
     */
    public static Load named(String name) {
        return valueOf(name.toUpperCase(Locale.ROOT));
    }
}
