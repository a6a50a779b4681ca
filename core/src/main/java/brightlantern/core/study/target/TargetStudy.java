package brightlantern.core.study.target;

import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.signal.Units;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Follow;
import brightlantern.core.vehicle.VehicleDescription.Value;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Whether an actual value followed its target while the conditions held, and whether the actuator
 * did its part.
 */
public final class TargetStudy {
    /**
     * A stretch may be interrupted for so long (a bump, a short lift of the foot) and is still one.
     */
    private static final double BRIDGE_SECONDS = 0.8;

    /** Readings within this share of a freeze frame's value count as its conditions met again. */
    private static final double FRAME_SHARE = 0.2;

    /** Boost needs time to build: the first moments of a stretch are not judged. */
    private static final double SETTLE_SECONDS = 3.0;

    private TargetStudy() {}

    /**
     * @param outcome follows, short (actuator stays below its command) or reached (actuator obeys,
     *     effect is missing)
     * @param worst largest target minus actual, in {@code unit}
     * @param behindSeconds for how long together the actual stayed behind
     * @param gap mean of command minus feedback while behind (or throughout when never behind),
     *     percent
     * @param frameSeconds how long the freeze frame's conditions were met; 0 without a freeze frame
     */
    public record Verdict(
            String outcome,
            double fromSeconds,
            double toSeconds,
            double worst,
            String unit,
            double behindSeconds,
            double gap,
            double frameSeconds,
            String sentence,
            List<String> reasons) {}

    /**
     * Studies the longest stretch of a take.
     *
     * @param frame a freeze frame whose conditions the drive should have met again; may be empty
     * @return empty when no stretch is long enough or a value was not recorded
     */
    public static Optional<Verdict> study(
            Take take, Follow follow, VehicleDescription description, Map<String, Double> frame) {
        Set<String> needed =
                new HashSet<>(
                        List.of(
                                follow.target(),
                                follow.actual(),
                                follow.command(),
                                follow.feedback()));
        follow.when().forEach(c -> needed.add(c.value()));
        if (!take.columns().keySet().containsAll(needed)) {
            return Optional.empty();
        }
        Take.Column clock = take.columns().get(follow.actual());
        double[] stretch = longestStretch(take, follow, clock);
        if (stretch[1] - stretch[0] < follow.atLeastSeconds()) {
            return Optional.empty();
        }
        Value target = description.value(follow.target()).orElseThrow();
        Value actual = description.value(follow.actual()).orElseThrow();
        double worst = Double.NEGATIVE_INFINITY;
        double behind = 0;
        double frameSeconds = 0;
        List<Double> gaps = new ArrayList<>();
        List<Double> gapsBehind = new ArrayList<>();
        double before = Double.NaN;
        for (int i = 0; i < clock.size(); i++) {
            double t = clock.seconds(i);
            if (t < stretch[0] + SETTLE_SECONDS || t > stretch[1]) {
                continue;
            }
            double step = Double.isNaN(before) ? 0 : t - before;
            before = t;
            double goal = Units.convert(take.at(follow.target(), t), target.unit(), target.show());
            double is = Units.convert(clock.value(i), actual.unit(), target.show());
            double lag = goal - is;
            double gap = take.at(follow.command(), t) - take.at(follow.feedback(), t);
            if (Double.isNaN(lag) || Double.isNaN(gap)) {
                continue;
            }
            worst = Math.max(worst, lag);
            gaps.add(gap);
            if (lag > follow.behind()) {
                behind += step;
                gapsBehind.add(gap);
            }
            if (meets(take, follow, frame, t)) {
                frameSeconds += step;
            }
        }
        if (gaps.isEmpty()) {
            return Optional.empty();
        }
        boolean lags = behind >= follow.seconds();
        double gap = mean(lags ? gapsBehind : gaps);
        String outcome = !lags ? "follows" : gap > follow.shortBy() ? "short" : "reached";
        return Optional.of(
                new Verdict(
                        outcome,
                        stretch[0],
                        stretch[1],
                        worst,
                        target.show(),
                        behind,
                        gap,
                        frameSeconds,
                        sentence(outcome, actual, description, follow),
                        List.of(
                                text(
                                        "Stretch of %.0f s in which the conditions held.",
                                        stretch[1] - stretch[0]),
                                text(
                                        "Worst %.0f %s behind its target, more than %.0f %s behind for %.1f s together; %.0f s are borne.",
                                        worst,
                                        target.show(),
                                        follow.behind(),
                                        target.show(),
                                        behind,
                                        follow.seconds()),
                                text(
                                        "Command minus feedback of the actuator: %.0f %% on the mean; up to %.0f %% is right.",
                                        gap, follow.shortBy()))));
    }

    private static String sentence(
            String outcome, Value actual, VehicleDescription description, Follow follow) {
        String actuator =
                description.value(follow.feedback()).map(Value::name).orElse("The actuator");
        return switch (outcome) {
            case "follows" -> actual.name() + " follows its target.";
            case "short" ->
                    actual.name()
                            + " falls behind, and "
                            + actuator.toLowerCase(Locale.ROOT)
                            + " stays short of its command.";
            default ->
                    actual.name()
                            + " falls behind although "
                            + actuator.toLowerCase(Locale.ROOT)
                            + " obeys its command.";
        };
    }

    private static boolean meets(Take take, Follow follow, Map<String, Double> frame, double t) {
        boolean any = false;
        for (String id : follow.conditions()) {
            Double wanted = frame.get(id);
            if (wanted == null) {
                continue;
            }
            double is = take.at(id, t);
            if (Double.isNaN(is) || Math.abs(is - wanted) > FRAME_SHARE * Math.abs(wanted)) {
                return false;
            }
            any = true;
        }
        return any;
    }

    private static double[] longestStretch(Take take, Follow follow, Take.Column clock) {
        double[] best = {0, 0};
        double start = Double.NaN;
        double lastGood = Double.NaN;
        Map<String, Double> now = new HashMap<>();
        for (int i = 0; i < clock.size(); i++) {
            double t = clock.seconds(i);
            follow.when().forEach(c -> now.put(c.value(), take.at(c.value(), t)));
            if (RangeVerdict.holds(follow.when(), now)) {
                if (Double.isNaN(start) || t - lastGood > BRIDGE_SECONDS) {
                    start = t;
                }
                lastGood = t;
                if (lastGood - start > best[1] - best[0]) {
                    best = new double[] {start, lastGood};
                }
            }
        }
        return best;
    }

    private static double mean(List<Double> numbers) {
        return numbers.stream().mapToDouble(x -> x).average().orElse(0);
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
