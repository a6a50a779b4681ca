package brightlantern.core.capture;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * A plan as somebody sets the instrument otherwise. What was left empty stays as the plan has it.
 */
public final class CaptureSettings {
    private static final double SHORTEST = 5e-8;
    private static final double SLOWEST = 1;
    private static final int MOST_POINTS = 4_000_000;
    private static final double MILLION = 1e6;

    private final CapturePlan plan;
    private final Map<String, String> said;

    private CaptureSettings(CapturePlan plan, Map<String, String> said) {
        this.plan = plan;
        this.said = said;
    }

    /**
     * @param said {@code every} µs from sample to sample, {@code seconds}, {@code before} in
     *     percent, {@code range-N}, {@code per-volt-N} and {@code zero-N} of a lane, {@code when}
     *     (a {@link CapturePlan.When}, or {@code at-once}), {@code lane}, {@code level}, {@code
     *     held} in ms, {@code coupling} ({@code ac} or {@code dc}), {@code filter} in Hz
     * @throws IllegalArgumentException names what was said and what was expected
     */
    public static CapturePlan applied(CapturePlan plan, Map<String, String> said) {
        return new CaptureSettings(plan, said).applied();
    }

    private CapturePlan applied() {
        double interval =
                number(
                                "every",
                                "From sample to sample",
                                MILLION * plan.interval(),
                                0.05,
                                MILLION * SLOWEST)
                        / MILLION;
        double seconds =
                number(
                        "seconds",
                        "Length",
                        plan.seconds(),
                        10 * Math.max(interval, SHORTEST),
                        3600);
        if (seconds / interval > MOST_POINTS) {
            throw new IllegalArgumentException(
                    String.format(
                            Locale.ROOT,
                            "%.4g s with a sample every %.4g µs are %.0f samples; expected %d or fewer.",
                            seconds,
                            MILLION * interval,
                            seconds / interval,
                            MOST_POINTS));
        }
        double before = number("before", "Before the start", 100 * plan.before(), 0, 95) / 100;
        List<CapturePlan.Probe> lanes = new ArrayList<>();
        for (int i = 0; i < plan.lanes().size(); i++) {
            CapturePlan.Probe p = plan.lanes().get(i);
            double range =
                    number("range-" + (i + 1), "Range of lane " + (i + 1), p.range(), 1e-3, 1e6);
            lanes.add(
                    new CapturePlan.Probe(
                            p.role(), p.name(), p.place(), p.told(), range, output(i + 1, p)));
        }
        boolean alternating =
                said.getOrDefault("coupling", "").isBlank()
                        ? plan.input().alternating()
                        : said.get("coupling").equals("ac");
        double filter = number("filter", "Filter", plan.input().filter(), 0, 0.5 / interval);
        return new CapturePlan(
                plan.id(),
                plan.name(),
                plan.why(),
                plan.how(),
                lanes,
                interval,
                seconds,
                before,
                trigger(),
                plan.follows(),
                new CapturePlan.Input(alternating, filter));
    }

    private ProbeOutput output(int lane, CapturePlan.Probe as) {
        return new ProbeOutput(
                number(
                        "per-volt-" + lane,
                        "One volt of lane " + lane,
                        as.output().perVolt(),
                        1e-6,
                        1e6),
                number(
                        "zero-" + lane,
                        "Volts at zero of lane " + lane,
                        as.output().zero(),
                        -100,
                        100));
    }

    private Optional<CapturePlan.Trigger> trigger() {
        String word = said.getOrDefault("when", "");
        if (word.isBlank()) {
            return plan.trigger();
        }
        if (word.equals("at-once")) {
            return Optional.empty();
        }
        CapturePlan.When when = CapturePlan.When.valueOf(word);
        Optional<CapturePlan.Trigger> as = plan.trigger();
        int lane =
                (int)
                        number(
                                "lane",
                                "Lane that starts it",
                                as.map(CapturePlan.Trigger::lane).orElse(1),
                                1,
                                plan.lanes().size());
        double level =
                number(
                        "level",
                        "Level",
                        as.map(CapturePlan.Trigger::level).orElse(Double.NaN),
                        -1e6,
                        1e6);
        double held =
                when.isTimed() ? number("held", "Time in ms", Double.NaN, 1e-4, 1e7) / 1000 : 0;
        return Optional.of(new CapturePlan.Trigger(lane, level, when, held));
    }

    /**
     * @param otherwise what it is where nothing was said; NaN where something must be
     */
    private double number(String key, String name, double otherwise, double least, double most) {
        String text = said.getOrDefault(key, "").strip().replace(',', '.');
        if (text.isEmpty() && !Double.isNaN(otherwise)) {
            return otherwise;
        }
        double value = Double.NaN;
        try {
            value = Double.parseDouble(text);
        } catch (NumberFormatException none) {
            // told below
        }
        if (!(value >= least && value <= most)) {
            throw new IllegalArgumentException(
                    String.format(
                            Locale.ROOT,
                            "%s '%s': expected a number from %s to %s.",
                            name,
                            text,
                            plain(least),
                            plain(most)));
        }
        return value;
    }

    /** A number without zeros that say nothing. */
    public static String plain(double number) {
        return new BigDecimal(String.format(Locale.ROOT, "%.6g", number))
                .stripTrailingZeros()
                .toPlainString();
    }
}
