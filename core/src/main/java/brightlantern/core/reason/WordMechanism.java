package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import java.util.List;
import java.util.Optional;

/** What was done and said of a suspect itself: a repair that did not help, a suspect ruled out. */
final class WordMechanism implements Mechanism {
    /** A repair done well mends its cause; this is left for one done badly. */
    private static final double REPAIR_BOTCHED = 0.05;

    /** A technician who rules a suspect out is wrong so often. */
    private static final double RULED_OUT_WRONGLY = 1e-3;

    @Override
    public boolean weighs(Evidence piece) {
        return piece instanceof Evidence.RepairFailed || piece instanceof Evidence.RuledOut;
    }

    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        if (piece instanceof Evidence.RepairFailed failed) {
            return against(failed.suspectId(), REPAIR_BOTCHED, under);
        }
        return against(((Evidence.RuledOut) piece).suspectId(), RULED_OUT_WRONGLY, under);
    }

    private static double[] against(String suspectId, double left, Hypotheses under) {
        return under.each(h -> h.suspectId().equals(suspectId) ? Math.log(left) : 0);
    }

    @Override
    public List<Check> checks(List<Evidence> known) {
        return List.of();
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        return Optional.empty();
    }
}
