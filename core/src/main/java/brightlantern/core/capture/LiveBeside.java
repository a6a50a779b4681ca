package brightlantern.core.capture;

import brightlantern.core.take.Take;

/** Live values of a take that ran at the same time, in the columns of a picture of a capture. */
public final class LiveBeside {
    /** A value that was not told for longer is not known, s. */
    private static final double HOLDS_SECONDS = 5;

    private LiveBeside() {}

    /**
     * Least and most of each column; what was told last holds until the next.
     *
     * @param later seconds by which the capture began after the take
     * @param from and to: seconds of the capture
     * @return two for each column, in the value's own unit; null where nothing was told
     */
    public static Double[] columns(
            Take.Column value, double later, double from, double to, int columns) {
        Double[] out = new Double[2 * columns];
        for (int c = 0; c < columns; c++) {
            double begin = later + from + (to - from) * c / columns;
            double end = later + from + (to - from) * (c + 1) / columns;
            double least = Double.POSITIVE_INFINITY;
            double most = Double.NEGATIVE_INFINITY;
            for (int i = Math.max(0, value.indexAt(begin));
                    i < value.size() && value.seconds(i) <= end;
                    i++) {
                double its = value.value(i);
                boolean holds = value.seconds(i) >= begin - HOLDS_SECONDS;
                if (holds && Double.isFinite(its)) {
                    least = Math.min(least, its);
                    most = Math.max(most, its);
                }
            }
            if (least <= most) {
                out[2 * c] = least;
                out[2 * c + 1] = most;
            }
        }
        return out;
    }

    /** Whether anything was told while a capture ran. */
    public static boolean isWithin(Take.Column value, double later, double seconds) {
        int last = value.indexAt(later + seconds);
        return last >= 0 && value.seconds(last) >= later - HOLDS_SECONDS;
    }
}
