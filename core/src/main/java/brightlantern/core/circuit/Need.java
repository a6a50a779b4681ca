package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import com.fasterxml.jackson.annotation.JsonCreator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What an engine does only while all of these work.
 *
 * @param what it does
 * @param cylinder that burns, from 1; 0 for the whole engine
 * @param symptom that is told when it does not; may be empty
 * @param codes that the engine's module sets when it does not
 * @param gauges ids of what must work for it
 * @param tells finding → outcome → probability, of an engine that does not
 */
public record Need(
        What what,
        int cylinder,
        String symptom,
        List<String> codes,
        List<String> gauges,
        Map<String, Map<String, Double>> tells) {
    public Need {
        symptom = OrEmpty.text(symptom);
        codes = OrEmpty.list(codes);
        gauges = OrEmpty.list(gauges);
        tells = OrEmpty.map(tells);
    }

    /** What an engine does. */
    public enum What {
        /** It is turned by its starter. */
        TURNING,
        /** It runs by itself. */
        RUNNING,
        /** One of its cylinders burns. */
        BURNING;

        /**
         * @throws IllegalArgumentException when there is none of that word
         */
        @JsonCreator
        public static What of(String word) {
            return valueOf(word.toUpperCase(Locale.ROOT));
        }
    }

    /** What is to be seen where it is not met. */
    public String missed() {
        return switch (what) {
            case TURNING -> "the starter does not turn the engine";
            case RUNNING -> "the engine does not run";
            case BURNING -> "cylinder " + cylinder + " does not burn";
        };
    }

    /**
     * Whether what a gauge tells of does not work at all: a lamp that is only dim still works, a
     * sensor at an end of its signal does not.
     *
     * @param share of its nominal voltage
     */
    public static boolean isOut(Gauge gauge, double share) {
        Band band = gauge.at(share);
        return !band.well() && (gauge.by() == Gauge.By.MODULE || band == gauge.bands().get(0));
    }

    /**
     * What is not met, as far as it shows: what does not turn cannot show that it would not run,
     * nor what does not run how it burns. An engine of which no cylinder burns does not run.
     *
     * @param out ids of gauges that tell that something does not work
     */
    public static List<Need> unmet(List<Need> all, Set<String> out) {
        List<Need> missed =
                all.stream().filter(n -> n.gauges().stream().anyMatch(out::contains)).toList();
        Set<Integer> cylinders = cylinders(all);
        boolean dark = !cylinders.isEmpty() && cylinders.equals(cylinders(missed));
        for (What what : What.values()) {
            List<Need> its =
                    all.stream()
                            .filter(n -> n.what == what)
                            .filter(n -> missed.contains(n) || dark && what == What.RUNNING)
                            .toList();
            if (!its.isEmpty()) {
                return its;
            }
        }
        return List.of();
    }

    private static Set<Integer> cylinders(List<Need> needs) {
        return needs.stream()
                .filter(n -> n.what == What.BURNING)
                .map(Need::cylinder)
                .collect(Collectors.toSet());
    }
}
