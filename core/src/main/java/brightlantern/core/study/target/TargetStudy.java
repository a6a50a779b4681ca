package brightlantern.core.study.target;

import brightlantern.core.filter.Stretch;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.suspect.Finding;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.hipparchus.stat.regression.SimpleRegression;

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

    private static final String FOLLOWS = "follows";

    /** It follows, but its actuator has nothing left: a warning, not a pass. */
    private static final String AT_END = "at-end";

    /** For this share of a stretch the command may be at its end. */
    private static final double END_SHARE = 0.3;

    private TargetStudy() {}

    /**
     * @param outcome follows, at-end (follows with nothing left to give), short (actuator stays
     *     below its command) or reached (actuator obeys, effect is missing)
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
     * Studies every stretch of a take and tells of the worst. Falling behind is told of a stretch
     * of any length; following only counts over a stretch that is long enough for the fault to
     * show.
     *
     * @param told the finding as which the result is told
     * @param frame a freeze frame whose conditions the drive should have met again; may be empty
     * @return empty when nothing can be said; {@link #whyNot} tells why
     */
    public static Optional<Verdict> study(
            Take take, Follow follow, Finding told, Signals signals, Map<String, Double> frame) {
        if (!missing(take, follow).isEmpty()) {
            return Optional.empty();
        }
        return stretches(take, follow).stream()
                .flatMap(s -> judge(take, follow, told, signals, frame, s).stream())
                .filter(
                        v ->
                                !v.outcome().equals(FOLLOWS)
                                        || v.toSeconds() - v.fromSeconds()
                                                >= follow.atLeastSeconds())
                .max(
                        Comparator.comparing((Verdict v) -> !v.outcome().equals(FOLLOWS))
                                .thenComparing(
                                        v ->
                                                v.outcome().equals(FOLLOWS)
                                                        ? v.toSeconds() - v.fromSeconds()
                                                        : v.behindSeconds()));
    }

    /** Why {@link #study} says nothing of a take: what was not recorded, or what was too short. */
    public static String whyNot(Take take, Follow follow, Signals signals) {
        Set<String> missing = missing(take, follow);
        if (!missing.isEmpty()) {
            return "Not recorded: "
                    + missing.stream()
                            .map(id -> signals.value(id).map(Value::name).orElse(id))
                            .sorted()
                            .collect(Collectors.joining(", "))
                    + ". Add them to the watch list and record again.";
        }
        double longest =
                stretches(take, follow).stream().mapToDouble(Stretch::seconds).max().orElse(0);
        return text(
                "%s held for %.0f s at most; %.0f s are needed.",
                follow.when().stream().map(Condition::says).collect(Collectors.joining(", ")),
                longest,
                follow.atLeastSeconds());
    }

    private static Set<String> missing(Take take, Follow follow) {
        Set<String> missing =
                new HashSet<>(
                        List.of(
                                follow.target(),
                                follow.actual(),
                                follow.command(),
                                follow.feedback()));
        follow.when().forEach(c -> missing.add(c.value()));
        missing.removeAll(take.columns().keySet());
        return missing;
    }

    private static List<Stretch> stretches(Take take, Follow follow) {
        return Stretch.find(
                take, follow.when(), take.columns().get(follow.actual()), BRIDGE_SECONDS);
    }

    private static Optional<Verdict> judge(
            Take take,
            Follow follow,
            Finding told,
            Signals signals,
            Map<String, Double> frame,
            Stretch stretch) {
        Take.Column clock = take.columns().get(follow.actual());
        Value target = signals.value(follow.target()).orElseThrow();
        Value actual = signals.value(follow.actual()).orElseThrow();
        double worst = Double.NEGATIVE_INFINITY;
        double behind = 0;
        double frameSeconds = 0;
        List<Double> gaps = new ArrayList<>();
        List<Double> gapsBehind = new ArrayList<>();
        double before = Double.NaN;
        double most = Double.NEGATIVE_INFINITY;
        double worstAt = stretch.from();
        double atEnd = 0;
        double judged = 0;
        SimpleRegression trend = new SimpleRegression();
        for (int i = 0; i < clock.size(); i++) {
            double t = clock.seconds(i);
            if (t < stretch.from() + SETTLE_SECONDS || t > stretch.to()) {
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
            double command = take.at(follow.command(), t);
            most = Math.max(most, command);
            atEnd += follow.end() > 0 && command >= follow.end() ? step : 0;
            judged += step;
            trend.addData(t, lag);
            worstAt = lag > worst ? t : worstAt;
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
        boolean spent = judged > 0 && atEnd > END_SHARE * judged;
        boolean warns = spent && told.outcomes().stream().anyMatch(o -> o.id().equals(AT_END));
        String outcome =
                lags ? (gap > follow.shortBy() ? "short" : "reached") : warns ? AT_END : FOLLOWS;
        return Optional.of(
                new Verdict(
                        outcome,
                        stretch.from(),
                        stretch.to(),
                        worst,
                        target.show(),
                        behind,
                        gap,
                        frameSeconds,
                        sentence(outcome, actual, signals, follow),
                        List.of(
                                text(
                                        "Stretch of %.0f s in which the conditions held.",
                                        stretch.seconds()),
                                text(
                                        "Worst %s %s behind its target (at %.0f s), more than %s %s behind for %.1f s together; up to %.0f s is right.",
                                        Units.told(worst),
                                        target.show(),
                                        worstAt,
                                        Units.told(follow.behind()),
                                        target.show(),
                                        behind,
                                        follow.seconds()),
                                text(
                                        "Along the stretch the deviation %s by %s %s a second.",
                                        trend.getSlope() >= 0 ? "grows" : "shrinks",
                                        Units.told(Math.abs(trend.getSlope())),
                                        target.show()),
                                headroom(most, atEnd, follow),
                                text(
                                        "Command minus feedback of the actuator: %.0f %% on the mean; up to %.0f %% is right.",
                                        gap, follow.shortBy()))));
    }

    private static String headroom(double most, double atEnd, Follow follow) {
        return follow.end() <= 0
                ? text("The command went up to %.0f %%.", most)
                : most >= follow.end()
                        ? text(
                                "The command was at its end (%.0f %%) for %.1f s: nothing was left there.",
                                follow.end(), atEnd)
                        : text(
                                "The command went up to %.0f %%; %.0f %% were left to its end.",
                                most, follow.end() - most);
    }

    private static String sentence(String outcome, Value actual, Signals signals, Follow follow) {
        String actuator = signals.value(follow.feedback()).map(Value::name).orElse("The actuator");
        return switch (outcome) {
            case FOLLOWS -> actual.name() + " follows its target.";
            case AT_END ->
                    actual.name()
                            + " follows its target, but "
                            + actuator.toLowerCase(Locale.ROOT)
                            + " is at its end: nothing is left.";
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

    private static double mean(List<Double> numbers) {
        return numbers.stream().mapToDouble(x -> x).average().orElse(0);
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
