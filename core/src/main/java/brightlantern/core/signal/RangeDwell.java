package brightlantern.core.signal;

/**
 * Whether a value is within its range, told only when it stays so: a sensor that jitters is one.
 */
public final class RangeDwell {
    /** A range is told as left, or as kept again, only when that stays so for so long, s. */
    private static final double SECONDS = 1;

    /** What is told. */
    public enum Told {
        IN,
        OUT,
        NOT_JUDGED
    }

    private Told told = Told.NOT_JUDGED;
    private Told now = Told.NOT_JUDGED;
    private double since;

    /**
     * @param verdict at this moment; {@link Told#NOT_JUDGED} when no range applies
     * @param seconds the moment
     * @return what is told then
     */
    public Told after(Told verdict, double seconds) {
        if (verdict != now) {
            now = verdict;
            since = seconds;
        }
        if (verdict == Told.NOT_JUDGED || seconds - since >= SECONDS) {
            told = verdict;
        }
        return told;
    }
}
