package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * A check that may be proposed next.
 *
 * @param kind run, reading or finding
 * @param of actuators, probe point, or finding
 * @param load nothing, lamp or bulb
 * @param at where in its stage it is done, such as {@code procedures/leak-test}; empty when the
 *     rest of the check says so
 */
public record Check(
        String id,
        String name,
        String kind,
        String stage,
        List<String> of,
        String circuit,
        List<String> moving,
        String load,
        double minutes,
        String why,
        String at) {
    public Check {
        of = OrEmpty.list(of);
        moving = OrEmpty.list(moving);
        circuit = OrEmpty.text(circuit);
        why = OrEmpty.text(why);
        at = OrEmpty.text(at);
        load = load == null ? "nothing" : load;
    }
}
