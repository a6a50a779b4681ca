package brightlantern.core.network;

/**
 * What each module of a bus sends.
 *
 * @param everyMs a frame so often, ms
 * @param leastBytes of data in a frame, and {@code mostBytes}
 */
public record ExpectedFrames(double everyMs, int leastBytes, int mostBytes) {
    /** What is expected where nothing is described. */
    static final ExpectedFrames USUAL = new ExpectedFrames(10, 8, 8);
}
