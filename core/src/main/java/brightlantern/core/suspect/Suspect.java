package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A possible cause.
 *
 * @param common how common it is, relative to the others
 * @param wears kilometres by which it has typically worn, and before which it is rarer; 0 for what
 *     does not wear with them
 * @param ages years by which it has typically aged, driven or not; 0 for what does not
 * @param effect what it does physically
 * @param codes code → probability that this cause brings it
 * @param symptoms symptom → probability that this cause is noticed so
 * @param tells finding → outcome → probability
 */
public record Suspect(
        String id,
        String name,
        double common,
        double wears,
        double ages,
        Optional<Effect> effect,
        Map<String, Double> codes,
        Map<String, Double> symptoms,
        Map<String, Map<String, Double>> tells,
        List<String> chain,
        Repair repair) {
    public Suspect {
        codes = OrEmpty.map(codes);
        symptoms = OrEmpty.map(symptoms);
        tells = OrEmpty.map(tells);
        chain = OrEmpty.list(chain);
    }

    /** The same, so many times as common. */
    public Suspect timesAsCommon(double factor) {
        return new Suspect(
                id,
                name,
                common * factor,
                wears,
                ages,
                effect,
                codes,
                symptoms,
                tells,
                chain,
                repair);
    }

    /** The same with what it shows told anew. */
    public Suspect showing(
            Map<String, Double> codes,
            Map<String, Double> symptoms,
            Map<String, Map<String, Double>> tells) {
        return new Suspect(
                id, name, common, wears, ages, effect, codes, symptoms, tells, chain, repair);
    }
}
