package brightlantern.core.actuator;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Condition;
import java.util.List;
import java.util.Optional;

/**
 * Something that a module can be told to move or to switch.
 *
 * @param did output for service 0x2F; one byte a percentage of travel × 2
 * @param feedback value with its position; empty for what is only switched or set
 * @param current value with the current that it draws; empty when no module tells it
 * @param moveSeconds longest time for the travel from low to high; 0 without feedback
 * @param endError largest difference of feedback and command at rest, percent of travel; 0 without
 *     feedback
 * @param circuit and motor: where it stands in a circuit sheet; empty when none is described
 * @param responds what else follows when it goes from low to high
 */
public record Actuator(
        String id,
        String name,
        String module,
        int did,
        String command,
        String feedback,
        Optional<String> current,
        double low,
        double high,
        double moveSeconds,
        double endError,
        String circuit,
        String motor,
        List<Response> responds,
        List<Condition> gates) {
    public Actuator {
        feedback = OrEmpty.text(feedback);
        circuit = OrEmpty.text(circuit);
        motor = OrEmpty.text(motor);
        responds = OrEmpty.list(responds);
        gates = OrEmpty.list(gates);
    }

    /** Whether a module tells its position. */
    public boolean hasFeedback() {
        return !feedback.isEmpty();
    }
}
