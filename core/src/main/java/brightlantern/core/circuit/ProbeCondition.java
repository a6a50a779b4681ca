package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * A way to use a circuit while one of its points is measured: at rest, with a load hung on the
 * point, or while a motor moves.
 *
 * @param moving the motor that moves, or the setting that somebody made; empty for none
 */
public record ProbeCondition(Load load, Optional<String> moving) {
    /** So many volts a setting must change at a point to be worth a reading there. */
    private static final double WORTH_VOLTS = 0.05;

    /** All that are worth a reading; at rest comes first. */
    public static List<ProbeCondition> of(Circuit circuit) {
        List<ProbeCondition> all = new ArrayList<>();
        if (!circuit.gauges().isEmpty()) {
            // its own consumers load it
            all.add(new ProbeCondition(Load.NOTHING, Optional.empty()));
            circuit.settings()
                    .forEach(s -> all.add(new ProbeCondition(Load.NOTHING, Optional.of(s.id()))));
            return List.copyOf(all);
        }
        for (Load load : Load.HUNG) {
            all.add(new ProbeCondition(load, Optional.empty()));
        }
        circuit.motors()
                .forEach(m -> all.add(new ProbeCondition(Load.NOTHING, Optional.of(m.id()))));
        return List.copyOf(all);
    }

    /** Those that are worth a reading at a point: to unplug what changes nothing tells nothing. */
    public static List<ProbeCondition> of(Circuit circuit, String point) {
        if (circuit.gauges().isEmpty()) {
            return of(circuit);
        }
        double rest = healthy(circuit, point, Set.of());
        return of(circuit).stream()
                .filter(
                        c ->
                                !c.unplugs()
                                        || Math.abs(
                                                        healthy(
                                                                        circuit,
                                                                        point,
                                                                        Set.copyOf(c.motors()))
                                                                - rest)
                                                > WORTH_VOLTS)
                .toList();
    }

    private static double healthy(Circuit circuit, String point, Set<String> settings) {
        return new FaultTable(
                        circuit, OperatingState.idle(GaugeState.TYPICAL_VOLTS).moving(settings))
                .with(Optional.empty())
                .at(point);
    }

    /** Whether something is unplugged for it. */
    public boolean unplugs() {
        return moving.filter(Setting::unplugs).isPresent();
    }

    /** What somebody does at the vehicle for it; empty when nothing is to be done. */
    public String does(Circuit circuit) {
        return moving.flatMap(circuit::setting).map(Setting::does).orElse("");
    }

    /** The same for the same condition, whatever the circuit. */
    public String id() {
        return load.name().toLowerCase(Locale.ROOT) + moving.map(m -> "-" + m).orElse("");
    }

    /** As people read it. */
    public String name(Circuit circuit) {
        String state = moving.map(m -> doing(circuit, m)).orElseGet(() -> rests(circuit));
        return load == Load.NOTHING
                ? state
                : (state.isEmpty() ? "" : state + ", ") + load.words() + " hung on it";
    }

    private static String doing(Circuit circuit, String moves) {
        return circuit.setting(moves)
                .map(Setting::name)
                .orElseGet(() -> SheetPlan.lower(circuit.motor(moves).name()) + " moving");
    }

    private String rests(Circuit circuit) {
        if (!circuit.gauges().isEmpty()) {
            return circuit.sources().isEmpty() ? "nothing switched on" : "key on, all plugged in";
        }
        return load == Load.NOTHING ? "at rest, nothing hung on it" : "";
    }

    /** The motors that move, as evidence names them. */
    public List<String> motors() {
        return moving.map(List::of).orElse(List.of());
    }

    /**
     * @param supplyVolts at the battery
     */
    public OperatingState state(String point, double supplyVolts) {
        return OperatingState.idle(supplyVolts).moving(Set.copyOf(motors())).loaded(point, load);
    }

    /** What a healthy circuit reads at a point, among the others of its vehicle. */
    public ExpectedReading healthy(
            SharedPoints shared, Circuit circuit, String point, double supplyVolts) {
        OperatingState state = state(point, supplyVolts);
        double own = new CircuitModel(circuit).solve(state, List.of()).volts().get(point);
        return ExpectedReading.of(
                        circuit,
                        point,
                        supplyVolts,
                        shared.volts(circuit, point, state, Optional.empty(), own))
                .among(shared.unknown(circuit, point, state.moving(), supplyVolts));
    }

    /**
     * The same, by what a module tells of the sensor whose signal is there.
     *
     * @param sensed that sensor; nothing where none is there, or nobody told
     */
    public ExpectedReading healthy(
            SharedPoints shared,
            Circuit circuit,
            String point,
            double supplyVolts,
            Optional<Sensed> sensed) {
        return sensed.map(s -> s.healthy(point, state(point, supplyVolts)))
                .orElseGet(() -> healthy(shared, circuit, point, supplyVolts));
    }
}
