package brightlantern.core.reason;

import brightlantern.core.signal.Words;
import java.util.List;

/** What is known, in words. */
public final class Explanation {
    private Explanation() {}

    /**
     * What is known, in a sentence, while nothing was found that speaks for or against any cause.
     *
     * @param told whether the complaint is coded
     */
    public static String nothingFound(boolean told) {
        return told
                ? "Nothing was checked yet."
                : "Nothing is known of this complaint yet: it is not coded, and nothing was checked.";
    }

    /**
     * What is known, in a sentence.
     *
     * @param standings the surest first
     */
    static String sentence(List<Standing> standings) {
        Standing lead = standings.get(0);
        String sure = Words.percent(lead.sureness());
        return switch (lead.suspectId()) {
            case Hypothesis.NOTHING ->
                    lead.sureness() >= Ranking.POINTED_AT
                            ? "Nothing is accused: what was checked is as it should be ("
                                    + sure
                                    + ")."
                            : "Not known yet; nothing checked so far is wrong.";
            case Hypothesis.SOMETHING_ELSE ->
                    lead.sureness() <= Ranking.POINTED_AT
                            ? "Not known yet; it may well be something not on this list."
                            : "No described cause explains what was found; something else is likely ("
                                    + sure
                                    + ").";
            default -> named(lead, sure);
        };
    }

    private static String named(Standing lead, String sure) {
        if (lead.sureness() >= Ranking.ACCUSED) {
            return lead.name() + " is the cause (" + sure + " sure).";
        }
        return lead.sureness() >= Ranking.POINTED_AT
                ? "Things point to: " + lead.name() + " (" + sure + "), not yet proven."
                : "Not known yet. " + lead.name() + " leads with " + sure + ".";
    }
}
