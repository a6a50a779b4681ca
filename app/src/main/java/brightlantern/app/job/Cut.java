package brightlantern.app.job;

/**
 * Text that comes from a vehicle, a file or a person has no end of its own; what is kept has one,
 * and must never be lost because of its length.
 */
public final class Cut {
    /** The longest that {@link #sign} gives. */
    private static final int SIGN = 40;

    private Cut() {}

    /**
     * A text that fits into a column; what was left out is told in its place.
     *
     * @param most characters, more than 40
     */
    public static String to(int most, String text) {
        if (text.length() <= most) {
            return text;
        }
        int end = most - SIGN;
        // half of a letter is none
        end -= Character.isHighSurrogate(text.charAt(end - 1)) ? 1 : 0;
        return text.substring(0, end) + sign(text.length() - end);
    }

    private static String sign(int left) {
        return " … (%d characters left out)".formatted(left);
    }
}
