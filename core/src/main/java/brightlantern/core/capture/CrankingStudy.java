package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.ToDoubleFunction;

/**
 * The mechanical condition of an engine from one cranking with its fuel off. The firing of the
 * first cylinder lays each sample on a degree of the crank, the firing order on a cylinder. Gas
 * that a cylinder loses leaves it when most is in it, near its compression dead centre: the pipe in
 * which it arrives then tells which way it went, and the starter, which has less to compress, tells
 * how much.
 */
public final class CrankingStudy {
    /** Cylinders of a healthy engine differ by less than this in their starting current. */
    private static final double LOW_COMPRESSION = 0.1;

    /** A healthy cylinder has less than this less left when its exhaust valve opens. */
    private static final double LITTLE_LEFT = 0.1;

    /** Without low compression a leak has to be so many times what is healthy. */
    private static final double PLAIN = 1.9;

    /** With it, what stands out most has to be so many times what is healthy. */
    private static final double WITH_LOW = 0.7;

    /**
     * And so many times where it is as hard to turn as the others, and only less is left: rings
     * that fit less well let that be seen, and are no fault.
     */
    private static final double WITH_LESS_LEFT = 1;

    /** Engines have so many cylinders, and up to so many. */
    private static final int FEWEST = 2;

    private static final int MOST = 12;

    /** What swings so many times as far as it should with all cylinders is another engine. */
    private static final double PLAINLY = 2;

    /** The window in which lost gas arrives, degrees about dead centre. */
    private static final int[] DEAD_CENTRE = {-55, 35};

    /** The window in which the exhaust valve opens, degrees after dead centre. */
    private static final int[] EXHAUST_OPENS = {140, 190};

    private CrankingStudy() {}

    /**
     * @param outcome even, unclear, or what leaks with the number of its cylinder
     * @param rpm mean speed while it was cranked
     * @param cycles judged
     */
    public record Judgement(
            String outcome,
            String sentence,
            double rpm,
            int cycles,
            List<CylinderSigns> cylinders,
            List<String> reasons)
            implements CaptureReading {
        public Judgement {
            cylinders = List.copyOf(cylinders);
            reasons = List.copyOf(reasons);
        }

        /** Whether no cylinder stands out. */
        @Override
        public boolean holds() {
            return outcome.equals("even");
        }

        @Override
        public List<Told> tells() {
            return List.of(new Told(CapturePlan.CRANKING, outcome, holds(), sentence));
        }
    }

    /** Why a capture cannot be judged; empty when it can. */
    public static Optional<String> whyNot(Capture capture) {
        Optional<Lane> first = capture.lane(LaneRole.FIRST_CYLINDER);
        if (first.isEmpty()) {
            return Optional.of(
                    "No lane shows the firing of the first cylinder, so no sample can be laid on a cylinder.");
        }
        if (PIPES.stream().noneMatch(p -> capture.lane(p.role()).isPresent())) {
            return Optional.of(
                    "No lane shows intake, exhaust or crankcase, so a leak cannot be placed.");
        }
        List<int[]> cycles = Cycles.of(first.get()).even();
        Optional<String> why =
                Cranked.tooSlow(capture).or(() -> Cranked.notCranked(capture, cycles));
        if (why.isPresent()) {
            return why;
        }
        return capture.lanes().stream()
                .filter(l -> l.role() != LaneRole.FIRST_CYLINDER && l.role() != LaneRole.OTHER)
                .flatMap(l -> trouble(l).stream())
                .findFirst();
    }

    /**
     * The same for an engine: the starting current has to rise as often in a cycle as it has
     * cylinders.
     */
    public static Optional<String> whyNot(Capture capture, List<Integer> order) {
        return whyNot(capture).or(() -> unfit(capture, order.size()));
    }

    private static Optional<String> unfit(Capture capture, int cylinders) {
        Optional<Lane> amps = capture.lane(LaneRole.STARTER_CURRENT);
        if (amps.isEmpty()) {
            return Optional.empty();
        }
        double[] mean =
                Cycles.mean(
                        amps.get(),
                        Cycles.of(capture.lane(LaneRole.FIRST_CYLINDER).orElseThrow()).even());
        int most = cylinders;
        for (int n = FEWEST; n <= MOST; n++) {
            most = swing(mean, n) > swing(mean, most) ? n : most;
        }
        return swing(mean, most) < PLAINLY * swing(mean, cylinders)
                ? Optional.empty()
                : Optional.of(
                        "The starting current rises %d times from one firing of the first cylinder to the next, and the firing order has %d cylinders: another lane shows the first cylinder, or the order does not fit."
                                .formatted(most, cylinders));
    }

