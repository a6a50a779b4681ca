package brightlantern.core.study.trim;

import brightlantern.core.filter.Stretch;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What the mixture control had to add or take away in each regime, short and long term together: a
 * long-term trim that has taken over hides the fault from whoever looks at one of them. Which
 * regimes are off tells where to look.
 */
public final class TrimStudy {
    public static final String NORMAL = "normal";
    public static final String LEAN_IDLE = "lean-idle";
    public static final String LEAN_LOAD = "lean-load";
    public static final String LEAN_ALL = "lean-all";
    public static final String RICH_IDLE = "rich-idle";
    public static final String RICH_ALL = "rich-all";

    /** Interrupted for so long, a regime is still the same one. */
    private static final double BRIDGE_SECONDS = 0.5;

    /** After a change of regime the control needs so long to find its place. */
    private static final double SETTLE_SECONDS = 3;

    /** From this difference on a mixture after filling up is richer, percentage points. */
    private static final double RICHER = 4;

    private TrimStudy() {}

    /**
     * Trims of one regime, means over its time, percent.
     *
     * @param total both together, (1 + S)(1 + L) − 1
     * @param scatter standard deviation of the total
     * @param seconds that were judged
     */
    public record RegimeTrim(
            String id,
            String name,
            double shortTerm,
            double longTerm,
            double total,
            double scatter,
            double seconds) {}

    /**
     * @param outcome normal, lean-idle, lean-load, lean-all, rich-idle or rich-all
     * @param creep of the long-term trim in the first regime; empty when too little was recorded
     */
    public record Verdict(
            String outcome,
            String sentence,
            List<RegimeTrim> regimes,
            Optional<TrimCreep> creep,
            List<String> reasons) {
        public Verdict {
            regimes = List.copyOf(regimes);
            reasons = List.copyOf(reasons);
        }

        /** The total of the first regime, which is idle. */
        public double idle() {
            return regimes.get(0).total();
        }
    }

    /** Both trims together, in percent. */
    public static double total(double shortTerm, double longTerm) {
        return 100 * ((1 + shortTerm / 100) * (1 + longTerm / 100) - 1);
    }

    /**
     * @return empty when a regime was not recorded for long enough; {@link #whyNot} tells which
     */
    public static Optional<Verdict> study(Take take, TrimSet set) {
        List<RegimeTrim> regimes = regimes(take, set);
        return regimes.size() < set.regimes().size()
                ? Optional.empty()
                : Optional.of(verdict(take, set, regimes));
    }

    /** Trims of the regimes that were recorded for long enough, idle first. */
    public static List<RegimeTrim> regimes(Take take, TrimSet set) {
        if (!missing(take, set).isEmpty()) {
            return List.of();
        }
        List<RegimeTrim> regimes = new ArrayList<>();
        for (Regime regime : set.regimes()) {
            Sums sums = new Sums();
            for (Stretch stretch : stretches(take, set, regime)) {
                sums.add(take, set, stretch);
            }
            if (sums.seconds >= set.leastSeconds()) {
                regimes.add(sums.of(regime));
            }
        }
        return regimes;
    }

    private static List<Stretch> stretches(Take take, TrimSet set, Regime regime) {
        return Stretch.find(
                take, regime.when(), take.columns().get(set.shortTerm()), BRIDGE_SECONDS);
    }

    /** Running sums over the stretches of one regime; each reading counts for its time. */
    private static final class Sums {
        private double seconds;
        private double shortTerm;
        private double longTerm;
        private double total;
        private double square;

        void add(Take take, TrimSet set, Stretch stretch) {
            Take.Column clock = take.columns().get(set.shortTerm());
            double before = Double.NaN;
            for (int i = 0; i < clock.size(); i++) {
                double t = clock.seconds(i);
                double s = clock.value(i);
                double l = take.at(set.longTerm(), t);
                if (t < stretch.from() + SETTLE_SECONDS
                        || t > stretch.to()
                        || Double.isNaN(s)
                        || Double.isNaN(l)) {
                    continue;
                }
                double step = Double.isNaN(before) ? 0 : t - before;
                before = t;
                double both = TrimStudy.total(s, l);
                seconds += step;
                shortTerm += step * s;
                longTerm += step * l;
                total += step * both;
                square += step * both * both;
            }
        }

        RegimeTrim of(Regime regime) {
            double mean = total / seconds;
            return new RegimeTrim(
                    regime.id(),
                    regime.name(),
                    shortTerm / seconds,
                    longTerm / seconds,
                    mean,
                    Math.sqrt(Math.max(0, square / seconds - mean * mean)),
                    seconds);
        }
    }

