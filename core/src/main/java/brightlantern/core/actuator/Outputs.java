package brightlantern.core.actuator;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.List;
import java.util.Optional;

/** What the modules of a vehicle can be told to move or to switch. */
public record Outputs(List<Actuator> actuators) implements Slice {
    public Outputs {
        actuators = OrEmpty.list(actuators);
    }

    /** The actuator of an id, if it is described. */
    public Optional<Actuator> actuator(String actuatorId) {
        return actuators.stream().filter(a -> a.id().equals(actuatorId)).findFirst();
    }

    @Override
    public void define(References references) {
        references.define("actuators", "an actuator", actuators, Actuator::id);
    }

    @Override
    public void check(References references) {
        references.each(
                "actuators",
                actuators,
                (a, at) -> {
                    at.needs("a module", a.module());
                    at.needs("a value", a.command());
                    a.current().ifPresent(v -> at.needs("a value", v));
                    a.responds().forEach(r -> at.needs("a value", r.value()));
                    a.gates().forEach(g -> at.needs("a value", g.value()));
                    at.may("a value", a.feedback());
                    if (!a.circuit().isEmpty()) {
                        at.needs("a motor of circuit " + a.circuit(), a.motor());
                    }
                });
    }
}
