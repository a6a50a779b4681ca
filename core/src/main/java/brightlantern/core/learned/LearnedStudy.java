package brightlantern.core.learned;

import brightlantern.core.signal.Value;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Where a learned value stands between its limits, and how it moved. */
public final class LearnedStudy {
    /** A pace is told from so many readings on, over so many days. */
    private static final int PACE_READINGS = 3;

    private static final double PACE_DAYS = 7;

    /** A slope counts when it is so many times its own standard error. */
    private static final double SURE = 3;

    private static final double DAYS_IN_A_YEAR = 365;

    private LearnedStudy() {}

    /** Where it stands. */
    public enum Standing {
        MIDDLE("in the middle"),
        NEAR("near its limit"),
        AT_LIMIT("at its limit");

        private final String words;

        Standing(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What it was at a time, in the unit in which the value is shown. */
    public record Reading(Instant at, double figure) {}

    /**
     * @param share -1 at its lower limit, 0 as usual, 1 at its upper limit
     * @param sentence where it stands, with the figures
     * @param moved how it moved since before; empty when nothing was read before
     * @param outcome of its finding
     */
    public record Verdict(
            LearnedValue learned,
            Value value,
            double now,
            double share,
            Standing standing,
            String sentence,
            String moved,
            String outcome) {
        public boolean holds() {
            return standing == Standing.MIDDLE;
        }
    }

    /**
     * @param readings of this vehicle in the order of time, the newest last; not empty
     */
    public static Verdict of(LearnedValue learned, Value value, List<Reading> readings) {
        Reading now = readings.get(readings.size() - 1);
        double share = learned.share(now.figure());
        Standing standing =
                Math.abs(share) >= 0.99
                        ? Standing.AT_LIMIT
                        : Math.abs(share) >= learned.near() ? Standing.NEAR : Standing.MIDDLE;
        String outcome =
                standing == Standing.MIDDLE
                        ? learned.middle()
                        : share < 0 ? learned.low() : learned.high();
        return new Verdict(
                learned,
                value,
                now.figure(),
                share,
                standing,
                sentence(learned, value, now.figure(), share, standing),
                readings.size() < 2 ? "" : moved(learned, value, readings),
                outcome);
    }

    private static String sentence(
            LearnedValue learned, Value value, double figure, double share, Standing standing) {
        String limit = told(value, share < 0 ? learned.least() : learned.most());
        return told(value, figure)
                + switch (standing) {
                    case MIDDLE -> ": as usual.";
                    case NEAR ->
                            String.format(
                                    Locale.ROOT,
                                    ": %.0f %% of the way to its limit of %s.",
                                    100 * Math.abs(share),
                                    limit);
                    case AT_LIMIT ->
                            ": at its limit of " + limit + "; the module can make up for no more.";
                };
    }

    private static String told(Value value, double figure) {
        return (String.format(Locale.ROOT, "%." + value.digits() + "f", figure)
                        + " "
                        + value.show())
                .trim();
    }

    private static String moved(LearnedValue learned, Value value, List<Reading> readings) {
        Reading now = readings.get(readings.size() - 1);
        Reading before = readings.get(readings.size() - 2);
        double by = now.figure() - before.figure();
        String since = since(days(before.at(), now.at()));
        double least = Math.pow(10, -value.digits());
        String told =
                Math.abs(by) < least
                        ? "The same as " + since + "."
                        : (by > 0 ? "Up" : "Down")
                                + " by "
                                + told(value, Math.abs(by))
                                + " since "
                                + since
                                + ".";
        return told + reaches(learned, readings).map(r -> " " + r).orElse("");
    }

    private static double days(Instant from, Instant to) {
        return Duration.between(from, to).toSeconds() / 86_400.0;
    }

    private static String since(double days) {
        if (days < 1) {
            return "earlier today";
        }
        return Math.round(days) == 1 ? "yesterday" : Math.round(days) + " days ago";
    }

    /** When it will be at a limit at the pace it has (least squares over time), if it has one. */
    private static Optional<String> reaches(LearnedValue learned, List<Reading> readings) {
        Instant first = readings.get(0).at();
        Reading newest = readings.get(readings.size() - 1);
        int n = readings.size();
        if (n < PACE_READINGS || days(first, newest.at()) < PACE_DAYS) {
            return Optional.empty();
        }
        double x = readings.stream().mapToDouble(r -> days(first, r.at())).average().orElse(0);
        double y = readings.stream().mapToDouble(Reading::figure).average().orElse(0);
        double xx = 0;
        double xy = 0;
        double yy = 0;
        for (Reading r : readings) {
            double dx = days(first, r.at()) - x;
            double dy = r.figure() - y;
            xx += dx * dx;
            xy += dx * dy;
            yy += dy * dy;
        }
        double slope = xy / xx;
        double error = Math.sqrt(Math.max(0, yy - slope * xy) / (n - 2) / xx);
        double limit = slope > 0 ? learned.most() : learned.least();
        double left = (limit - newest.figure()) / slope;
        return Math.abs(slope) <= SURE * error || left <= 0 || left > DAYS_IN_A_YEAR || slope == 0
                ? Optional.empty()
                : Optional.of(
                        "At this pace it is at its limit in some " + Math.round(left) + " days.");
    }
}
