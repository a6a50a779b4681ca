package brightlantern.core.cylinder;

import brightlantern.core.filter.Stretch;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.hipparchus.special.Erf;

/**
 * Which cylinder stands out, by its running speed deviation, against the scatter that a healthy
 * engine has. Only where the figure is sound: within the described conditions and below the engine
 * speed up to which teeth are timed well enough.
 */
public final class CylinderStudy {
    private static final double BRIDGE_SECONDS = 1;

    /** A cylinder that lacks more than so many standard deviations of healthy ones stands out. */
    private static final double STANDS_OUT = 4;

    /**
     * What lacks less than this share of what the weakest lacks may come from that one: the crank
     * that it lets down has its neighbours in firing order begin slower or faster.
     */
    private static final double OF_ITS_OWN = 0.3;

    private CylinderStudy() {}

    /**
     * @param deviation mean over the judged time, rpm
     * @param spread one standard deviation of it within that time, rpm
     * @param misfires that the module counted while the take ran
     */
    public record Row(
            int cylinder,
            String bank,
            double deviation,
            double spread,
            double misfires,
            boolean standsOut) {}

    /**
     * @param outcome even, weak-N, or uneven
     * @param sure 0..1, from how far it stands out
     * @param seconds judged
     * @param leftOut seconds in which the engine turned too fast for the figure
     */
    public record Verdict(
            String outcome,
            String sentence,
            double sure,
            double seconds,
            double leftOut,
            List<Row> rows,
            List<String> reasons) {
        /** Whether no cylinder stands out. */
        public boolean holds() {
            return outcome.equals("even");
        }
    }

    /** The values that a take must hold. */
    public static List<String> needed(Cylinders cylinders) {
        List<String> ids = new ArrayList<>();
        cylinders.order().forEach(n -> ids.add(cylinders.deviationOf(n)));
        cylinders.order().forEach(n -> ids.add(cylinders.misfiresOf(n)));
        ids.add(cylinders.speed());
        cylinders.when().forEach(c -> ids.add(c.value()));
        return ids.stream().distinct().toList();
    }

    /** Empty when the take holds nothing that can be judged; {@link #whyNot} tells why. */
    public static Optional<Verdict> study(Take take, Cylinders cylinders) {
        if (!lacking(take, cylinders).isEmpty()) {
            return Optional.empty();
        }
        List<Stretch> fit = stretches(take, cylinders);
        List<Stretch> sound = sound(take, cylinders, fit);
        double seconds = sound.stream().mapToDouble(Stretch::seconds).sum();
        if (seconds < cylinders.leastSeconds()) {
            return Optional.empty();
        }
        double[] mean = new double[cylinders.order().size()];
        double[] spread = new double[mean.length];
        double[] misfires = new double[mean.length];
        for (int n = 1; n <= mean.length; n++) {
            double[] samples = within(take.columns().get(cylinders.deviationOf(n)), sound);
            if (samples.length == 0) {
                return Optional.empty();
            }
            mean[n - 1] = Arrays.stream(samples).average().orElse(Double.NaN);
            double m = mean[n - 1];
            spread[n - 1] =
                    Math.sqrt(
                            Arrays.stream(samples).map(v -> (v - m) * (v - m)).average().orElse(0));
            misfires[n - 1] = counted(take.columns().get(cylinders.misfiresOf(n)));
        }
        double[] sorted = mean.clone();
        Arrays.sort(sorted);
        double middle = sorted[sorted.length / 2];
        double limit = Math.min(cylinders.weak(), -STANDS_OUT * cylinders.scatter());
        double level = Math.max(0, middle);
        double own = Math.min(limit, OF_ITS_OWN * (sorted[0] - level));
        List<Row> rows = new ArrayList<>();
        for (int n = 1; n <= mean.length; n++) {
            rows.add(
                    new Row(
                            n,
                            cylinders.banks().getOrDefault(n, ""),
                            mean[n - 1],
                            spread[n - 1],
                            misfires[n - 1],
                            mean[n - 1] - level < own));
        }
        return Optional.of(verdict(cylinders, rows, limit, seconds, leftOut(fit, seconds)));
    }

    /** What a counter of the module counted in the take: how often it went up, and by how much. */
    private static double counted(Take.Column counter) {
        double counted = 0;
        double before = Double.NaN;
        for (int i = 0; i < counter.size(); i++) {
            double now = counter.value(i);
            if (now > before) {
                counted += now - before;
            }
            before = Double.isNaN(now) ? before : now;
        }
        return counted;
    }

