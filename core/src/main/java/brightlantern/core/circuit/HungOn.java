package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * What may be hung on a point of a circuit while it is measured: a supply that reads full on a
 * meter and collapses under a lamp is none. What would pull more through a module than it is made
 * for is refused.
 */
public final class HungOn {
    /** Below this nothing of a lamp's current flows, V. */
    private static final double LIVE_VOLTS = 1;

    /** What every output and reference of a module bears, A. */
    private static final double MODULE_AMPS = 0.5;

    private static final List<Load> LOADS = List.of(Load.LAMP, Load.BULB);

    private final Circuit circuit;
    private final ProbePoint point;
    private final List<ProbeCondition> offered = new ArrayList<>();
    private final Set<String> refused = new LinkedHashSet<>();

    /**
     * @throws java.util.NoSuchElementException when the circuit has no such point
     */
    public HungOn(Circuit circuit, String pointId) {
        this.circuit = circuit;
        this.point = circuit.point(pointId);
        offered.addAll(ProbeCondition.of(circuit, pointId));
        if (circuit.gauges().isEmpty()) {
            return;
        }
        if (point.side().equals("signal")) {
            refused.add(
                    "Nothing is hung on "
                            + point.name()
                            + ": a lamp would pull the signal down, and the module that reads it could be harmed.");
            return;
        }
        List<ProbeCondition> live = live();
        for (Load load : LOADS) {
            live.forEach(c -> hang(new ProbeCondition(load, c.moving())));
        }
    }

    /** All conditions under which the point can be read, those with something hung on it last. */
    public List<ProbeCondition> offered() {
        return List.copyOf(offered);
    }

    /** What is not to be hung on it, and why. */
    public List<String> refused() {
        return List.copyOf(refused);
    }

    /** At rest, or unplugged, where that feeds a lamp; else what has to be switched on for it. */
    private List<ProbeCondition> live() {
        ProbeCondition rest = offered.get(0);
        boolean atRest = isLive(rest);
        return offered.stream()
                .filter(c -> c.equals(rest) || c.unplugs() == atRest)
                .filter(this::isLive)
                .toList();
    }

    private boolean isLive(ProbeCondition c) {
        double pole =
                circuit.otherPole(point.id()).equals(Circuit.PLUS) ? GaugeState.TYPICAL_VOLTS : 0;
        return Math.abs(solved(c).at(point.id()) - pole) > LIVE_VOLTS;
    }

    private void hang(ProbeCondition c) {
        Optional<String> harm = harm(c);
        if (harm.isEmpty()) {
            offered.add(c);
        }
        harm.ifPresent(refused::add);
    }

    private Optional<String> harm(ProbeCondition hung) {
        Voltages with = solved(hung);
        Voltages without = solved(new ProbeCondition(Load.NOTHING, hung.moving()));
        return circuit.components().stream()
                .filter(HungOn::isOfAModule)
                .filter(p -> amps(p, with) - amps(p, without) > bears(p))
                .findFirst()
                .map(
                        p ->
                                String.format(
                                        Locale.ROOT,
                                        "No %s on %s: it would draw %.1f A through %s, which bears %.1f A.",
                                        hung.load().words(),
                                        point.name(),
                                        amps(p, with),
                                        p.name(),
                                        bears(p)));
    }

    private static boolean isOfAModule(Component part) {
        return part instanceof Source
                || part instanceof Segment s && s.kind() == SegmentKind.DRIVER;
    }

    /** What it carries at most in the circuit as it is drawn. */
    private double bears(Component part) {
        return ProbeCondition.of(circuit).stream()
                .mapToDouble(c -> amps(part, solved(c)))
                .reduce(MODULE_AMPS, Math::max);
    }

    private static double amps(Component part, Voltages volts) {
        double across = volts.at(part.from()) - volts.at(part.to());
        return part instanceof Source s
                ? Math.abs(s.volts() - across) / s.ohm()
                : Math.abs(across) / ((Segment) part).ohm();
    }

    private Voltages solved(ProbeCondition c) {
        return new FaultTable(circuit, c.state(point.id(), GaugeState.TYPICAL_VOLTS))
                .with(Optional.empty());
    }
}
