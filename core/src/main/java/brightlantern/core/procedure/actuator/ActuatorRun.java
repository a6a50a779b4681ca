package brightlantern.core.procedure.actuator;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.procedure.Study;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/** One run of an actuator from its low to its high position, and the judgement of it. */
public final class ActuatorRun {
    /**
     * Travel counts between these shares of the commanded step, so that dead time and the last
     * creep do not blur it.
     */
    public static final double FROM_SHARE = 0.1;

    public static final double TO_SHARE = 0.9;

    /** Fewer strokes than this have no middle one worth the name. */
    public static final int LEAST_STROKES = 3;

    /** A stroke whose readings leave its travel time this unsure (one deviation) is not counted. */
    private static final double MOST_DOUBT_SECONDS = 0.045;

    /** A verdict nearer to the limit than this many deviations wants more strokes. */
    private static final double SURE_DEVIATIONS = 2;

    /** Strokes go on until the verdict is sure, but not beyond this many. */
    static final int MOST_STROKES = 7;

    /** Outcome after which another stroke helps. */
    static final String UNSURE = "unsure";

    /** Times the strokes of an actuator that was driven from end to end. */
    public static final Study STROKES =
            Study.of(List.of("right", "wrong", UNSURE, "not-judged"), ActuatorRun::timed);

    /** Looks for play and friction in an actuator that was led up and down in steps. */
    public static final Study STEPS =
            Study.of(List.of("right", "wrong", "not-judged"), ActuatorRun::stepped);

    private ActuatorRun() {}

    private static Study.Verdict stepped(Study.Material m) {
        Actuator a = m.description().actuator(m.about()).orElseThrow();
        UpAndDown.Verdict v = UpAndDown.judge(a, samples(m.take(), a));
        return new Study.Verdict(
                !v.judged() ? "not-judged" : v.passed() ? "right" : "wrong",
                v.judged() ? Optional.of(v.passed()) : Optional.empty(),
                v.sentence(),
                v.reasons(),
                Optional.empty());
    }

    private static Study.Verdict timed(Study.Material m) {
        Actuator a = m.description().actuator(m.about()).orElseThrow();
        List<Sample> samples = samples(m.take(), a);
        Take.Column supply = m.take().columns().get(m.description().live().supply());
        double volts = supply == null || supply.size() == 0 ? Double.NaN : supply.value(0);
        Verdict v = judge(a, samples, volts);
        if (!v.sure() && strokes(a, samples).size() < MOST_STROKES) {
            return new Study.Verdict(UNSURE, Optional.empty(), "", v.reasons(), Optional.empty());
        }
        List<String> reasons = new ArrayList<>(v.reasons());
        if (v.judged()) {
            earlier(m.earlier(), a, v.moveSeconds(), v.deviation()).ifPresent(reasons::add);
        }
        String figures =
                Double.isFinite(v.moveSeconds())
                        ? text(" %.2f s, right is up to %.2f s.", v.moveSeconds(), a.moveSeconds())
                        : "";
        return new Study.Verdict(
                !v.judged() ? "not-judged" : v.passed() ? "right" : "wrong",
                v.judged() ? Optional.of(v.passed()) : Optional.empty(),
                v.sentence() + figures,
                reasons,
                !v.judged() || Double.isNaN(volts)
                        ? Optional.empty()
                        : Optional.of(
                                new Evidence.Run(
                                        a.id(),
                                        List.of(a.id()),
                                        Double.isFinite(v.moveSeconds()) ? v.moveSeconds() : -1,
                                        v.deviation(),
                                        volts,
                                        v.passed())));
    }

    /**
     * The same actuator of the same vehicle, now and before; a difference counts from two standard
     * deviations of both on.
     *
     * @param seconds that it took now, infinite when it never came to its end
     */
    static Optional<String> earlier(
            List<Study.Earlier> all, Actuator a, double seconds, double deviation) {
        List<Study.Earlier> its =
                all.stream().filter(e -> e.run().actuatorId().equals(a.id())).toList();
        if (its.isEmpty()) {
            return Optional.empty();
        }
        Study.Earlier last = its.get(its.size() - 1);
        double then = last.run().moveSeconds();
        boolean endedThen = then >= 0;
        String before =
                endedThen
                        ? text("On its run of %s it took %.2f s", last.day(), then)
                        : "On its run of " + last.day() + " it did not come to its end";
        if (!endedThen || !Double.isFinite(seconds)) {
            return Optional.of(before + ".");
        }
        double change = seconds - then;
        double sure = SURE_DEVIATIONS * Math.hypot(deviation, last.run().deviation());
        String now =
                Math.abs(change) <= sure
                        ? ", no different from now."
                        : text(
                                "; now it is %.2f s %s.",
                                Math.abs(change), change > 0 ? "slower" : "faster");
        Evidence.Run first = its.get(0).run();
        return Optional.of(
                before
                        + now
                        + (its.size() == 1 || first.moveSeconds() < 0
                                ? ""
                                : text(
                                        " The first of %d, on %s, took %.2f s.",
                                        its.size(), its.get(0).day(), first.moveSeconds())));
    }

