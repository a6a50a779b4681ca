package brightlantern.core.attachment;

/**
 * What was marked in a picture: an arrow from one point to another, or a ring around one that
 * reaches to the other. Shares of its width and height, 0 … 1.
 */
public record Mark(Shape shape, double x1, double y1, double x2, double y2) {
    /** How it is drawn. */
    public enum Shape {
        ARROW,
        RING
    }

    /**
     * @throws IllegalArgumentException when a point lies outside the picture
     */
    public Mark {
        within(x1);
        within(y1);
        within(x2);
        within(y2);
    }

    private static void within(double share) {
        if (!(share >= 0 && share <= 1)) {
            throw new IllegalArgumentException(
                    "A mark at " + share + " lies outside the picture; 0 to 1 is expected.");
        }
    }
}