    private static Verdict verdict(Take take, TrimSet set, List<RegimeTrim> regimes) {
        RegimeTrim idle = regimes.get(0);
        boolean leanIdle = idle.total() > set.lean();
        boolean richIdle = idle.total() < set.rich();
        List<RegimeTrim> others = regimes.subList(1, regimes.size());
        boolean leanLoad = others.stream().anyMatch(r -> r.total() > set.lean());
        boolean richLoad = others.stream().anyMatch(r -> r.total() < set.rich());
        String outcome =
                leanIdle && leanLoad
                        ? LEAN_ALL
                        : leanIdle
                                ? LEAN_IDLE
                                : leanLoad
                                        ? LEAN_LOAD
                                        : richLoad ? RICH_ALL : richIdle ? RICH_IDLE : NORMAL;
        List<String> reasons = new ArrayList<>();
        for (RegimeTrim r : regimes) {
            reasons.add(
                    text(
                            "%s: %+.1f %% together (short %+.1f, long %+.1f), from %.0f s; %+.0f to %+.0f %% is right.",
                            r.name(),
                            r.total(),
                            r.shortTerm(),
                            r.longTerm(),
                            r.seconds(),
                            set.rich(),
                            set.lean()));
        }
        Optional<TrimCreep> creep = creep(take, set);
        creep.ifPresent(c -> reasons.add(creepText(c)));
        return new Verdict(outcome, sentence(outcome), regimes, creep, reasons);
    }

    private static Optional<TrimCreep> creep(Take take, TrimSet set) {
        return stretches(take, set, set.regimes().get(0)).stream()
                .max(Comparator.comparingDouble(Stretch::seconds))
                .flatMap(
                        stretch -> {
                            Take.Column clock = take.columns().get(set.shortTerm());
                            List<double[]> rows = new ArrayList<>();
                            for (int i = 0; i < clock.size(); i++) {
                                double t = clock.seconds(i);
                                if (t >= stretch.from() && t <= stretch.to()) {
                                    rows.add(
                                            new double[] {
                                                t, clock.value(i), take.at(set.longTerm(), t)
                                            });
                                }
                            }
                            return TrimCreep.fit(column(rows, 0), column(rows, 1), column(rows, 2));
                        });
    }

    private static double[] column(List<double[]> rows, int index) {
        return rows.stream().mapToDouble(r -> r[index]).toArray();
    }

    private static String creepText(TrimCreep c) {
        return c.over()
                ? text("The long-term trim has settled at %+.1f %%.", c.now())
                : Double.isInfinite(c.tau())
                        ? text(
                                "The long-term trim stands at %+.1f %% and does not learn; it would go to %+.1f %%.",
                                c.now(), c.settled())
                        : text(
                                "The long-term trim creeps: %+.1f %% now, it will settle at %+.1f %% (give or take %.1f), near enough in %.0f s.",
                                c.now(), c.settled(), 2 * c.deviation(), c.secondsLeft());
    }

    private static String sentence(String outcome) {
        return switch (outcome) {
            case LEAN_IDLE ->
                    "Lean at idle and right under load: air that nobody measures comes in.";
            case LEAN_LOAD ->
                    "Right at idle and lean under load: too little fuel, or too little air told.";
            case LEAN_ALL -> "Lean everywhere: too little fuel, or too little air told.";
            case RICH_IDLE -> "Rich at idle: fuel or vapour comes from elsewhere.";
            case RICH_ALL -> "Rich under load: fuel comes from elsewhere, or too much air is told.";
            default -> "The mixture needs no more correction than a healthy engine's.";
        };
    }

    /**
     * What filling up changed at idle: a hole towards the canister brings its vapour, any other
     * leak brings air.
     *
     * @param before total at idle on an ordinary day, percent
     * @param after the same soon after filling up
     * @return richer or as-before
     */
    public static String refuelled(double before, double after) {
        return after < before - RICHER ? "richer" : "as-before";
    }

    /** Why {@link #study} says nothing of a take. */
    public static String whyNot(Take take, TrimSet set, Signals signals) {
        Set<String> missing = missing(take, set);
        if (!missing.isEmpty()) {
            return "Not recorded: "
                    + missing.stream()
                            .map(id -> signals.value(id).map(Value::name).orElse(id))
                            .sorted()
                            .collect(Collectors.joining(", "))
                    + ". Add them to the watch list and record again.";
        }
        Set<String> there =
                regimes(take, set).stream().map(RegimeTrim::id).collect(Collectors.toSet());
        return set.regimes().stream()
                .filter(r -> !there.contains(r.id()))
                .map(
                        r ->
                                text(
                                        "%s (%s) was held for less than %.0f s.",
                                        r.name(),
                                        r.when().stream()
                                                .map(Condition::says)
                                                .collect(Collectors.joining(", ")),
                                        set.leastSeconds()))
                .collect(Collectors.joining(" "));
    }

    /** Values that a take must hold to be studied. */
    public static Set<String> needed(TrimSet set) {
        Set<String> ids = new LinkedHashSet<>(List.of(set.shortTerm(), set.longTerm()));
        set.regimes().forEach(r -> r.when().forEach(c -> ids.add(c.value())));
        return ids;
    }

    private static Set<String> missing(Take take, TrimSet set) {
        Set<String> missing = needed(set);
        missing.removeAll(take.columns().keySet());
        return missing;
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
