package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The circuit sheets of a vehicle. */
public record Wiring(List<Circuit> circuits) implements Slice {
    public Wiring {
        circuits = OrEmpty.list(circuits);
    }

    /** The sheet of an id, if it is described. */
    public Optional<Circuit> circuit(String circuitId) {
        return circuits.stream().filter(c -> c.id().equals(circuitId)).findFirst();
    }

    @Override
    public void define(References references) {
        references.define("circuits", "a circuit", circuits, Circuit::id);
        for (Circuit c : circuits) {
            references.add(
                    "a motor of circuit " + c.id(),
                    c.motors().stream().map(MotorPart::id).toList());
            references.add(
                    "a segment of circuit " + c.id(),
                    c.segments().stream().map(Segment::id).toList());
            references.add(
                    "a point of circuit " + c.id(),
                    c.points().stream().map(ProbePoint::id).toList());
        }
    }

    @Override
    public void check(References references) {
        references.each(
                "circuits",
                circuits,
                (c, at) -> {
                    Set<String> points =
                            c.points().stream().map(ProbePoint::id).collect(Collectors.toSet());
                    Stream.of(
                                    Stream.of("BAT+", "BAT-"),
                                    c.segments().stream().flatMap(s -> Stream.of(s.from(), s.to())),
                                    c.motors().stream().flatMap(m -> Stream.of(m.from(), m.to())))
                            .flatMap(ids -> ids)
                            .forEach(id -> at.among("a point", points, id));
                });
    }
}