    private static Verdict verdict(
            Cylinders cylinders, List<Row> rows, double limit, double seconds, double leftOut) {
        List<Row> weak = rows.stream().filter(Row::standsOut).toList();
        Row worst = rows.stream().min(Comparator.comparingDouble(Row::deviation)).orElseThrow();
        String outcome =
                weak.isEmpty()
                        ? "even"
                        : weak.size() == 1 ? "weak-" + weak.get(0).cylinder() : "uneven";
        String sentence =
                switch (weak.size()) {
                    case 0 -> "All cylinders contribute alike.";
                    case 1 ->
                            "Cylinder "
                                    + weak.get(0).cylinder()
                                    + (worst.bank().isEmpty() ? "" : " (" + worst.bank() + ")")
                                    + " contributes less than the others.";
                    default ->
                            "Cylinders "
                                    + String.join(
                                            ", ",
                                            weak.stream()
                                                    .map(r -> String.valueOf(r.cylinder()))
                                                    .toList())
                                    + " contribute less than the others.";
                };
        List<String> reasons = new ArrayList<>();
        reasons.add(
                text(
                        "Lowest: cylinder %d with %+.2f rpm; below %+.2f rpm is not the scatter of a healthy engine (%.2f rpm).",
                        worst.cylinder(), worst.deviation(), limit, cylinders.scatter()));
        rows.stream()
                .filter(r -> r.misfires() > 0)
                .forEach(
                        r ->
                                reasons.add(
                                        text(
                                                "Misfires that the module counted on cylinder %2$d while the take ran: %1$.0f.",
                                                r.misfires(), r.cylinder())));
        reasons.add(text("From %.0f s that meet the conditions.", seconds));
        if (leftOut > 0) {
            reasons.add(
                    text(
                            "%.0f s above %.0f rpm are left out: teeth cannot be timed well enough there.",
                            leftOut, cylinders.soundTo()));
        }
        // how likely a healthy engine stays on this side of the limit
        double away = Math.abs(worst.deviation() - limit) / cylinders.scatter();
        double sure = 0.5 * (1 + Erf.erf(away / Math.sqrt(2)));
        return new Verdict(outcome, sentence, sure, seconds, leftOut, rows, reasons);
    }

    /** Why a take cannot be judged, and what would help. */
    public static String whyNot(Take take, Cylinders cylinders, Signals signals) {
        List<String> lacking = lacking(take, cylinders);
        if (!lacking.isEmpty()) {
            return "Cylinders are not judged: the take does not hold "
                    + signals.value(lacking.get(0)).map(Value::name).orElse(lacking.get(0))
                    + (lacking.size() > 1 ? " and " + (lacking.size() - 1) + " more" : "")
                    + "; add it to the watch list and record again.";
        }
        List<Stretch> fit = stretches(take, cylinders);
        double all = fit.stream().mapToDouble(Stretch::seconds).sum();
        double seconds = sound(take, cylinders, fit).stream().mapToDouble(Stretch::seconds).sum();
        if (all >= cylinders.leastSeconds()) {
            return text(
                    "Cylinders are not judged: the engine turned above %.0f rpm, where the figure says nothing; let it idle for %.0f s.",
                    cylinders.soundTo(), cylinders.leastSeconds());
        }
        return text(
                "Cylinders are not judged: %s held for %.0f s, needs %.0f s.",
                String.join(" and ", cylinders.when().stream().map(c -> c.says()).toList()),
                seconds,
                cylinders.leastSeconds());
    }

    private static List<String> lacking(Take take, Cylinders cylinders) {
        return needed(cylinders).stream()
                .filter(id -> !take.columns().containsKey(id) || take.columns().get(id).size() == 0)
                .toList();
    }

    private static List<Stretch> stretches(Take take, Cylinders cylinders) {
        return Stretch.find(
                take, cylinders.when(), take.columns().get(cylinders.speed()), BRIDGE_SECONDS);
    }

    private static List<Stretch> sound(Take take, Cylinders cylinders, List<Stretch> fit) {
        Take.Column speed = take.columns().get(cylinders.speed());
        List<Stretch> slow =
                Stretch.where(speed, BRIDGE_SECONDS, i -> speed.value(i) <= cylinders.soundTo());
        List<Stretch> both = new ArrayList<>();
        for (Stretch a : fit) {
            for (Stretch b : slow) {
                double from = Math.max(a.from(), b.from());
                double to = Math.min(a.to(), b.to());
                if (from < to) {
                    both.add(new Stretch(from, to));
                }
            }
        }
        return both;
    }

    private static double leftOut(List<Stretch> fit, double seconds) {
        double all = fit.stream().mapToDouble(Stretch::seconds).sum();
        return all - seconds < 1 ? 0 : all - seconds;
    }

    private static double[] within(Take.Column column, List<Stretch> stretches) {
        double[] found = new double[column.size()];
        int n = 0;
        for (int i = 0; i < column.size(); i++) {
            double t = column.seconds(i);
            if (!Double.isNaN(column.value(i))
                    && stretches.stream().anyMatch(s -> t >= s.from() && t <= s.to())) {
                found[n++] = column.value(i);
            }
        }
        return Arrays.copyOf(found, n);
    }

    private static String text(String format, Object... args) {
        return String.format(Locale.ROOT, format, args);
    }
}
