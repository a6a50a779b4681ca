package brightlantern.core.capture;

import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Sparks beside each other: the voltage at which each breaks over, at which it burns, and for how
 * long. A wide gap needs much and leaves little to burn with; a bridged one never gets that far; a
 * coil without current gives nothing.
 */
public final class SparkStudy {
    private static final double SLOWEST_INTERVAL = 2e-5;
    private static final double SHORTEST_SECONDS = 1;
    private static final int LEAST_CYCLES = 6;

    /** A spark comes so far before and behind where its cylinder fires, as share of its turn. */
    private static final double EARLY = 0.15;

    private static final double LATE = 0.35;

    /** Less, kV, is what pickups show of themselves. */
    private static final double NOTHING_KV = 0.6;

    /** It breaks over and settles within this, s; from then on it burns. */
    private static final double SETTLES = 1e-4;

    /** While it burns it stays above this, kV, but for dips that are shorter than this, s. */
    private static final double BURNS_ABOVE = 0.45;

    private static final double DIP = 6e-5;

    /** What burns for less than this, s, only rings. */
    private static final double BURNS_LEAST = 2.5e-4;

    /** Of the middle one: needs so much more, and burns for less than this. */
    private static final double MUCH = 1.25;

    private static final double SHORT = 0.85;

    /** With sparks in fewer of its turns than this it has none, or loses them. */
    private static final double OFTEN = 0.5;

    private SparkStudy() {}

    /**
     * One cylinder.
     *
     * @param kilovolts at which it breaks over, or to which it rises without
     * @param burnsAt kV while it burns; NaN where it does not
     * @param seconds for which it burns; NaN where it does not
     * @param burns share of its firings that burn
     * @param band right, gap, leak or none
     */
    public record Spark(
            int cylinder,
            double kilovolts,
            double burnsAt,
            double seconds,
            double burns,
            String band) {
        public boolean isRight() {
            return band.equals("right");
        }
    }