    /** How far it swings so many times in a cycle (amplitude of that harmonic). */
    private static double swing(double[] mean, int times) {
        double sine = 0;
        double cosine = 0;
        for (int d = 0; d < mean.length; d++) {
            double at = 2 * Math.PI * times * d / mean.length;
            sine += mean[d] * Math.sin(at);
            cosine += mean[d] * Math.cos(at);
        }
        return Math.hypot(sine, cosine);
    }

    private static Optional<String> trouble(Lane lane) {
        if (lane.silent()) {
            return Optional.of(
                    "Lane '" + lane.name() + "' shows nothing at all: look where it is connected.");
        }
        return lane.clipped()
                ? Optional.of(
                        "Lane '"
                                + lane.name()
                                + "' is clipped: its peaks are cut off and cannot be compared. Choose a larger range.")
                : Optional.empty();
    }

    /**
     * Cycles of the engine, each as the seconds at which it begins and ends; none without a lane
     * that shows the firing of the first cylinder.
     */
    public static List<double[]> cycles(Capture capture) {
        return capture.lane(LaneRole.FIRST_CYLINDER).stream()
                .filter(l -> !l.silent())
                .flatMap(l -> Cycles.of(l).even().stream())
                .map(c -> new double[] {c[0] * capture.interval(), c[1] * capture.interval()})
                .toList();
    }

    /**
     * A pipe in which lost gas arrives.
     *
     * @param part what leaks then
     * @param healthy a healthy cylinder lets up to this share of the lane's swing more there than
     *     the middle one does; blow-by scatters more than what tight valves let through
     */
    private record Pipe(
            LaneRole role,
            String outcome,
            String part,
            double healthy,
            ToDoubleFunction<CylinderSigns> of) {
        /** How many times what is healthy. */
        double times(CylinderSigns cylinder) {
            double share = of.applyAsDouble(cylinder);
            return Double.isNaN(share) ? 0 : share / healthy;
        }
    }

    private static final List<Pipe> PIPES =
            List.of(
                    new Pipe(
                            LaneRole.INTAKE,
                            "intake-valve",
                            "The intake valve of cylinder %d leaks.",
                            0.06,
                            CylinderSigns::intake),
                    new Pipe(
                            LaneRole.EXHAUST,
                            "exhaust-valve",
                            "The exhaust valve of cylinder %d leaks.",
                            0.06,
                            CylinderSigns::exhaust),
                    new Pipe(
                            LaneRole.CRANKCASE,
                            "rings",
                            "Rings or piston of cylinder %d leak.",
                            0.5,
                            CylinderSigns::crankcase));

    /**
     * @param order cylinders in the order in which they fire
     * @param firesAt degrees by which the first cylinder's firing is before its dead centre
     * @return empty when it cannot be judged; {@link #whyNot} tells why
     */
    public static Optional<Judgement> judge(Capture capture, List<Integer> order, double firesAt) {
        if (whyNot(capture, order).isPresent()) {
            return Optional.empty();
        }
        List<int[]> cycles = Cycles.of(capture.lane(LaneRole.FIRST_CYLINDER).orElseThrow()).even();
        Laid laid = new Laid(capture, cycles, order, firesAt);
        double[] compression = laid.compression();
        double[] intake = laid.beyond(LaneRole.INTAKE, DEAD_CENTRE);
        double[] exhaust = laid.beyond(LaneRole.EXHAUST, DEAD_CENTRE);
        double[] crankcase = laid.beyond(LaneRole.CRANKCASE, DEAD_CENTRE);
        double[] left = laid.beyond(LaneRole.EXHAUST, EXHAUST_OPENS);
        List<CylinderSigns> signs = new ArrayList<>();
        for (int k = 0; k < order.size(); k++) {
            signs.add(
                    new CylinderSigns(
                            order.get(k),
                            compression[k],
                            intake[k],
                            exhaust[k],
                            crankcase[k],
                            left[k]));
        }
        signs.sort(Comparator.comparingInt(CylinderSigns::cylinder));
        return Optional.of(judged(capture, cycles, signs));
    }

    /** The way that gas takes out of a cylinder. */
    private record Way(Pipe pipe, CylinderSigns cylinder) {
        double times() {
            return pipe.times(cylinder);
        }
    }

