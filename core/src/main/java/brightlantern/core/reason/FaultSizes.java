package brightlantern.core.reason;

import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Ohms;
import brightlantern.core.suspect.Effect;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.NavigableMap;
import java.util.function.DoubleFunction;

/** The sizes over which a fault of a circuit is spread, each as likely as the others. */
final class FaultSizes {
    private static final int SIZES = 13;

    private static final String OHM = "Ω";
    private static final String OPEN = "open";

    /** Outside of what is told lies this share on either side. */
    private static final double TAIL = 0.1;

    /** From so many times on both ends are told. */
    private static final double WIDE = 3;

    /** Ω. */
    private static final double AS_GOOD_AS_OPEN = 1e5;

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
                    SIZES,
                    chafed.from(),
                    chafed.to(),
                    ohm -> new Fault.Chafed(chafed.of(), chafed.touched(), ohm));
        }
        if (effect instanceof Effect.Shorted shorted) {
            // what is behind a blown fuse has nothing, whatever it touches
            return List.of(new Fault.Series(shorted.fuse(), Fault.Series.OPEN_OHM));
        }
        if (effect instanceof Effect.Stuck stuck) {
            return List.of(new Fault.Stuck(stuck.of()));
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

    /**
     * A size as people say it: a figure where what was found leaves little between its tenth and
     * its ninetieth percentile, both of them where it leaves much.
     *
     * @param sizes size → weight
     */
    static String told(NavigableMap<Double, Double> sizes, String unit) {
        double all = sizes.values().stream().mapToDouble(w -> w).sum();
        if (all <= 0 || unit.isEmpty()) {
            return "";
        }
        double low = quantile(sizes, TAIL * all);
        double high = quantile(sizes, (1 - TAIL) * all);
        if (high > WIDE * low) {
            String to = figure(high, unit);
            String from = figure(low, unit);
            // the unit is said once
            return from.equals(to) ? to : shortened(from, to) + " to " + to;
        }
        double log = 0;
        for (Map.Entry<Double, Double> size : sizes.entrySet()) {
            log += size.getValue() * Math.log(size.getKey());
        }
        String figure = figure(Math.exp(log / all), unit);
        return figure.equals(OPEN) ? figure : "about " + figure;
    }

    private static String shortened(String from, String to) {
        int unit = from.indexOf(' ');
        return to.endsWith(from.substring(unit)) ? from.substring(0, unit) : from;
    }

    private static double quantile(NavigableMap<Double, Double> sizes, double weight) {
        double sum = 0;
        for (Map.Entry<Double, Double> size : sizes.entrySet()) {
            sum += size.getValue();
            if (sum >= weight) {
                return size.getKey();
            }
        }
        return sizes.lastKey();
    }

    /** What is as good as a break is called one. */
    private static String figure(double size, String unit) {
        if (!unit.equals(OHM)) {
            return String.format(Locale.ROOT, "%.2g %s", size, unit);
        }
        if (size >= AS_GOOD_AS_OPEN) {
            return OPEN;
        }
        return Ohms.told(size);
    }
}
