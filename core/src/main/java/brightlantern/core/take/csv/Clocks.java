package brightlantern.core.take.csv;

import brightlantern.core.take.Take;
import brightlantern.core.take.csv.Dialect.Clock;
import brightlantern.core.take.csv.Dialect.Column;
import brightlantern.core.take.csv.Dialect.Role;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** The time columns of a file: seconds from the first moment, never backwards. */
final class Clocks {
    private static final double DAY = 86_400;

    /** A number of seconds larger than this counts from 1970. */
    private static final double EPOCH_SECONDS = 1e9;

    private final Dialect dialect;
    private final ZoneId zone;
    private final Remarks remarks;
    private final List<Take.Mark> marks;
    private final double[] zero;
    private final double[] shift;
    private final double[] last;
    private final double[] newest;
    private Optional<Instant> start = Optional.empty();
    private boolean jumped;

    /**
     * @param zone of dates that do not tell their own
     * @param marks where it is marked that time went back
     */
    Clocks(Dialect dialect, ZoneId zone, Remarks remarks, List<Take.Mark> marks) {
        this.dialect = dialect;
        this.zone = zone;
        this.remarks = remarks;
        this.marks = marks;
        int width = dialect.columns().size();
        zero = new double[width];
        shift = new double[width];
        last = new double[width];
        newest = new double[width];
        Arrays.fill(zero, Double.NaN);
        Arrays.fill(last, Double.NEGATIVE_INFINITY);
    }

    /** When the file began, where it tells the date. */
    Optional<Instant> start() {
        return start;
    }

    /** Seconds at which a field of this line was taken; NaN when unknown. */
    double of(Line line, Column c) {
        return c.time() < line.fields() ? newest[c.time()] : Double.NaN;
    }

    /** Puts the line's time of a time column into its place; NaN when there is none. */
    void read(Line line, Column c) {
        int i = c.index();
        Clock clock = c.clock().orElseThrow();
        double raw =
                clock.isNumber()
                        ? line.number(c) * clock.seconds()
                        : clock == Clock.TIMESTAMP
                                ? Times.stamp(line.text(c), dialect.dates(), zone)
                                : Times.clock(line.text(c), clock);
        if (Double.isNaN(raw)) {
            newest[i] = Double.NaN;
            if (!line.text(c).isEmpty()) {
                remarks.badField(line, c, "a time");
            }
            return;
        }
        if (Double.isNaN(zero[i])) {
            // several columns of one clock begin together
            double common = firstZero(c);
            zero[i] = Double.isNaN(common) ? raw : common;
            if (start.isEmpty() && (clock == Clock.TIMESTAMP || raw > EPOCH_SECONDS)) {
                start = Optional.of(Instant.ofEpochMilli(Math.round(zero[i] * 1000)));
            }
        }
        double t = raw - zero[i] + shift[i];
        if (t < last[i]) {
            if (c.clock().orElseThrow() == Clock.CLOCK && last[i] - t > DAY / 2) {
                shift[i] += DAY;
            } else {
                if (!jumped) {
                    jumped = true;
                    remarks.add(
                            Remarks.text(
                                    "Line %d: time goes back by %.3f s; what follows was put behind what was there.",
                                    line.at(), last[i] - t));
                }
                marks.add(new Take.Mark(last[i] + 1, "time went back here"));
                shift[i] += last[i] - t + 1;
            }
            t = raw - zero[i] + shift[i];
        }
        last[i] = t;
        newest[i] = t;
    }

    private double firstZero(Column c) {
        for (Column other : dialect.columns()) {
            if (other.role() == Role.TIME
                    && other.index() != c.index()
                    && other.clock().equals(c.clock())
                    && !Double.isNaN(zero[other.index()])) {
                return zero[other.index()];
            }
        }
        return Double.NaN;
    }
}
