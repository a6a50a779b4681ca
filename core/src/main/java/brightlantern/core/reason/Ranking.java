package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.List;
import java.util.Optional;

/**
 * @param standings all suspects, the surest first
 * @param alike the surest, and those that no measurement can tell from it because no point between
 *     them can be reached
 * @param two probability that two things are broken, which both stand among the others: so much
 *     more than 1 the standings add up to
 * @param against the look or reading that speaks flatly against what would be named, if one does
 * @param sentence what is known, in a sentence
 */
public record Ranking(
        List<Standing> standings,
        List<Standing> alike,
        double two,
        Optional<Evidence> against,
        String sentence) {
    /** From here on the program says that it is this one. */
    public static final double ACCUSED = 0.8;

    /** From here on it says that things point to this one. */
    public static final double POINTED_AT = 0.5;

    public Ranking {
        standings = List.copyOf(standings);
        alike = List.copyOf(alike);
    }

    /** A ranking of suspects that can all be told apart. */
    public Ranking(List<Standing> standings, String sentence) {
        this(standings, standings.subList(0, 1), 0, Optional.empty(), sentence);
    }

    /** How sure it is that one of those is the cause that cannot be told apart from the surest. */
    public double sureness() {
        return Math.min(1, alike.stream().mapToDouble(Standing::sureness).sum());
    }

    /** The surest. */
    public Standing lead() {
        return standings.get(0);
    }

    /** How much is still open, in bits (entropy, Shannon 1948). */
    public double openBits() {
        return standings.stream()
                .mapToDouble(Standing::sureness)
                .filter(p -> p > 0 && p < 1)
                .map(p -> -p * Math.log(p) / Math.log(2))
                .sum();
    }

    /** Where a suspect stands, if it is one. */
    public Optional<Standing> of(String suspectId) {
        return standings.stream().filter(s -> s.suspectId().equals(suspectId)).findFirst();
    }

    /**
     * The described suspect that is sure enough to be named, if any; alone, or with those that
     * cannot be told from it. None is while a look or a reading speaks flatly against it.
     */
    public Optional<Standing> accused() {
        return lead().isDescribed() && sureness() >= ACCUSED && against.isEmpty()
                ? Optional.of(lead())
                : Optional.empty();
    }
}
