package brightlantern.core.study.trim;

import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Spray or smoke near a suspected leak: soon after the mark that was set for it the short-term trim
 * dips, as what is drawn in there burns. The dip is timed against the mark.
 */
public record TrimDip(double markSeconds, String mark, double after, double by, boolean dips) {
    /** The trim before the mark is averaged over this, s. */
    private static final double BEFORE_SECONDS = 6;

    /** What comes later is not laid to the mark, s. */
    private static final double WINDOW_SECONDS = 8;

    /** So many standard deviations of the trim before the mark. */
    private static final double NOISES = 4;

    /** Smaller ones are nobody's business, percent. */
    private static final double LEAST_DIP = 1.5;

    /** One for each mark with enough of the trim around it. */
    public static List<TrimDip> of(Take take, String shortTerm) {
        Take.Column trim = take.columns().get(shortTerm);
        if (trim == null) {
            return List.of();
        }
        List<TrimDip> dips = new ArrayList<>();
        for (Take.Mark mark : take.marks()) {
            double sum = 0;
            double squares = 0;
            int n = 0;
            double least = Double.POSITIVE_INFINITY;
            int later = 0;
            for (int i = 0; i < trim.size(); i++) {
                double t = trim.seconds(i) - mark.seconds();
                double v = trim.value(i);
                if (Double.isNaN(v)) {
                    continue;
                }
                if (t > -BEFORE_SECONDS && t <= 0) {
                    sum += v;
                    squares += v * v;
                    n++;
                } else if (t > 0 && t <= WINDOW_SECONDS) {
                    later++;
                    least = Math.min(least, v);
                }
            }
            if (n < 5 || later < 5) {
                continue;
            }
            double rest = sum / n;
            double noise = Math.sqrt(Math.max(0, squares / n - rest * rest));
            double threshold = Math.max(LEAST_DIP, NOISES * noise);
            double after = Double.NaN;
            for (int i = 0; i < trim.size() && Double.isNaN(after); i++) {
                double t = trim.seconds(i) - mark.seconds();
                if (t > 0 && t <= WINDOW_SECONDS && rest - trim.value(i) > threshold) {
                    after = t;
                }
            }
            dips.add(
                    new TrimDip(
                            mark.seconds(),
                            mark.text(),
                            after,
                            rest - least,
                            !Double.isNaN(after)));
        }
        return dips;
    }

    /** What it tells, in a sentence. */
    public String sentence() {
        return dips
                ? String.format(
                        Locale.ROOT,
                        "%.1f s after the mark '%s' the short-term trim dips by %.1f points: what was sprayed there was drawn in.",
                        after,
                        mark,
                        by)
                : String.format(
                        Locale.ROOT,
                        "The short-term trim does not dip after the mark '%s' at %.1f s.",
                        mark,
                        markSeconds);
    }
}
