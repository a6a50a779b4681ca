package brightlantern.core.shelf;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A closed job, boiled down.
 *
 * @param vehicle id of the description
 * @param decisive the readings that decided, in words with their thresholds
 */
public record ShelfCase(
        long jobId,
        String vehicle,
        String vehicleName,
        String complaint,
        Set<String> symptoms,
        Set<String> codes,
        List<String> decisive,
        String cause,
        String repair) {
    /** Symptoms are told by people, codes by modules; a shared code says more. */
    private static final double CODE_WEIGHT = 2;

    public ShelfCase {
        symptoms = Set.copyOf(symptoms);
        codes = Set.copyOf(codes);
        decisive = List.copyOf(decisive);
    }

    /**
     * @param likeness 0..1, a weighted Jaccard index (Jaccard 1901) of symptoms and codes
     */
    public record Match(ShelfCase found, double likeness, List<String> reasons) {
        private static final String SYMPTOM = "symptom ";

        /** The same with symptoms as people tell them: id → words. */
        public Match named(Map<String, String> symptoms) {
            return new Match(
                    found,
                    likeness,
                    reasons.stream()
                            .map(
                                    r ->
                                            r.startsWith(SYMPTOM)
                                                    ? symptoms.getOrDefault(
                                                            r.substring(SYMPTOM.length()), r)
                                                    : r)
                            .toList());
        }
    }

    /** How much a job with these symptoms and codes is like this case. */
    public Match match(String vehicleId, Set<String> otherSymptoms, Set<String> otherCodes) {
        double shared = overlap(symptoms, otherSymptoms) + CODE_WEIGHT * overlap(codes, otherCodes);
        double all = union(symptoms, otherSymptoms) + CODE_WEIGHT * union(codes, otherCodes);
        List<String> reasons = new ArrayList<>();
        if (vehicle.equals(vehicleId)) {
            reasons.add("same kind of vehicle");
        }
        symptoms.stream()
                .filter(otherSymptoms::contains)
                .sorted()
                .forEach(s -> reasons.add("symptom " + s));
        codes.stream().filter(otherCodes::contains).sorted().forEach(c -> reasons.add("code " + c));
        return new Match(this, all == 0 ? 0 : shared / all, reasons);
    }

    private static double overlap(Set<String> a, Set<String> b) {
        return a.stream().filter(b::contains).count();
    }

    private static double union(Set<String> a, Set<String> b) {
        Set<String> both = new HashSet<>(a);
        both.addAll(b);
        return both.size();
    }
}
