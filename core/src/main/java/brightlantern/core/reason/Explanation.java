package brightlantern.core.reason;

import brightlantern.core.signal.Words;
import java.util.List;
import java.util.stream.Collectors;

/** What is known, in words. */
public final class Explanation {
    /** With less than this a second cause is not told. */
    private static final double TOLD = 0.1;

    private static final String UNCODED =
            " Whether it makes the complaint is not known: that is not coded.";

    private static final String AGAINST_BOTH =
            " What was found elsewhere speaks against both: look again, or it is something not on this list.";

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
     * @param alike the surest, and those that cannot be told from it
     * @param two probability that two things are broken
     * @param contradicted whether a look or reading speaks flatly against what leads
     * @param coded whether anything that was complained of is known; a sweep may find what nobody
     *     complained of
     * @param wrong whether anything that was found is not as it should be
     */
    static String sentence(
            List<Standing> standings,
            List<Standing> alike,
            double two,
            boolean contradicted,
            boolean coded,
            boolean wrong) {
        Standing lead = standings.get(0);
        if (two >= Ranking.POINTED_AT && lead.isDescribed()) {
            return both(standings, two) + (contradicted ? AGAINST_BOTH : "");
        }
        String sure = Words.percent(lead.sureness());
        return switch (lead.suspectId()) {
            case Hypothesis.NOTHING ->
                    lead.sureness() >= Ranking.POINTED_AT
                            ? "Nothing is accused: "
                                    + (wrong
                                            ? "what was found needs no fault at present ("
                                            : "no check has shown anything wrong (")
                                    + sure
                                    + ")."
                            : wrong
                                    ? "Not known yet; what was found points to no one cause."
                                    : "Not known yet; nothing checked so far is wrong.";
            case Hypothesis.SOMETHING_ELSE ->
                    lead.sureness() <= Ranking.POINTED_AT
                            ? "Not known yet; it may well be something not on this list."
                            : "No described cause explains what was found; something else is likely ("
                                    + sure
                                    + ").";
            default ->
                    contradicted && together(alike) >= Ranking.POINTED_AT
                            ? lead.name()
                                    + (alike.size() > 1 ? ", or what cannot be told from it," : "")
                                    + " leads ("
                                    + Words.percent(together(alike))
                                    + "), and what was found speaks against it: look again, or it is something not on this list."
                            : named(lead, alike, sure)
                                    + (coded || lead.sureness() < Ranking.ACCUSED ? "" : UNCODED);
        };
    }

    /** What one of two is to be told with. */
    private static String both(List<Standing> standings, double two) {
        Standing lead = standings.get(0);
        List<Standing> others =
                standings.stream().skip(1).filter(Standing::isDescribed).limit(1).toList();
        String first =
                (lead.sureness() >= Ranking.ACCUSED
                                ? lead.name() + " is one of them"
                                : lead.name() + " leads")
                        + " ("
                        + Words.percent(lead.sureness())
                        + ")";
        return "No one cause explains all that was found; two things are broken ("
                + Words.percent(two)
                + "). "
                + first
                + others.stream()
                        .filter(s -> s.sureness() >= TOLD)
                        .map(
                                s ->
                                        "; beside it "
                                                + s.name()
                                                + " ("
                                                + Words.percent(s.sureness())
                                                + ")")
                        .collect(Collectors.joining())
                + ".";
    }

    private static double together(List<Standing> alike) {
        return Math.min(1, alike.stream().mapToDouble(Standing::sureness).sum());
    }

    private static String named(Standing lead, List<Standing> alike, String sure) {
        double all = together(alike);
        if (alike.size() > 1 && all >= Ranking.ACCUSED) {
            return "One of these is the cause, and no point between them can be reached: "
                    + alike.stream()
                            .map(s -> s.name() + " (" + Words.percent(s.sureness()) + ")")
                            .collect(Collectors.joining("; "))
                    + "; together "
                    + Words.percent(all)
                    + " sure.";
        }
        if (lead.sureness() >= Ranking.ACCUSED) {
            return lead.name() + " is the cause (" + sure + " sure).";
        }
        return lead.sureness() >= Ranking.POINTED_AT
                ? "Things point to: " + lead.name() + " (" + sure + "), not yet proven."
                : "Not known yet. " + lead.name() + " leads with " + sure + ".";
    }
}
