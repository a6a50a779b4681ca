package brightlantern.core.cylinder;

import brightlantern.core.take.Stay;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.hipparchus.stat.descriptive.rank.Median;

/**
 * What the engine loses when its cylinders are switched off one after another: a cylinder that
 * gives nothing is not missed. Each is compared with the median of all, against the scatter of a
 * healthy engine and that of the rounds themselves.
 */
public final class CutOut {
    /** Steps in which cylinder n is off have this name and its number. */
    public static final String CUT = "cut-";

    private static final double BEFORE_SECONDS = 1;

    /** Speed is averaged over so long a time before its lowest is taken. */
    private static final double WINDOW_SECONDS = 0.5;

    /** A healthy engine scatters by some 0.04 of its median; below this a cylinder is weak. */
    private static final double WEAK_SHARE = 0.75;

    /** Shares between this and the weak one are uneven, and tell no culprit. */
    private static final double EVEN_SHARE = 0.85;

    /** Rounds of one cylinder that differ by more than this share of the median repeat badly. */
    private static final double REPEATS_SHARE = 0.35;

    private CutOut() {}

    /**
     * @param drop mean loss of speed over the rounds, rpm
     * @param spread standard deviation over the rounds, rpm
     * @param share of the median of all
     */
    public record Cylinder(int number, double drop, double spread, double share, int rounds) {}

    public record Verdict(
            String outcome,
            Optional<Boolean> passes,
            String sentence,
            List<String> reasons,
            List<Cylinder> cylinders) {}

    /** All that it may come to, for an engine with so many cylinders. */
    public static List<String> outcomes(int cylinders) {
        List<String> all = new ArrayList<>(List.of("even", "uneven", "cannot-tell"));
        for (int n = 1; n <= cylinders; n++) {
            all.add("weak-" + n);
        }
        return all;
    }

    /**
     * @param speed id of the value that holds engine speed, rpm
     * @param roughness id of the value that tells how much the crank shakes, rpm; empty for none
     */
    public static Verdict judge(Take take, String speed, String roughness, List<Stay> stays) {
        Take.Column column = take.columns().get(speed);
        Optional<Take.Column> shakes = Optional.ofNullable(take.columns().get(roughness));
        if (column == null) {
            return cannot("Engine speed was not recorded.");
        }
        Map<Integer, List<Double>> drops = new LinkedHashMap<>();
        Map<Integer, List<Double>> rough = new LinkedHashMap<>();
        for (Stay stay : stays) {
            if (stay.step().startsWith(CUT)) {
                double before =
                        mean(column, stay.from() - BEFORE_SECONDS, Math.nextDown(stay.from()));
                double least = least(column, stay.from(), stay.to());
                int n = Integer.parseInt(stay.step().substring(CUT.length()));
                if (Double.isFinite(before) && Double.isFinite(least)) {
                    drops.computeIfAbsent(n, k -> new ArrayList<>()).add(before - least);
                    shakes.map(c -> mean(c, stay.from(), stay.to()))
                            .filter(Double::isFinite)
                            .ifPresent(
                                    r -> rough.computeIfAbsent(n, k -> new ArrayList<>()).add(r));
                }
            }
        }
        if (drops.size() < 2) {
            return cannot("Fewer than two cylinders were switched off.");
        }
        double[] means = drops.values().stream().mapToDouble(d -> Stats.mean(d)).toArray();
        double median = new Median().evaluate(means);
        if (median < 2) {
            return cannot(
                    String.format(
                            Locale.ROOT,
                            "The engine loses only %.1f rpm whichever is off; it was not switched off, or"
                                    + " the speed is held too well.",
                            median));
        }
        List<Cylinder> cylinders =
                drops.entrySet().stream()
                        .map(
                                e ->
                                        new Cylinder(
                                                e.getKey(),
                                                Stats.mean(e.getValue()),
                                                Stats.deviation(e.getValue()),
                                                Stats.mean(e.getValue()) / median,
                                                e.getValue().size()))
                        .toList();
        List<String> reasons = new ArrayList<>();
        cylinders.forEach(c -> reasons.add(told(c, rough.getOrDefault(c.number(), List.of()))));
        Optional<Cylinder> restless =
                cylinders.stream().filter(c -> c.spread() > REPEATS_SHARE * median).findFirst();
        if (restless.isPresent()) {
            return new Verdict(
                    "cannot-tell",
                    Optional.empty(),
                    "The rounds differ too much from each other to judge; let the engine settle.",
                    reasons,
                    cylinders);
        }
        List<Cylinder> weak = cylinders.stream().filter(c -> c.share() < WEAK_SHARE).toList();
        if (weak.size() == 1) {
            int n = weak.get(0).number();
            return new Verdict(
                    "weak-" + n,
                    Optional.of(false),
                    "Cylinder "
                            + n
                            + " is missed least when it is off: it gives less than the others.",
                    reasons,
                    cylinders);
        }
        boolean even = cylinders.stream().allMatch(c -> c.share() > EVEN_SHARE);
        return new Verdict(
                even ? "even" : "uneven",
                Optional.of(even),
                even
                        ? "Every cylinder is missed alike when it is off."
                        : "The cylinders are missed unevenly, but none stands out alone.",
                reasons,
                cylinders);
    }

    private static String told(Cylinder c, List<Double> roughness) {
        return String.format(
                        Locale.ROOT,
                        "Without cylinder %d the engine loses %.1f rpm",
                        c.number(),
                        c.drop())
                + (c.rounds() == 1
                        ? " (one round)"
                        : String.format(
                                Locale.ROOT, " (± %.1f over %d rounds)", c.spread(), c.rounds()))
                + String.format(Locale.ROOT, ", %.0f %% of the middle one", 100 * c.share())
                + (roughness.isEmpty()
                        ? "."
                        : String.format(
                                Locale.ROOT, "; it shakes by %.1f rpm.", Stats.mean(roughness)));
    }

    /** A verdict that nothing can be told, and why. */
    public static Verdict cannot(String why) {
        return new Verdict(
                "cannot-tell", Optional.empty(), "Not judged: " + why, List.of(why), List.of());
    }

    private static double mean(Take.Column column, double from, double to) {
        double sum = 0;
        int n = 0;
        for (int i = Math.max(0, column.indexAt(from)); i < column.size(); i++) {
            if (column.seconds(i) > to) {
                break;
            }
            sum += column.value(i);
            n++;
        }
        return n == 0 ? Double.NaN : sum / n;
    }

    /** The lowest mean over a window within a time. */
    private static double least(Take.Column column, double from, double to) {
        double least = Double.NaN;
        for (double t = from; t + WINDOW_SECONDS <= to + 1e-9; t += WINDOW_SECONDS / 5) {
            double mean = mean(column, t, t + WINDOW_SECONDS);
            least = Double.isNaN(least) ? mean : Math.min(least, mean);
        }
        return least;
    }

    private static final class Stats {
        static double mean(List<Double> values) {
            return values.stream().mapToDouble(v -> v).average().orElse(Double.NaN);
        }

        static double deviation(List<Double> values) {
            double mean = mean(values);
            return values.size() < 2
                    ? 0
                    : Math.sqrt(
                            values.stream().mapToDouble(v -> (v - mean) * (v - mean)).sum()
                                    / (values.size() - 1));
        }
    }
}
