package brightlantern.core.reason;

import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.suspect.Effect;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleFunction;

/** The sizes over which a fault of a circuit is spread, each as likely as the others. */
final class FaultSizes {
    private static final int SIZES = 13;

    private static final String OHM = "Ω";

    /** Ω. */
    private static final double AS_GOOD_AS_OPEN = 1e5;

    private static final double KILO = 1e3;
    private static final double TENS = 10;

    /** Sizes of what lets less through but is not open: as fine as a meter tells them apart. */
    private static final int PARTIAL = 18;

    /** Of what may be open so many more are: more wires break than corrode slowly. */
    private static final int BREAKS = 10;

    private FaultSizes() {}

    /** Empty for an effect that is no fault of a circuit. */
    static List<Fault> of(Effect effect) {
        if (effect instanceof Effect.Series series) {
            DoubleFunction<Fault> of = ohm -> new Fault.Series(series.of(), ohm);
            if (!series.breaks()) {
                return spread(SIZES, series.from(), series.to(), of);
            }
            Fault open = of.apply(Fault.Series.OPEN_OHM);
            if (series.from() >= Fault.Series.OPEN_OHM) {
                return List.of(open);
            }
            List<Fault> sizes = spread(PARTIAL, series.from(), series.to(), of);
            sizes.addAll(Collections.nCopies(BREAKS, open));
            return sizes;
        }
        if (effect instanceof Effect.Chafed chafed) {
            return spread(
                    SIZES, chafed.from(), chafed.to(), ohm -> new Fault.Chafed(chafed.of(), ohm));
        }
        if (effect instanceof Effect.Shorted shorted) {
            // what is behind a blown fuse has nothing, whatever it touches
            return List.of(new Fault.Series(shorted.fuse(), Fault.Series.OPEN_OHM));
        }
        if (effect instanceof Effect.Off off) {
            return off(off);
        }
        return effect instanceof Effect.Drag drag
                ? spread(SIZES, drag.from(), drag.to(), by -> new Fault.Drag(drag.of(), by))
                : List.of();
    }

    /** As far to the one side as to the other from where it begins to show. */
    private static List<Fault> off(Effect.Off off) {
        DoubleFunction<Fault> of =
                by ->
                        off.misread()
                                ? new Fault.Misread(off.of(), by)
                                : new Fault.Biased(off.of(), by);
        List<Fault> sizes = new ArrayList<>();
        double most = GaugeState.Off.MOST_TIMES;
        if (off.down() > 0) {
            sizes.addAll(spread(SIZES / 2, off.down() / most, off.down(), of));
        }
        if (off.up() > 0) {
            sizes.addAll(spread(SIZES / 2, off.up(), off.up() * most, of));
        }
        return sizes;
    }

    /** Evenly on a logarithmic scale: a tenth of an ohm is as likely as one. */
    private static List<Fault> spread(int count, double from, double to, DoubleFunction<Fault> of) {
        List<Fault> sizes = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            sizes.add(of.apply(from * Math.pow(to / from, i / (count - 1.0))));
        }
        return sizes;
    }

    /** A size as people say it; what is as good as a break is called one. */
    static String told(double size, String unit) {
        if (!unit.equals(OHM)) {
            return String.format(Locale.ROOT, "about %.2g %s", size, unit);
        }
        if (size >= AS_GOOD_AS_OPEN) {
            return "open";
        }
        return size >= KILO
                ? String.format(Locale.ROOT, "about %.2g kΩ", size / KILO)
                : String.format(Locale.ROOT, size >= TENS ? "about %.0f Ω" : "about %.2g Ω", size);
    }
}
