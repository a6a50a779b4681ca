package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * One way in which faults show: a circuit, the network, what a description tells of findings. A new
 * way is a new implementation; the posterior, the planner and the explanation know this interface
 * alone. A hypothesis that is none of its own leaves healthy what it looks at.
 */
public interface Mechanism {
    /** For so many suspects it is told what a check should read; more cannot be taken in. */
    int SHOWN = 3;

    /**
     * Into how many sizes a suspect is spread; 1 for one that is not its own, or that has no size.
     */
    default int sizes(Suspect suspect) {
        return 1;
    }

    /**
     * Whether a suspect is one of a list that the mechanism itself has made, which leaves nothing
     * out.
     */
    default boolean isComplete(Suspect suspect) {
        return false;
    }

    /** Whether a piece of evidence is of its kind. Each piece is of one mechanism's kind. */
    boolean weighs(Evidence piece);

    /**
     * Natural logarithm of the probability (or density) of a piece under each hypothesis, up to one
     * constant for the piece.
     */
    double[] logLikelihoods(Evidence piece, Hypotheses under);

    /**
     * What a piece shows under two hypotheses at once; empty where the one always decides that
     * takes it further away from what a healthy vehicle shows.
     */
    default Optional<Together> together(Evidence piece, Hypotheses under) {
        return Optional.empty();
    }

    /** A piece under two hypotheses at once. */
    interface Together {
        /**
         * Natural logarithm of its probability (or density), up to the constant of {@link
         * #logLikelihoods}; empty where the one decides.
         */
        default OptionalDouble log(int first, int second) {
            return OptionalDouble.empty();
        }

        /**
         * Whether there are two of which not one alone decides, before they are solved together.
         */
        default boolean addsUp() {
            return false;
        }

        /**
         * The same, computed with both at once, which costs more; empty where it would be no other.
         */
        default OptionalDouble solved(int first, int second) {
            return OptionalDouble.empty();
        }
    }

    /**
     * Whether a figure lies so far from what a hypothesis foretells that only a slip of whoever
     * read it could have brought it.
     */
    default boolean isSlip(Evidence piece, Hypotheses under, int hypothesis) {
        return false;
    }

    /** The same with two of them at once. */
    default boolean isSlip(Evidence piece, Hypotheses under, int first, int second) {
        return isSlip(piece, under, first) && isSlip(piece, under, second);
    }

    /** How a piece tells of a cause that nobody listed. */
    default Unlisted.Shows unlisted(Evidence piece) {
        return Unlisted.Shows.ITS_OWN;
    }

    /**
     * The hypotheses that stand where a piece tells of, whatever they do to it; empty where only
     * what they do to it says so.
     */
    default Optional<boolean[]> near(Evidence piece, Hypotheses under) {
        return Optional.empty();
    }

    /**
     * What a piece should have come to under a suspect, in words; empty where no figure is
     * foretold.
     *
     * @param weights of the hypotheses before the piece was known
     */
    default String foretold(Evidence piece, String suspectId, Hypotheses under, double[] weights) {
        return "";
    }

    /**
     * How large the fault of a suspect is by these weights, in words; empty for none of its own.
     */
    default String size(String suspectId, Hypotheses under, double[] weights) {
        return "";
    }

    /** Checks of its kind that may be proposed, given what is known. */
    List<Check> checks(List<Evidence> known);

    /** Whether a check of its kind is worth doing again although it was done. */
    default boolean mayRepeat(Check check) {
        return false;
    }

    /** What a check may come to; empty for a check of another kind. */
    Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts);

    /** What a check may come to. */
    interface Forecast {
        /** Probability of each outcome under each hypothesis. */
        Outcomes outcomes();

        /** How it would tell of a cause that nobody listed. */
        default Unlisted.Shows unlisted() {
            return Unlisted.Shows.ITS_OWN;
        }

        /** What it should read under the leading suspects, in words. */
        List<String> expectations();
    }
}
