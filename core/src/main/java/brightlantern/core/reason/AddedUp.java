package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.OptionalDouble;

/**
 * What two faults do to a reading together. Two consumers that share a feed let it sag less when
 * neither of them draws: as long as neither takes most of the supply away by itself, what they do
 * adds up (superposition, to first order).
 */
final class AddedUp implements Mechanism.Together {
    /** Less than this adds nothing, V. */
    private static final double ADDS_VOLTS = 0.02;

    /** From this share of the supply on the one decides what the other can still do. */
    private static final double ADDS_SHARE = 0.3;

    private final CircuitFigures figures;
    private final Evidence.Reading read;
    private final Normal[] foretold;
    private final Hypotheses under;
    private final boolean[] near;

    /**
     * @param foretold what each hypothesis foretold of what was read
     * @param near whether a hypothesis is of the circuit in which it was read
     */
    AddedUp(
            CircuitFigures figures,
            Evidence.Reading read,
            Normal[] foretold,
            Hypotheses under,
            boolean[] near) {
        this.figures = figures;
        this.read = read;
        this.foretold = foretold;
        this.under = under;
        this.near = near;
    }

    @Override
    public boolean addsUp() {
        return true;
    }

    @Override
    public OptionalDouble log(int first, int second) {
        double healthy = foretold[under.healthy()].mean();
        Normal one = foretold[first];
        Normal other = foretold[second];
        return addUp(one.mean() - healthy, other.mean() - healthy)
                ? OptionalDouble.of(
                        Math.log(
                                sum(one, other, healthy)
                                        .density(read.volts(), Odds.anything(under.get(first)))))
                : OptionalDouble.empty();
    }

    @Override
    public OptionalDouble solved(int first, int second) {
        return near[first] && near[second]
                ? figures.both(read, under.get(first), under.get(second))
                : OptionalDouble.empty();
    }

    private static Normal sum(Normal one, Normal other, double healthy) {
        return new Normal(
                Math.max(0, Math.min(one.top(), one.mean() + other.mean() - healthy)),
                Math.max(one.deviation(), other.deviation()),
                one.top());
    }

    private boolean addUp(double one, double other) {
        double least = Math.min(Math.abs(one), Math.abs(other));
        double most = Math.max(Math.abs(one), Math.abs(other));
        return least > ADDS_VOLTS && most < ADDS_SHARE * read.supplyVolts();
    }
}
