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
 * @param moving the motor that moves; empty when none does
 */
public record ProbeCondition(Load load, Optional<String> moving) {
    /** All that are worth a reading; at rest comes first. */
    public static List<ProbeCondition> of(Circuit circuit) {
        List<ProbeCondition> all = new ArrayList<>();
        for (Load load : Load.values()) {
            all.add(new ProbeCondition(load, Optional.empty()));
        }
        circuit.motors()
                .forEach(m -> all.add(new ProbeCondition(Load.NOTHING, Optional.of(m.id()))));
        return List.copyOf(all);
    }

    /** The same for the same condition, whatever the circuit. */
    public String id() {
        return load.name().toLowerCase(Locale.ROOT) + moving.map(m -> "-" + m).orElse("");
    }

    /** As people read it. */
    public String name(Circuit circuit) {
        if (moving.isPresent()) {
            return circuit.motor(moving.get()).name() + " moving";
        }
        return load == Load.NOTHING ? "at rest, nothing hung on it" : load.words() + " hung on it";
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

    /** What a healthy circuit reads at a point. */
    public ExpectedReading healthy(Circuit circuit, String point, double supplyVolts) {
        return ExpectedReading.at(circuit, point, state(point, supplyVolts), List.of());
    }
}
