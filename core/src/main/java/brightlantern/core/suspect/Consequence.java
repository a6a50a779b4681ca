package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import java.util.List;
import java.util.Map;

/**
 * What follows when a motor of a circuit is too slow, whatever makes it so: written once, and
 * inherited by every fault in that circuit whose computation slows the motor.
 *
 * @param codes code → probability that it is set
 * @param symptoms symptom → probability that it is noticed
 * @param tells finding → outcome → probability
 * @param chain of words from the slow motor to the complaint
 */
public record Consequence(
        String id,
        String circuit,
        String motor,
        Map<String, Double> codes,
        Map<String, Double> symptoms,
        Map<String, Map<String, Double>> tells,
        List<String> chain) {
    public Consequence {
        codes = OrEmpty.map(codes);
        symptoms = OrEmpty.map(symptoms);
        tells = OrEmpty.map(tells);
        chain = OrEmpty.list(chain);
    }
}
