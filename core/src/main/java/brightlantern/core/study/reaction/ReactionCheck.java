package brightlantern.core.study.reaction;

import brightlantern.core.signal.Words;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * Whether a value moves when another is commanded: after each step of the command, how long until
 * it moved, which way, and how far. A step counts once the command changed by a share of all that
 * it did, within a moment, from rest to rest: what a control loop does, which wanders all the time,
 * is no step. Movement counts beyond the noise before the step.
 */
public final class ReactionCheck {
    /** A change of the command by this share of its whole range is a step. */
    private static final double STEP_SHARE = 0.15;

    /** Within this time, s. */
    private static final double STEP_SECONDS = 1.5;

    /** So long it stands still before, and after, s; by this share of the step it may stray. */
    private static final double REST_SECONDS = 1.5;

    private static final double REST_SHARE = 0.2;

    /** What happens later than this after a step is not laid to it, s. */
    private static final double WINDOW_SECONDS = 8;

    /** So many standard deviations of the noise before the step are a movement. */
    private static final double NOISES = 5;

    private ReactionCheck() {}

    /**
     * @param at second of the take at which the command stepped
     * @param delay s until it moved; NaN when it did not
     * @param command and answer: by how much each changed
     */
    public record Step(double at, double command, double delay, double answer) {
        /** Whether it moved with the command. */
        public boolean reacted() {
            return !Double.isNaN(delay);
        }
    }

    /**
     * @param outcome reacts, none, unsteady (it reacts to some), or no-step
     * @param gain answer for each unit of the command, mean of those that reacted
     */
    public record Verdict(
            String outcome, String sentence, double delay, double gain, List<Step> steps) {}

    /** The same of values without units. */
    public static Verdict check(Take take, String command, String answer) {
        return check(take, command, answer, "", "");
    }

    /**
     * Judges how one value answers another one's steps.
     *
     * @param commandUnit and answerUnit: in which both stand in the take; empty for none
     * @throws IllegalArgumentException names the value that the take does not hold
     */
    public static Verdict check(
            Take take, String command, String answer, String commandUnit, String answerUnit) {
        for (String id : List.of(command, answer)) {
            if (!take.columns().containsKey(id)) {
                throw new IllegalArgumentException(
                        "This take does not hold '"
                                + id
                                + "'; add it to the watch list and record again");
            }
        }
        Take.Column c = take.columns().get(command);
        Take.Column a = take.columns().get(answer);
        List<Step> steps = new ArrayList<>();
        double[] range = range(c);
        double least = STEP_SHARE * (range[1] - range[0]);
        if (least > 0) {
            double blockedUntil = Double.NEGATIVE_INFINITY;
            for (int i = 0; i < c.size(); i++) {
                double t = c.seconds(i);
                if (t < blockedUntil) {
                    continue;
                }
                double before = take.at(command, t - STEP_SECONDS);
                double after = take.at(command, t + 0.3);
                if (Double.isNaN(before) || !(Math.abs(c.value(i) - before) >= least)) {
                    continue;
                }
                double start = started(c, i, before, least);
                double stray = REST_SHARE * Math.abs(after - before);
                if (!rests(c, i, start - STEP_SECONDS, start, before, stray)
                        || !rests(c, i, t + 0.3, t + 0.3 + REST_SECONDS, after, stray)) {
                    continue;
                }
                steps.add(answered(a, start, after - before));
                blockedUntil = start + WINDOW_SECONDS / 2;
            }
        }
        return verdict(steps, commandUnit, answerUnit);
    }

    /** Whether the samples between two times, near sample {@code near}, stay at a level. */
    private static boolean rests(
            Take.Column c, int near, double from, double to, double at, double stray) {
        int i = near;
        while (i > 0 && c.seconds(i - 1) >= from) {
            i--;
        }
        for (; i < c.size() && c.seconds(i) < to; i++) {
            if (c.seconds(i) >= from && !(Math.abs(c.value(i) - at) <= stray)) {
                return false;
            }
        }
        return true;
    }

