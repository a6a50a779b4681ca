package brightlantern.core.code;

import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** Orders codes by what matters for the complaint, each with its reasons. */
public final class CodeWeigher {
    /**
     * A code that nobody described could be anything; halfway between "the cause" and "cannot
     * matter".
     */
    private static final double UNKNOWN_WEIGHT = 0.5;

    /**
     * How much more a code counts whose family the complaint speaks of; enough to lift it one
     * standing.
     */
    private static final double COMPLAINT_FACTOR = 2.0;

    /** Below this share of the best the code is put aside. */
    private static final double ASIDE_SHARE = 0.2;

    /** A freeze frame that saw the condition twice is a pattern, not a chance. */
    private static final double REPEATED_FACTOR = 1.2;

    private CodeWeigher() {}

    /**
     * @param score relative, only for ordering
     * @param aside true when the code may be left alone for this complaint
     */
    public record Weighed(
            StoredCode code, double score, boolean lead, boolean aside, List<String> reasons) {}

    /** Orders codes; the first one is the lead code unless it is put aside too. */
    public static List<Weighed> weigh(
            List<StoredCode> codes, VehicleDescription description, Set<String> symptomIds) {
        Set<String> families =
                description.symptoms().stream()
                        .filter(s -> symptomIds.contains(s.id()))
                        .flatMap(s -> s.families().stream())
                        .collect(Collectors.toSet());
        List<Weighed> weighed = new ArrayList<>();
        for (StoredCode code : codes) {
            weighed.add(weigh(code, description, families));
        }
        weighed.sort(Comparator.comparingDouble(Weighed::score).reversed());
        double best = weighed.isEmpty() ? 0 : weighed.get(0).score();
        List<Weighed> ranked = new ArrayList<>();
        for (int i = 0; i < weighed.size(); i++) {
            Weighed w = weighed.get(i);
            boolean aside = w.score() <= ASIDE_SHARE * best || w.score() < ASIDE_SHARE;
            ranked.add(new Weighed(w.code(), w.score(), i == 0 && !aside, aside, w.reasons()));
        }
        return List.copyOf(ranked);
    }

    private static Weighed weigh(
            StoredCode code, VehicleDescription description, Set<String> families) {
        List<String> reasons = new ArrayList<>();
        var known = description.code(code.moduleId(), code.code());
        double score = known.map(VehicleDescription.Code::weight).orElse(UNKNOWN_WEIGHT);
        known.map(VehicleDescription.Code::why)
                .filter(why -> !why.isEmpty())
                .ifPresent(reasons::add);
        if (known.isEmpty()) {
            reasons.add("The description does not know this code.");
        }
        DtcStatus.Standing standing = code.statusByte().standing();
        score *=
                switch (standing) {
                    case FAILS_NOW -> 1.0;
                    case CONFIRMED -> 0.8;
                    case PENDING -> 0.6;
                    case HISTORY -> 0.4;
                    case QUIET -> 0.1;
                };
        reasons.add(
                switch (standing) {
                    case FAILS_NOW -> "It fails now.";
                    case CONFIRMED -> "Confirmed, though it does not fail at this moment.";
                    case PENDING -> "Seen, but not often enough to be confirmed.";
                    case HISTORY -> "Only history: it failed once and passed since.";
                    case QUIET -> "Its test found nothing.";
                });
        String family = known.map(VehicleDescription.Code::family).orElse("");
        if (families.contains(family)) {
            score *= COMPLAINT_FACTOR;
            reasons.add("Speaks of the same thing as the complaint (" + family + ").");
        } else if (!families.isEmpty()) {
            reasons.add("Has nothing in common with the complaint.");
        }
        if (code.frames().size() > 1) {
            score *= REPEATED_FACTOR;
            reasons.add(
                    "Set on " + Math.max(code.occurrences(), code.frames().size()) + " occasions.");
        }
        return new Weighed(code, score, false, false, reasons);
    }
}
