package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.List;

/**
 * What somebody came for. A suspect that explains nothing of what was told or found is not the
 * cause that is sought: whether it is there as well, as in any vehicle of its age, is part of what
 * a vehicle is that is well in this.
 */
final class Sought {
    /** A cause under which a piece is so much likelier than under none explains it; log. */
    private static final double EXPLAINS = 0.4;

    private Sought() {}

    /**
     * Weights of the hypotheses without those that explain nothing; as they were where nothing was
     * told or found that any of them explains.
     */
    static double[] among(double[] weights, List<Learned> learned, Hypotheses hypotheses) {
        boolean[] explains = new boolean[hypotheses.suspects().size()];
        for (Learned piece : learned) {
            if (!isHistory(piece.piece())) {
                double[] logs = piece.logs();
                double aside = piece.aside(hypotheses.healthy());
                for (int i = 0; i < logs.length; i++) {
                    explains[hypotheses.suspectOf(i)] |= logs[i] - aside > EXPLAINS;
                }
            }
        }
        int well = hypotheses.suspectOf(hypotheses.healthy());
        int unlisted = hypotheses.suspectOf(hypotheses.unlisted());
        double[] left = new double[weights.length];
        double sum = 0;
        boolean any = false;
        for (int i = 0; i < left.length; i++) {
            int its = hypotheses.suspectOf(i);
            boolean stays = its == well || its == unlisted;
            any |= explains[its] && !stays;
            left[i] = explains[its] || stays ? weights[i] : 0;
            sum += left[i];
        }
        if (!any || !(sum > 0)) {
            return weights;
        }
        for (int i = 0; i < left.length; i++) {
            left[i] /= sum;
        }
        return left;
    }

    /** What makes a cause likelier or excludes it, and is no sign of anything. */
    private static boolean isHistory(Evidence piece) {
        return piece instanceof Evidence.Driven
                || piece instanceof Evidence.WorkedOn
                || piece instanceof Evidence.RuledOut
                || piece instanceof Evidence.RepairFailed;
    }
}