    /** When the command left its old place. */
    private static double started(Take.Column c, int i, double before, double least) {
        int at = i;
        while (at > 0
                && c.seconds(i) - c.seconds(at - 1) < STEP_SECONDS
                && Math.abs(c.value(at - 1) - before) > least / 3) {
            at--;
        }
        return c.seconds(at);
    }

    private static Step answered(Take.Column a, double start, double command) {
        double sum = 0;
        double squares = 0;
        int n = 0;
        for (int i = 0; i < a.size() && a.seconds(i) <= start; i++) {
            if (a.seconds(i) > start - 3 && Double.isFinite(a.value(i))) {
                sum += a.value(i);
                squares += a.value(i) * a.value(i);
                n++;
            }
        }
        if (n < 3) {
            return new Step(start, command, Double.NaN, 0);
        }
        double rest = sum / n;
        double noise = Math.sqrt(Math.max(0, squares / n - rest * rest));
        double threshold = Math.max(NOISES * noise, 1e-6 * (1 + Math.abs(rest)));
        double delay = Double.NaN;
        double most = 0;
        int in = 0;
        for (int i = 0; i < a.size(); i++) {
            double t = a.seconds(i);
            if (t <= start || t > start + WINDOW_SECONDS || !Double.isFinite(a.value(i))) {
                continue;
            }
            double moved = a.value(i) - rest;
            in = Math.abs(moved) > threshold ? in + 1 : 0;
            // a second reading beyond the noise confirms the first
            if (in == 2 && Double.isNaN(delay)) {
                delay = a.seconds(i - 1) - start;
            }
            if (Math.abs(moved) > Math.abs(most)) {
                most = moved;
            }
        }
        return new Step(start, command, delay, Double.isNaN(delay) ? 0 : most);
    }

    private static Verdict verdict(List<Step> steps, String commandUnit, String answerUnit) {
        if (steps.isEmpty()) {
            return new Verdict(
                    "no-step",
                    "The command never stepped; change it at once and hold it for some seconds.",
                    Double.NaN,
                    Double.NaN,
                    steps);
        }
        List<Step> reacted = steps.stream().filter(Step::reacted).toList();
        if (reacted.isEmpty()) {
            return new Verdict(
                    "none",
                    text("It did not move after any of %d step(s).", steps.size()),
                    Double.NaN,
                    0,
                    steps);
        }
        double[] delays = reacted.stream().mapToDouble(Step::delay).sorted().toArray();
        double delay = delays[delays.length / 2];
        double gain =
                reacted.stream().mapToDouble(s -> s.answer() / s.command()).average().orElse(0);
        boolean oneWay =
                reacted.stream().allMatch(s -> s.answer() * s.command() > 0)
                        || reacted.stream().allMatch(s -> s.answer() * s.command() < 0);
        boolean all = reacted.size() == steps.size();
        return new Verdict(
                all && oneWay ? "reacts" : "unsteady",
                text(
                        "It moved after %d of %d step(s), %.2f s behind, %s, by %.3g%s for each %s of the command.",
                        reacted.size(),
                        steps.size(),
                        delay,
                        !oneWay
                                ? "now one way, now the other"
                                : gain > 0 ? "the same way" : "the other way",
                        Math.abs(gain),
                        answerUnit.isEmpty() ? "" : " " + answerUnit,
                        commandUnit.isEmpty() ? "unit" : commandUnit),
                delay,
                gain,
                steps);
    }

    private static double[] range(Take.Column c) {
        double[] values = new double[c.size()];
        int n = 0;
        for (int i = 0; i < c.size(); i++) {
            if (Double.isFinite(c.value(i))) {
                values[n++] = c.value(i);
            }
        }
        double[] found = Arrays.copyOf(values, n);
        return n == 0
                ? new double[] {0, 0}
                : new double[] {
                    Arrays.stream(found).min().getAsDouble(),
                    Arrays.stream(found).max().getAsDouble()
                };
    }

    private static String text(String format, Object... args) {
        return Words.counted(String.format(Locale.ROOT, format, args));
    }
}
