package brightlantern.core.shelf;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * A closed job, boiled down.
 *
 * @param jobId of this workshop's own job; 0 for a case that came from elsewhere
 * @param vehicle id of the description
 * @param decisive the readings that decided, in words with their thresholds
 * @param causeId id of the suspect that it was; empty for what an earlier version kept
 * @param size of the fault, in words; empty when it has none
 * @param minutes of all checks and of the repair; 0 when nobody knows
 * @param price of the repair, in the workshop's currency; 0 when nobody knows
 * @param origin where it came from; empty for this workshop's own
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
        String repair,
        String causeId,
        String size,
        double minutes,
        double price,
        String origin) {
    /** Symptoms are told by people, codes by modules; a shared code says more. */
    private static final double CODE_WEIGHT = 2;

    /** A cause that is less likely than this is no reason. */
    private static final double TOLD = 0.05;

    public ShelfCase {
        // what another program or an earlier version wrote may lack anything
        vehicleName = OrEmpty.text(vehicleName);
        complaint = OrEmpty.text(complaint);
        symptoms = symptoms == null ? Set.of() : Set.copyOf(symptoms);
        codes = codes == null ? Set.of() : Set.copyOf(codes);
        decisive = OrEmpty.list(decisive);
        causeId = OrEmpty.text(causeId);
        size = OrEmpty.text(size);
        origin = OrEmpty.text(origin);
    }

    /** Whether it was solved in this workshop. */
    public boolean isOwn() {
        return origin.isEmpty();
    }

    /** The same, as it came from somebody. */
    public ShelfCase from(String whom) {
        return new ShelfCase(
                0,
                vehicle,
                vehicleName,
                complaint,
                symptoms,
                codes,
                decisive,
                cause,
                repair,
                causeId,
                size,
                minutes,
                price,
                whom);
    }

    /** The same without the customer's own words. */
    public ShelfCase withoutWords() {
        return new ShelfCase(
                jobId,
                vehicle,
                vehicleName,
                "",
                symptoms,
                codes,
                decisive,
                cause,
                repair,
                causeId,
                size,
                minutes,
                price,
                origin);
    }

    /** Whether all words of a search stand somewhere in it; an empty search finds all. */
    public boolean hasWords(String search) {
        String all =
                String.join(
                                " ",
                                vehicleName,
                                complaint,
                                cause,
                                repair,
                                String.join(" ", symptoms),
                                String.join(" ", codes),
                                String.join(" ", decisive))
                        .toLowerCase(Locale.ROOT);
        return Arrays.stream(search.toLowerCase(Locale.ROOT).split("\\s+")).allMatch(all::contains);
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

    /**
     * How much a job is like this case by what its own evidence says of the cause as well: words
     * alone would miss a case whose complaint was told in another way.
     *
     * @param here how sure the other job is of this case's cause, 0 … 1; NaN for another kind of
     *     vehicle
     */
    public Match match(
            String vehicleId, Set<String> otherSymptoms, Set<String> otherCodes, double here) {
        Match words = match(vehicleId, otherSymptoms, otherCodes);
        if (Double.isNaN(here)) {
            return words;
        }
        List<String> reasons = new ArrayList<>(words.reasons());
        if (here >= TOLD) {
            reasons.add("its cause stands at " + Words.percent(here) + " here");
        }
        return new Match(this, (words.likeness() + Math.sqrt(here)) / 2, reasons);
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
