package brightlantern.app.exercise;

/**
 * How long a page has not been heard of. Only what passed while the program itself was awake
 * counts: a machine that slept for some seconds could not have heard the page either, and it is
 * given the time to call again.
 */
final class PageSilence {
    /** A longer gap between two looks was not all listened to. */
    private static final long LONGEST_GAP_NANOS = 2_000_000_000L;

    private long looked;
    private long silent;

    /**
     * @param now as {@link System#nanoTime}
     */
    PageSilence(long now) {
        looked = now;
    }

    synchronized void heard(long now) {
        looked = now;
        silent = 0;
    }

    /**
     * Looks whether it is still silent.
     *
     * @param now as {@link System#nanoTime}
     * @return how long it has been so, s
     */
    synchronized double look(long now) {
        silent += Math.min(Math.max(0, now - looked), LONGEST_GAP_NANOS);
        looked = now;
        return silent / 1e9;
    }
}