    private static Judgement judged(
            Capture capture, List<int[]> cycles, List<CylinderSigns> signs) {
        Optional<CylinderSigns> low =
                signs.stream()
                        .filter(c -> lacks(c) > 1)
                        .max(Comparator.comparingDouble(CrankingStudy::lacks));
        Way way =
                PIPES.stream()
                        .flatMap(
                                p ->
                                        signs.stream()
                                                .filter(c -> low.isEmpty() || c == low.get())
                                                .map(c -> new Way(p, c)))
                        .max(Comparator.comparingDouble(Way::times))
                        .orElseThrow();
        List<String> reasons = new ArrayList<>();
        String outcome = "even";
        String sentence = "Compression and gas exchange of all cylinders are alike.";
        double enough = low.map(c -> needsLess(c) > 1 ? WITH_LOW : WITH_LESS_LEFT).orElse(PLAIN);
        if (way.times() > enough) {
            outcome = way.pipe().outcome() + "-" + way.cylinder().cylinder();
            sentence = way.pipe().part().formatted(way.cylinder().cylinder());
            reasons.add(
                    "%s: near the compression dead centre of cylinder %d comes more gas than at the middle cylinder, %.1f times what healthy cylinders differ by."
                            .formatted(
                                    way.pipe().role().words(),
                                    way.cylinder().cylinder(),
                                    way.times()));
        } else if (low.isPresent()) {
            outcome = "unclear";
            sentence =
                    "Cylinder "
                            + low.get().cylinder()
                            + " compresses less than the others, and no lane shows where its gas goes.";
        }
        reasons.add(starting(signs));
        return new Judgement(
                outcome, sentence, Cranked.rpm(capture, cycles), cycles.size(), signs, reasons);
    }

    /** How much less it compresses, or has left, than healthy cylinders differ by. */
    private static double lacks(CylinderSigns c) {
        double lost = -c.left() / LITTLE_LEFT;
        return Math.max(needsLess(c), Double.isNaN(lost) ? 0 : lost);
    }

    /** How much easier it is to turn, against what healthy cylinders differ by. */
    private static double needsLess(CylinderSigns c) {
        double needs = (1 - c.compression()) / LOW_COMPRESSION;
        return Double.isNaN(needs) ? 0 : needs;
    }

    private static String starting(List<CylinderSigns> signs) {
        return signs.stream()
                .filter(c -> !Double.isNaN(c.compression()))
                .min(Comparator.comparingDouble(CylinderSigns::compression))
                .map(
                        c ->
                                "Starting current: cylinder %d needs %.0f %% of what the middle one needs (%.0f %% or more is healthy)."
                                        .formatted(
                                                c.cylinder(),
                                                100 * c.compression(),
                                                100 - 100 * LOW_COMPRESSION))
                .orElse("No lane shows the starting current: how much is lost is not told.");
    }

    /** A capture laid on the cylinders of an engine. */
    private record Laid(Capture capture, List<int[]> cycles, List<Integer> order, double firesAt) {

        /** By place in the firing order: peak of the starting current against the middle one. */
        double[] compression() {
            double[] peaks = new double[order.size()];
            Optional<Lane> lane = capture.lane(LaneRole.STARTER_CURRENT);
            if (lane.isEmpty()) {
                Arrays.fill(peaks, Double.NaN);
                return peaks;
            }
            double[] mean = Cycles.mean(lane.get(), cycles);
            int apart = Cycles.DEGREES / order.size();
            for (int k = 0; k < peaks.length; k++) {
                double high = Double.NEGATIVE_INFINITY;
                double low = Double.POSITIVE_INFINITY;
                for (int d = -apart / 2; d < apart / 2; d++) {
                    double v = mean[at(k, d)];
                    high = Math.max(high, v);
                    low = Math.min(low, v);
                }
                peaks[k] = high - low;
            }
            double middle = middle(peaks);
            return Arrays.stream(peaks).map(p -> p / middle).toArray();
        }

        /** By place in the firing order: gas that comes beyond that of the middle cylinder. */
        double[] beyond(LaneRole role, int[] window) {
            double[] gas = new double[order.size()];
            Optional<Lane> lane = capture.lane(role);
            if (lane.isEmpty()) {
                Arrays.fill(gas, Double.NaN);
                return gas;
            }
            double[] mean = Cycles.mean(lane.get(), cycles);
            for (int k = 0; k < gas.length; k++) {
                for (int d = window[0]; d < window[1]; d++) {
                    gas[k] += mean[at(k, d)] / (window[1] - window[0]);
                }
            }
            double middle = middle(gas);
            // a leak widens the swing itself: that of the quieter half of the cycle counts
            double[] sorted = mean.clone();
            Arrays.sort(sorted);
            double swing = 2 * (sorted[Cycles.DEGREES * 3 / 4] - sorted[Cycles.DEGREES / 4]);
            return Arrays.stream(gas).map(g -> (g - middle) / swing).toArray();
        }

        private int at(int place, int degrees) {
            double deadCentre = firesAt + (double) Cycles.DEGREES * place / order.size();
            double first = (double) Cycles.DEGREES * order.indexOf(1) / order.size();
            return Math.floorMod((int) Math.round(deadCentre - first + degrees), Cycles.DEGREES);
        }
    }

    private static double middle(double[] of) {
        double[] sorted = of.clone();
        Arrays.sort(sorted);
        int n = sorted.length;
        return (sorted[(n - 1) / 2] + sorted[n / 2]) / 2;
    }
}