    /** Command and feedback as a run kept them; readings of which only one came are left out. */
    public static List<Sample> samples(Take take, Actuator a) {
        Take.Column command = take.columns().get(a.command());
        Take.Column feedback = take.columns().get(a.feedback());
        Take.Column slack = take.columns().get(Study.SLACK);
        List<Sample> samples = new ArrayList<>();
        if (command == null || feedback == null || slack == null) {
            return samples;
        }
        int f = 0;
        int s = 0;
        for (int c = 0; c < command.size(); c++) {
            double t = command.seconds(c);
            while (f < feedback.size() && feedback.seconds(f) < t) {
                f++;
            }
            while (s < slack.size() && slack.seconds(s) < t) {
                s++;
            }
            if (f < feedback.size()
                    && s < slack.size()
                    && feedback.seconds(f) == t
                    && slack.seconds(s) == t) {
                samples.add(new Sample(t, slack.value(s), command.value(c), feedback.value(f)));
            }
        }
        return samples;
    }

    /**
     * @param seconds since the start of the run, middle of request and answer
     * @param slack half the time between request and answer, in seconds: the reading was taken
     *     somewhere in between
     * @param command and feedback in percent of travel
     */
    public record Sample(double seconds, double slack, double command, double feedback) {}

    /**
     * @param judged false when too little was read to say anything; see the sentence
     * @param sure whether more strokes would hardly change the verdict
     * @param moveSeconds from 10 to 90 percent of the step; infinite when it never got there
     * @param deviation standard deviation of {@code moveSeconds} from the times of the readings
     *     alone, in seconds
     * @param endError feedback minus command at the end, percent
     * @param supplyVolts mean during the run
     */
    public record Verdict(
            boolean passed,
            boolean judged,
            boolean sure,
            double moveSeconds,
            double deviation,
            double endError,
            double supplyVolts,
            String sentence,
            List<String> reasons) {
        private static Verdict none(double supplyVolts, String sentence, String reason) {
            return new Verdict(
                    false,
                    false,
                    false,
                    Double.NaN,
                    Double.NaN,
                    Double.NaN,
                    supplyVolts,
                    sentence,
                    List.of(reason));
        }
    }

    /** A moment known to within a standard deviation, both in seconds. */
    private record Timed(double seconds, double deviation) {
        private static final Timed NEVER = new Timed(Double.POSITIVE_INFINITY, 0);

        Timed since(Timed earlier) {
            return Double.isFinite(seconds) && Double.isFinite(earlier.seconds)
                    ? new Timed(seconds - earlier.seconds, Math.hypot(deviation, earlier.deviation))
                    : NEVER;
        }
    }