    /**
     * @param outcome even, gap-N, leak-N, none-N or unclear
     * @param sparks by cylinder number
     */
    public record Judgement(
            String outcome, String sentence, List<String> reasons, List<Spark> sparks)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
            sparks = List.copyOf(sparks);
        }

        @Override
        public boolean holds() {
            return outcome.equals("even");
        }

        @Override
        public List<Told> tells() {
            return List.of(new Told(CapturePlan.SPARKS, outcome, holds(), sentence));
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    public static Optional<String> whyNot(Capture capture, List<Integer> order) {
        if (capture.interval() > SLOWEST_INTERVAL || capture.seconds() < SHORTEST_SECONDS) {
            return Optional.of(
                    String.format(
                            Locale.ROOT,
                            "It has a sample every %.0f µs for %.2f s; expected one every %.0f µs or faster, for %.0f s or longer.",
                            1e6 * capture.interval(),
                            capture.seconds(),
                            1e6 * SLOWEST_INTERVAL,
                            SHORTEST_SECONDS));
        }
        if (capture.lane(LaneRole.FIRST_CYLINDER).isEmpty()) {
            return Optional.of(
                    "Which spark is whose cannot be told without a lane at what fires cylinder "
                            + order.get(0)
                            + ".");
        }
        Lane lane = capture.lane(LaneRole.SPARKS).orElseThrow();
        if (lane.clipped()) {
            return Optional.of("Its peaks lie flat at the end of the range: choose a larger one.");
        }
        int cycles = turns(capture, order).size();
        return cycles < LEAST_CYCLES
                ? Optional.of(
                        "The first cylinder fires in %s; expected %d or more: let the engine idle meanwhile."
                                .formatted(Words.count(cycles, "whole cycle"), LEAST_CYCLES))
                : Optional.empty();
    }

    private static List<EngineTurn> turns(Capture capture, List<Integer> order) {
        SwitchedLane first = new SwitchedLane(capture.lane(LaneRole.FIRST_CYLINDER).orElseThrow());
        return first.starts().size() < SwitchedLane.TRAIN
                ? List.of()
                : EngineTurn.of(first, first, order.size());
    }

    /** What it says; empty when nothing can be said, and {@link #whyNot} says why. */
    public static Optional<Judgement> judge(Capture capture, List<Integer> order) {
        if (whyNot(capture, order).isPresent()) {
            return Optional.empty();
        }
        Lane as = capture.lane(LaneRole.SPARKS).orElseThrow();
        Lane lane = SwitchedLane.isTurned(as) ? as.inverted() : as;
        List<EngineTurn> turns = turns(capture, order);
        double[][] seen = new double[order.size()][];
        for (int k = 0; k < order.size(); k++) {
            seen[order.get(k) - 1] = cylinder(lane, turns, k, order.size(), capture.interval());
        }
        double needs = middle(seen, 0);
        double burns = middle(seen, 2);
        List<Spark> sparks = new ArrayList<>();
        for (int n = 1; n <= seen.length; n++) {
            double[] s = seen[n - 1];
            sparks.add(new Spark(n, s[0], s[1], s[2], s[3], band(s, needs, burns)));
        }
        List<Spark> odd = sparks.stream().filter(s -> !s.isRight()).toList();
        String outcome =
                odd.isEmpty()
                        ? "even"
                        : odd.size() > 1
                                ? "unclear"
                                : odd.get(0).band() + "-" + odd.get(0).cylinder();
        return Optional.of(
                new Judgement(
                        outcome,
                        sentence(odd, needs),
                        reasons(sparks, turns.size(), as != lane),
                        sparks));
    }

    /**
     * Middle values of one cylinder over all cycles.
     *
     * @return kV at its top, kV while it burns, seconds for which it burns, share that burns
     */
    private static double[] cylinder(
            Lane lane, List<EngineTurn> turns, int k, int of, double interval) {
        double[] tops = new double[turns.size()];
        List<Double> volts = new ArrayList<>();
        List<Double> lasts = new ArrayList<>();
        for (int i = 0; i < tops.length; i++) {
            EngineTurn turn = turns.get(i);
            double each = (turn.to() - turn.from()) / of;
            int from = (int) Math.max(0, turn.from() + (k - EARLY) * each);
            int to = (int) Math.min(lane.length(), turn.from() + (k + LATE) * each);
            int top = from;
            for (int s = from; s < to; s++) {
                top = lane.at(s) > lane.at(top) ? s : top;
            }
            tops[i] = top < to ? lane.at(top) : 0;
            int end = tops[i] < NOTHING_KV ? top : burnsTo(lane, top, interval);
            double burns = (end - top) * interval;
            if (burns > BURNS_LEAST) {
                lasts.add(burns);
                volts.add(line(lane, top + (int) (SETTLES / interval), end));
            }
        }
        return new double[] {
            middle(tops), middle(volts), middle(lasts), (double) lasts.size() / turns.size()
        };
    }

    /** The sample at which what burns goes out. */
    private static int burnsTo(Lane lane, int top, double interval) {
        int dip = Math.max(1, (int) (DIP / interval));
        int last = top;
        for (int s = top; s < lane.length() && s - last <= dip; s++) {
            last = lane.at(s) > BURNS_ABOVE ? s : last;
        }
        return last;
    }

    /** Mean of a stretch, kV. */
    private static double line(Lane lane, int from, int to) {
        double sum = 0;
        for (int s = from; s < to; s++) {
            sum += lane.at(s);
        }
        return to > from ? sum / (to - from) : Double.NaN;
    }

    private static String band(double[] its, double needs, double burns) {
        if (its[3] < OFTEN) {
            // what never breaks over rises to all that its coil can give
            return its[0] < NOTHING_KV || its[0] > MUCH * needs ? "none" : "leak";
        }
        return its[0] > MUCH * needs && its[2] < SHORT * burns ? "gap" : "right";
    }

    private static double middle(double[][] seen, int figure) {
        return middle(
                Arrays.stream(seen)
                        .mapToDouble(s -> s[figure])
                        .filter(v -> !Double.isNaN(v))
                        .boxed()
                        .toList());
    }

    private static double middle(List<Double> of) {
        return middle(of.stream().mapToDouble(d -> d).toArray());
    }

    private static double middle(double[] of) {
        double[] sorted = of.clone();
        Arrays.sort(sorted);
        return sorted.length == 0 ? Double.NaN : sorted[(sorted.length - 1) / 2];
    }

    private static String sentence(List<Spark> odd, double needs) {
        if (odd.isEmpty()) {
            return "All sparks break over and burn alike.";
        }
        StringBuilder all = new StringBuilder();
        for (Spark s : odd) {
            all.append(all.isEmpty() ? "" : " ")
                    .append(
                            switch (s.band()) {
                                case "none" ->
                                        s.kilovolts() < NOTHING_KV
                                                ? "Cylinder %d has no spark: its coil gives nothing."
                                                        .formatted(s.cylinder())
                                                : "Cylinder %d has no spark: nothing breaks over; its lead or its plug is open."
                                                        .formatted(s.cylinder());
                                case "leak" ->
                                        String.format(
                                                Locale.ROOT,
                                                "The spark of cylinder %d breaks down at %.1f kV before it burns: its plug is fouled or cracked, or its lead leaks.",
                                                s.cylinder(),
                                                s.kilovolts());
                                default ->
                                        String.format(
                                                Locale.ROOT,
                                                "The spark of cylinder %d needs %.1f kV where %.1f kV are right, and burns for %.2f ms: its gap is wide.",
                                                s.cylinder(),
                                                s.kilovolts(),
                                                needs,
                                                1000 * s.seconds());
                            });
        }
        return all.toString();
    }

    private static List<String> reasons(List<Spark> sparks, int cycles, boolean turned) {
        List<String> all = new ArrayList<>();
        all.add(
                "Middle values of "
                        + Words.count(cycles, "cycle")
                        + "; each against the middle cylinder: right is below "
                        + Math.round(100 * MUCH)
                        + " % of its voltage, or above "
                        + Math.round(100 * SHORT)
                        + " % of its burning time.");
        for (Spark s : sparks) {
            all.add(
                    s.burns() < OFTEN
                            ? String.format(
                                    Locale.ROOT,
                                    "Cylinder %d: up to %.1f kV, burns in %.0f %% of its cycles.",
                                    s.cylinder(),
                                    s.kilovolts(),
                                    100 * s.burns())
                            : String.format(
                                    Locale.ROOT,
                                    "Cylinder %d: breaks over at %.1f kV, burns at %.2f kV for %.2f ms.",
                                    s.cylinder(),
                                    s.kilovolts(),
                                    s.burnsAt(),
                                    1000 * s.seconds()));
        }
        if (turned) {
            all.add("The pickups sat the wrong way round; their lane was turned over.");
        }
        return all;
    }
}
