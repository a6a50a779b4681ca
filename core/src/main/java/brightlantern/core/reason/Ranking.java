package brightlantern.core.reason;

import java.util.List;
import java.util.Optional;

/**
 * @param standings all suspects, the surest first
 * @param sentence what is known, in a sentence
 */
public record Ranking(List<Standing> standings, String sentence) {
    /** From here on the program says that it is this one. */
    public static final double ACCUSED = 0.8;

    /** From here on it says that things point to this one. */
    public static final double POINTED_AT = 0.5;

    public Ranking {
        standings = List.copyOf(standings);
    }

    /** The surest. */
    public Standing lead() {
        return standings.get(0);
    }

    /** Where a suspect stands, if it is one. */
    public Optional<Standing> of(String suspectId) {
        return standings.stream().filter(s -> s.suspectId().equals(suspectId)).findFirst();
    }

    /** The described suspect that is sure enough to be named, if any. */
    public Optional<Standing> accused() {
        return lead().isDescribed() && lead().sureness() >= ACCUSED
                ? Optional.of(lead())
                : Optional.empty();
    }
}
