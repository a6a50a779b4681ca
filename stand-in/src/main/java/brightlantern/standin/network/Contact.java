package brightlantern.standin.network;

import java.util.Random;

/**
 * A bad contact: it stays bad, or, when damp or loose, goes to and fro between good and bad, each
 * for a time of its own (exponentially distributed, as chance events are).
 */
final class Contact {
    private final Random random;
    private final boolean comesAndGoes;
    private final double badSeconds;
    private final double goodSeconds;
    private boolean bad = true;
    private double until;

    /**
     * @param badSeconds and goodSeconds mean time in each state; infinite {@code badSeconds} for a
     *     contact that stays bad
     */
    Contact(Random random, double badSeconds, double goodSeconds) {
        this.random = random;
        this.badSeconds = badSeconds;
        this.goodSeconds = goodSeconds;
        this.comesAndGoes = Double.isFinite(badSeconds);
    }

    /** Whether it is bad at a time that never goes back. */
    boolean bad(double seconds) {
        while (comesAndGoes && seconds >= until) {
            bad = !bad;
            until += -Math.log(1 - random.nextDouble()) * (bad ? badSeconds : goodSeconds);
        }
        return bad;
    }
}
