package brightlantern.core.procedure.actuator;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.procedure.actuator.ActuatorRun.Sample;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * An actuator led up and down in even steps. Where it comes to rest on the way up and on the way
 * down, at the same command, differs by its hysteresis (play and friction together); a step that
 * does not move it shows stiction.
 */
public final class UpAndDown {
    /** The last share of each step in which it is taken to be at rest. */
    private static final double REST_SHARE = 0.4;

    /** Moved by less than this share of the step, it did not follow. */
    private static final double FOLLOWED_SHARE = 0.3;

    /** Commands nearer than this are the same, percent. */
    static final double SAME_PERCENT = 0.8;

    private static final int LEAST_LEVELS = 5;

    private UpAndDown() {}

    /**
     * @param hysteresis mean difference of up and down at the same command, percent of travel
     * @param held most steps in a row that did not move it
     * @param stiction change of the command that it took to move it then, percent; 0 when every
     *     step did
     */
    public record Verdict(
            boolean judged,
            boolean passed,
            double hysteresis,
            int held,
            double stiction,
            String sentence,
            List<String> reasons) {}

    /** Where it came to rest at one command. */
    private record Level(double command, double rest) {}

    /** Judges a way up and down in steps; positions and commands in percent of travel. */
    public static Verdict judge(Actuator actuator, List<Sample> samples) {
        List<Level> levels = levels(samples);
        int top = 0;
        for (int i = 0; i < levels.size(); i++) {
            top = levels.get(i).command > levels.get(top).command + SAME_PERCENT ? i : top;
        }
        List<Level> up = levels.subList(0, Math.min(levels.size(), top + 1));
        List<Level> down = levels.subList(Math.min(levels.size(), top), levels.size());
        if (up.size() < LEAST_LEVELS || down.size() < LEAST_LEVELS) {
            return new Verdict(
                    false,
                    false,
                    Double.NaN,
                    0,
                    Double.NaN,
                    actuator.name() + " was not led up and down far enough to be judged.",
                    List.of(
                            "%d level(s) up and %d down were read, %d of each are needed."
                                    .formatted(up.size(), down.size(), LEAST_LEVELS)));
        }
        double sum = 0;
        int n = 0;
        double widest = 0;
        double at = Double.NaN;
        for (Level u : up) {
            for (Level w : down) {
                if (u != w && Math.abs(u.command - w.command) < SAME_PERCENT) {
                    double apart = Math.abs(w.rest - u.rest);
                    sum += apart;
                    n++;
                    if (apart > widest) {
                        widest = apart;
                        at = u.command;
                    }
                }
            }
        }
        double hysteresis = n == 0 ? Double.NaN : sum / n;
        // the first step back only takes up the play
        int held = Math.max(held(up), held(down.subList(1, down.size())));
        double step = (levels.get(top).command - levels.get(0).command) / (up.size() - 1);
        double stiction = held == 0 ? 0 : (held + 1) * step;
        // it may stand off its mark to either side
        boolean even = hysteresis <= 2 * actuator.endError();
        boolean passed = even && held == 0;
        List<String> reasons = new ArrayList<>();
        reasons.add(
                text(
                        "Up and down it stood %.1f %% apart on the mean of %d commands; up to %.0f %% is right.",
                        hysteresis, n, 2 * actuator.endError()));
        if (widest > 0) {
            reasons.add(text("Widest at %.0f %%: %.1f %% apart.", at, widest));
        }
        reasons.add(
                held == 0
                        ? text("Every step of %.0f %% moved it.", step)
                        : text(
                                "%d step(s) of %.0f %% in a row did not move it; it took %.0f %%.",
                                held, step, stiction));
        String sentence =
                passed
                        ? actuator.name() + " moves evenly, up and down."
                        : held > 0
                                ? actuator.name() + " sticks."
                                : actuator.name() + " has play or friction.";
        return new Verdict(true, passed, hysteresis, held, stiction, sentence, reasons);
    }

    private static List<Level> levels(List<Sample> samples) {
        List<Level> levels = new ArrayList<>();
        int from = 0;
        for (int i = 1; i <= samples.size(); i++) {
            boolean ends =
                    i == samples.size()
                            || Math.abs(samples.get(i).command() - samples.get(from).command())
                                    > SAME_PERCENT;
            if (ends) {
                int rest = (int) Math.floor(from + (1 - REST_SHARE) * (i - from));
                // a glimpse of the command on its way is no level
                if (i - from >= 3) {
                    levels.add(
                            new Level(
                                    samples.get(from).command(),
                                    samples.subList(rest, i).stream()
                                            .mapToDouble(Sample::feedback)
                                            .average()
                                            .orElse(Double.NaN)));
                }
                from = i;
            }
        }
        return levels;
    }

    private static int held(List<Level> levels) {
        int most = 0;
        int run = 0;
        for (int i = 1; i < levels.size(); i++) {
            double asked = levels.get(i).command - levels.get(i - 1).command;
            double moved = levels.get(i).rest - levels.get(i - 1).rest;
            run = moved / asked < FOLLOWED_SHARE ? run + 1 : 0;
            most = Math.max(most, run);
        }
        return most;
    }

    private static String text(String format, Object... figures) {
        return Words.counted(String.format(Locale.ROOT, format, figures));
    }
}
