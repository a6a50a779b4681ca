package brightlantern.core.circuit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.DoubleFunction;

/** What the gauges of a circuit show, healthy or with a fault in it. */
public final class GaugeState {
    /** A vehicle that stands with its engine off. */
    public static final double TYPICAL_VOLTS = 12.4;

    /** Faults smaller than this, in ohms, are no faults; larger ones are breaks. */
    private static final double SMALLEST_OHM = 0.02;

    /** A bare wire that touches the body. */
    public static final double TOUCHES_OHM = 1;

    /** What the fuse of a wire in the same loom bears for long. */
    private static final double MOST_AMPS = 5;

    /** So finely the size is looked for at which a fault begins to show. */
    private static final double FINE = 1.2;

    private static final double FINE_FACTOR = 1.02;

    /** A sensor that is further off than this many times is no sensor any more. */
    private static final double FURTHEST = 8;

    private final Circuit circuit;
    private final Map<OperatingState, FaultTable> tables = new HashMap<>();
    private final double supplyVolts;

    /** What was solved last, by its state. */
    private final Map<OperatingState, Voltages> solved = new HashMap<>();

    private Optional<Fault> last = Optional.empty();

    /** Part → from which size on a fault of it shows. */
    private final Map<String, OptionalDouble> edges = new ConcurrentHashMap<>();

    /**
     * @param supplyVolts at the battery
     */
    public GaugeState(Circuit circuit, double supplyVolts) {
        this.circuit = circuit;
        this.supplyVolts = supplyVolts;
    }

    /** Share of its nominal voltage that a gauge has under its setting. */
    public double share(Gauge gauge, Optional<Fault> fault) {
        return gauge.share(
                circuit,
                volts(gauge.state(circuit, supplyVolts), fault),
                fault.map(List::of).orElse(List.of()));
    }

    /** Most gauges of a circuit are looked at in the same state, with the same fault. */
    private synchronized Voltages volts(OperatingState state, Optional<Fault> fault) {
        if (!fault.equals(last)) {
            solved.clear();
            last = fault;
        }
        return solved.computeIfAbsent(state, s -> table(s).with(fault));
    }

    private synchronized FaultTable table(OperatingState state) {
        return tables.computeIfAbsent(state, s -> new FaultTable(circuit, s));
    }

    private List<Gauge> noticed() {
        return circuit.gauges().stream().filter(g -> g.isNoticed() && !g.isOff()).toList();
    }

    /** What goes on when it was switched off does so by what switches it, and by nothing else. */
    private List<Gauge> noticed(Optional<Fault> fault) {
        return fault.filter(Fault.Stuck.class::isInstance).isPresent()
                ? circuit.gauges().stream().filter(Gauge::isOff).toList()
                : noticed();
    }

    /** The gauges that do not show what a healthy circuit shows. */
    public List<Gauge> wrong(Optional<Fault> fault) {
        return noticed(fault).stream().filter(g -> !g.at(share(g, fault)).well()).toList();
    }

    /**
     * The least ohms in a part's way that show at a gauge; empty when even a break does not show.
     */
    public OptionalDouble edge(String partId) {
        return edges.computeIfAbsent(partId, this::found);
    }

    private OptionalDouble found(String partId) {
        // what a break does not show, a lesser fault of the part does not show either
        List<Gauge> may = wrong(series(partId, Fault.Series.OPEN_OHM));
        if (may.isEmpty()) {
            return OptionalDouble.empty();
        }
        double low = SMALLEST_OHM;
        double high = Fault.Series.OPEN_OHM;
        if (shows(may, series(partId, low))) {
            return OptionalDouble.of(low);
        }
        while (high / low > FINE) {
            double middle = Math.sqrt(low * high);
            if (shows(may, series(partId, middle))) {
                high = middle;
            } else {
                low = middle;
            }
        }
        return OptionalDouble.of(high);
    }

    /**
     * The most ohms to what it touches at which a chafed wire shows at a gauge; empty when even a
     * touch of bare metal does not show, and when that would blow a fuse at once.
     */
    public OptionalDouble chafes(String wireId, Touched touched) {
        Optional<Fault> bare = Optional.of(new Fault.Chafed(wireId, touched, TOUCHES_OHM));
        List<Gauge> may = wrong(bare);
        if (may.isEmpty() || touched == Touched.LIVE && blows(may, bare.get())) {
            return OptionalDouble.empty();
        }
        double low = TOUCHES_OHM;
        double high = Fault.Series.OPEN_OHM;
        while (high / low > FINE) {
            double middle = Math.sqrt(low * high);
            if (shows(may, Optional.of(new Fault.Chafed(wireId, touched, middle)))) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return OptionalDouble.of(low);
    }

    /** Whether so much flows into a wire from a live one that its fuse does not bear it. */
    private boolean blows(List<Gauge> gauges, Fault touch) {
        String at = circuit.component(touch.part()).orElseThrow().to();
        return gauges.stream()
                .map(g -> g.state(circuit, supplyVolts))
                .distinct()
                .map(s -> volts(s, Optional.of(touch)))
                .anyMatch(v -> supplyVolts - v.at(at) > MOST_AMPS * TOUCHES_OHM);
    }

    /**
     * From how many times on what a part tells shows at a gauge, and down to how many times: the
     * factors nearest to one, 0 where it never does.
     *
     * @param as the fault at a factor
     */
    public Off off(DoubleFunction<Fault> as) {
        return new Off(nearest(as, 1 / FURTHEST), nearest(as, FURTHEST));
    }

    /**
     * The factors on either side of one at which something begins to show.
     *
     * @param down below 1, and up above; 0 for none
     */
    public record Off(double down, double up) {
        /** Nobody is off by so many times as much as shows. */
        public static final double MOST_TIMES = 3;

        public boolean shows() {
            return down > 0 || up > 0;
        }
    }

    private double nearest(DoubleFunction<Fault> as, double furthest) {
        List<Gauge> all = noticed();
        if (!shows(all, Optional.of(as.apply(furthest)))) {
            return 0;
        }
        double well = 1;
        double shows = furthest;
        while (Math.max(shows / well, well / shows) > FINE_FACTOR) {
            double middle = Math.sqrt(well * shows);
            if (shows(all, Optional.of(as.apply(middle)))) {
                shows = middle;
            } else {
                well = middle;
            }
        }
        return shows;
    }

    private boolean shows(List<Gauge> gauges, Optional<Fault> fault) {
        return gauges.stream().anyMatch(g -> !g.at(share(g, fault)).well());
    }

    private static Optional<Fault> series(String partId, double ohm) {
        return Optional.of(new Fault.Series(partId, ohm));
    }
}
