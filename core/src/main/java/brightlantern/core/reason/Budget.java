package brightlantern.core.reason;

import java.util.List;

/**
 * The time that a job may take: what was spent on it, and what it still needs to know its cause.
 *
 * @param minutes that may be spent
 * @param spent on the checks that were done
 * @param needed that the most telling checks still need, until one cause can be named; NaN when all
 *     that are left do not tell enough
 * @param fitting how many of them fit into what is left
 */
public record Budget(double minutes, double spent, double needed, int fitting) {
    /** An hour, unless it is said otherwise. */
    public static final double USUAL_MINUTES = 60;

    /**
     * What two checks tell is partly the same, so that each adds so much of what it tells alone.
     */
    private static final double ITS_OWN = 0.6;

    /** A cause is as good as named by checks that leave it open no more often than this. */
    private static final double LIKELIER_THAN_NOT = 0.5;

    /**
     * A bit of what is open takes no longer than this, minutes: six to nine were measured on single
     * faults (210 steps). Checks that are added up as if none told the next one know too little.
     */
    private static final double A_BIT = 12;

    /**
     * @param spent minutes of the checks that were done
     * @param ranking by what they told
     * @param next checks that may be done, the most telling for each minute first
     */
    static Budget of(double minutes, double spent, Ranking ranking, List<NextCheck> next) {
        double open = ranking.accused().isPresent() ? 0 : toBeTold(ranking);
        double unnamed = 1;
        double needed = 0;
        int fitting = 0;
        for (NextCheck check : next) {
            if (open <= 0 || unnamed <= LIKELIER_THAN_NOT || check.bits() < NextStep.LEAST_BITS) {
                continue;
            }
            unnamed *= 1 - (needed == 0 ? 1 : ITS_OWN) * check.naming();
            needed += check.check().minutes() + CheckPlanner.MINUTES_ASIDE;
            open -= ITS_OWN * check.bits();
            fitting += spent + needed <= minutes ? 1 : 0;
        }
        boolean told = open <= 0 || unnamed <= LIKELIER_THAN_NOT;
        double first =
                next.isEmpty() ? 0 : next.get(0).check().minutes() + CheckPlanner.MINUTES_ASIDE;
        double most = Math.max(first, A_BIT * ranking.openBits());
        return new Budget(minutes, spent, told ? Math.min(needed, most) : Double.NaN, fitting);
    }

    /**
     * Bits between what is open now and what is open when the surest can be named: as much as
     * before is then left among the others, each as likely beside them as now.
     */
    private static double toBeTold(Ranking ranking) {
        double lead = Math.min(Ranking.ACCUSED, ranking.lead().sureness());
        double others = Math.max(0, ranking.openBits() - pair(lead)) / (1 - lead);
        double named = pair(Ranking.ACCUSED) + (1 - Ranking.ACCUSED) * others;
        return ranking.openBits() - named;
    }

    /** Entropy of whether it is the one, in bits. */
    private static double pair(double p) {
        return p <= 0 ? 0 : -(p * Math.log(p) + (1 - p) * Math.log(1 - p)) / Math.log(2);
    }

    /** Minutes that are left; below zero when more were spent. */
    public double left() {
        return minutes - spent;
    }

    /** How it stands, in a sentence. */
    public String words() {
        String so = "%.0f of %.0f minutes are spent".formatted(spent, minutes);
        if (needed == 0) {
            return so + ".";
        }
        if (Double.isNaN(needed)) {
            return so + "; the checks that are left may not tell it apart.";
        }
        if (needed <= left()) {
            return so + "; about %.0f more should name it.".formatted(needed);
        }
        return so
                + "; naming it takes about %.0f more, and %s. Agree on more time, or tell what is known."
                        .formatted(
                                needed,
                                fitting == 0
                                        ? "no check fits into what is left"
                                        : fitting == 1
                                                ? "one check fits into what is left"
                                                : fitting + " checks fit into what is left");
    }
}
