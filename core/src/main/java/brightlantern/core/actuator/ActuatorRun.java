package brightlantern.core.actuator;

import brightlantern.core.vehicle.VehicleDescription.Actuator;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** One run of an actuator from its low to its high position, and the judgement of it. */
public final class ActuatorRun {
    /**
     * Travel counts between these shares of the commanded step, so that dead time and the last
     * creep do not blur it.
     */
    public static final double FROM_SHARE = 0.1;

    public static final double TO_SHARE = 0.9;

    private ActuatorRun() {}

    /**
     * @param seconds since the start of the run
     * @param command and feedback in percent of travel
     */
    public record Sample(double seconds, double command, double feedback) {}

    /**
     * @param moveSeconds from 10 to 90 percent of the step; infinite when it never got there
     * @param endError feedback minus command at the end, percent
     * @param supplyVolts mean during the run
     */
    public record Verdict(
            boolean passed,
            boolean judged,
            double moveSeconds,
            double endError,
            double supplyVolts,
            String sentence,
            List<String> reasons) {}

    /**
     * Judges a run of one or more strokes from low to high; the travel time is the median of the
     * strokes, so that one reading that came late does not decide.
     */
    public static Verdict judge(Actuator actuator, List<Sample> samples, double supplyVolts) {
        double span = actuator.high() - actuator.low();
        List<Double> times = new ArrayList<>();
        for (int[] stroke : strokes(actuator, samples)) {
            double t10 = crossing(samples, stroke, actuator.low() + FROM_SHARE * span);
            double t90 = crossing(samples, stroke, actuator.low() + TO_SHARE * span);
            times.add(
                    Double.isFinite(t90) && Double.isFinite(t10)
                            ? t90 - t10
                            : Double.POSITIVE_INFINITY);
        }
        if (times.isEmpty()) {
            return new Verdict(
                    false,
                    false,
                    Double.NaN,
                    Double.NaN,
                    supplyVolts,
                    "The run was too short to judge.",
                    List.of("Fewer than three readings after the command."));
        }
        times.sort(null);
        double seconds = times.get(times.size() / 2);
        Sample last = samples.get(samples.size() - 1);
        double endError = last.feedback() - last.command();
        List<String> reasons = new ArrayList<>();
        boolean fast = seconds <= actuator.moveSeconds();
        boolean exact = Math.abs(endError) <= actuator.endError();
        reasons.add(
                Double.isFinite(seconds)
                        ? text(
                                "Travel took %.2f s; up to %.2f s is right.",
                                seconds, actuator.moveSeconds())
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
                        times.stream().map(t -> text("%.2f", t)).collect(Collectors.joining(", ")),
                        supplyVolts));
        String sentence =
                fast && exact
                        ? actuator.name() + " does what it is told."
                        : !Double.isFinite(seconds)
                                ? actuator.name() + " does not get where it is told to go."
                                : !fast
                                        ? actuator.name() + " is slow."
                                        : actuator.name() + " stops off its mark.";
        return new Verdict(fast && exact, true, seconds, endError, supplyVolts, sentence, reasons);
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
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

    private static double crossing(List<Sample> samples, int[] stroke, double level) {
        for (int i = Math.max(1, stroke[0]); i <= stroke[1]; i++) {
            Sample a = samples.get(i - 1);
            Sample b = samples.get(i);
            if (a.feedback() < level && b.feedback() >= level) {
                double share = (level - a.feedback()) / (b.feedback() - a.feedback());
                return a.seconds() + share * (b.seconds() - a.seconds());
            }
        }
        return Double.NaN;
    }
}