    /**
     * Judges a run of one or more strokes from low to high. The travel time is the median of the
     * strokes that were read closely enough to be timed, so that an answer that came late neither
     * decides nor counts.
     */
    public static Verdict judge(Actuator actuator, List<Sample> samples, double supplyVolts) {
        double span = actuator.high() - actuator.low();
        List<Timed> all = new ArrayList<>();
        for (int[] stroke : strokes(actuator, samples)) {
            Timed t10 = crossing(samples, stroke, actuator.low() + FROM_SHARE * span);
            Timed t90 = crossing(samples, stroke, actuator.low() + TO_SHARE * span);
            all.add(t90.since(t10));
        }
        if (all.isEmpty()) {
            return Verdict.none(
                    supplyVolts,
                    "The run was too short to judge.",
                    "Fewer than three readings after the command.");
        }
        List<Timed> times =
                all.stream()
                        .filter(t -> t.deviation() <= MOST_DOUBT_SECONDS)
                        .sorted(Comparator.comparingDouble(Timed::seconds))
                        .toList();
        if (times.isEmpty()) {
            return Verdict.none(
                    supplyVolts,
                    actuator.name() + " was read too thinly to be timed. Drive it again.",
                    text(
                            "The answers came so late that the travel time of each of %d stroke(s) is"
                                    + " unsure by more than %.2f s.",
                            all.size(), MOST_DOUBT_SECONDS));
        }
        double seconds = times.get(times.size() / 2).seconds();
        // a median of n is unsure by 1.25 times what a mean of n would be (large n, normal)
        double deviation =
                1.25
                        * Math.sqrt(
                                times.stream()
                                        .mapToDouble(t -> t.deviation() * t.deviation())
                                        .sum())
                        / times.size();
        boolean sure =
                times.size() >= LEAST_STROKES
                        && Math.abs(seconds - actuator.moveSeconds())
                                >= SURE_DEVIATIONS * deviation;
        Sample last = samples.get(samples.size() - 1);
        double endError = last.feedback() - last.command();
        List<String> reasons = new ArrayList<>();
        boolean fast = seconds <= actuator.moveSeconds();
        boolean exact = Math.abs(endError) <= actuator.endError();
        reasons.add(
                Double.isFinite(seconds)
                        ? text(
                                "Travel took %.2f s, give or take %.2f; up to %.2f s is right.",
                                seconds, deviation, actuator.moveSeconds())
                        : text(
                                "It never reached %.0f %%; it stood at %.0f %%.",
                                actuator.high(), last.feedback()));
        reasons.add(
                text(
                        "At rest it was %+.1f %% off; up to %.0f %% is right.",
                        endError, actuator.endError()));
        reasons.add(
                text(
                        "Middle one of %d stroke(s), %s s, at %.2f V supply.",
                        times.size(),
                        times.stream()
                                .map(t -> text("%.2f", t.seconds()))
                                .collect(Collectors.joining(", ")),
                        supplyVolts));
        strokes(actuator, samples).stream()
                .skip(1)
                .findFirst()
                .ifPresent(stroke -> reasons.add(shape(actuator, samples, stroke)));
        if (times.size() < all.size()) {
            reasons.add(
                    text(
                            "%d stroke(s) not counted: the answers came too late to time them.",
                            all.size() - times.size()));
        }
        String sentence =
                fast && exact
                        ? actuator.name() + " does what it is told."
                        : !Double.isFinite(seconds)
                                ? actuator.name() + " does not get where it is told to go."
                                : !fast
                                        ? actuator.name() + " is slow."
                                        : actuator.name() + " stops off its mark.";
        return new Verdict(
                fast && exact,
                true,
                sure,
                seconds,
                deviation,
                endError,
                supplyVolts,
                sentence,
                reasons);
    }

    private static String text(String format, Object... figures) {
        return Words.counted(String.format(Locale.ROOT, format, figures));
    }

    /** When a stroke began to move, and by how much it shot over. */
    private static String shape(Actuator a, List<Sample> samples, int[] stroke) {
        double began =
                crossing(samples, stroke, a.low() + FROM_SHARE * (a.high() - a.low())).seconds();
        double most = Double.NEGATIVE_INFINITY;
        for (int i = stroke[0]; i <= stroke[1]; i++) {
            most = Math.max(most, samples.get(i).feedback());
        }
        double over = Math.max(0, most - samples.get(stroke[1]).command());
        return Double.isFinite(began)
                ? text(
                        "It began to move %.2f s after the command and shot over by %.1f %%.",
                        Math.max(0, began - samples.get(stroke[0]).seconds()), over)
                : "It did not begin to move.";
    }

    /**
     * First and last index of each stretch in which the command stands at high, short ones left
     * out.
     */
    private static List<int[]> strokes(Actuator actuator, List<Sample> samples) {
        List<int[]> strokes = new ArrayList<>();
        int start = -1;
        for (int i = 0; i <= samples.size(); i++) {
            boolean high = i < samples.size() && samples.get(i).command() >= actuator.high() - 0.6;
            if (high && start < 0) {
                start = i;
            } else if (!high && start >= 0) {
                if (i - start >= 3) {
                    strokes.add(new int[] {start, i - 1});
                }
                start = -1;
            }
        }
        return strokes;
    }

    /**
     * When the feedback rose through a level, by the line between the readings on either side.
     * Within their gap it may have risen anywhere (a flat distribution: gap/√12), and each reading
     * was taken anywhere within its slack (slack/√3).
     */
    private static Timed crossing(List<Sample> samples, int[] stroke, double level) {
        for (int i = Math.max(1, stroke[0]); i <= stroke[1]; i++) {
            Sample a = samples.get(i - 1);
            Sample b = samples.get(i);
            if (a.feedback() < level && b.feedback() >= level) {
                double gap = b.seconds() - a.seconds();
                double share = (level - a.feedback()) / (b.feedback() - a.feedback());
                return new Timed(
                        a.seconds() + share * gap,
                        Math.hypot(
                                gap / Math.sqrt(12),
                                Math.max(a.slack(), b.slack()) / Math.sqrt(3)));
            }
        }
        return Timed.NEVER;
    }
}
