package brightlantern.core.circuit;

/**
 * A place where wires meet and a probe can touch.
 *
 * @param side supply or earth; a load is hung towards the other battery pole
 * @param x grid column, y grid row, for the drawing
 * @param minutes to get at it; 0 when it cannot be probed
 */
public record ProbePoint(
        String id, String name, String side, double x, double y, double minutes, String place) {
    /** Whether a probe can touch it at all. */
    public boolean canBeProbed() {
        return minutes > 0;
    }
}
