package brightlantern.core.capture;

import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.cylinder.SignalWheel;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Crank and camshaft by their teeth: whether every mark is there, whether the wheel runs true,
 * where the camshaft stands against the crank, and how much each cylinder speeds the crank up. A
 * wheel that is bent adds a wave of one turn, whatever is burnt; a cylinder that is weak adds one
 * of two turns first of all, since each fires once in two.
 */
public final class ToothStudy {
    /** Fewer samples from tooth to tooth tell no degrees. */
    private static final double LEAST_SAMPLES = 6;

    private static final int LEAST_CYCLES = 3;

    /** Further from its place than this is a chain that has stretched or jumped, degrees. */
    public static final double MOST_OFF = 6;

    /**
     * A wheel whose speed seems to swing by more than this share in each turn does not run true.
     */
    private static final double MOST_RUNOUT = 0.012;

    /** A wave of one turn is the wheel's own only where it is so many times that of two turns. */
    private static final double OWN = 1.5;

    /** A cylinder's gain is taken so far behind its dead centre at most, degrees. */
    private static final double GAIN_DEGREES = 144;

    /** What a module makes of a cylinder may be off by so much, rpm, from what its teeth show. */
    private static final double OWN_OFF = 8;

    private ToothStudy() {}

    /**
     * @param outcome right, late, early, tooth, runout or unclear
     * @param late degrees of the crank by which the camshaft lags; below 0 where it leads
     * @param runout share by which speed seems to swing once a turn
     * @param lost marks that are missing, counted from the gap, from 1
     * @param rpm mean speed
     * @param gains by cylinder number from 1 on, what it adds to the speed against the others, rpm
     * @param own the same as its module sees it; empty where it was not asked meanwhile
     */
    public record Judgement(
            String outcome,
            String sentence,
            List<String> reasons,
            double late,
            double runout,
            List<Integer> lost,
            double rpm,
            List<Double> gains,
            List<Double> own)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
            lost = List.copyOf(lost);
            gains = List.copyOf(gains);
            own = List.copyOf(own);
        }

        /**
         * Whether its module makes something else of a cylinder than its teeth show.
         *
         * @param cylinder from 1
         */
        public boolean isSeenOtherwise(int cylinder) {
            return isFarApart(own, gains, cylinder - 1);
        }

        @Override
        public boolean holds() {
            return outcome.equals("right");
        }

        @Override
        public List<Told> tells() {
            return List.of(new Told(CapturePlan.TEETH, outcome, holds(), sentence));
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    public static Optional<String> whyNot(Capture capture, Cylinders cylinders) {
        if (cylinders.wheel().isEmpty()) {
            return Optional.of(
                    "The description does not tell which marks crank and camshaft have.");
        }
        for (LaneRole role : List.of(LaneRole.CRANK, LaneRole.CAM)) {
            Optional<Lane> lane = capture.lane(role);
            if (lane.isEmpty()) {
                return Optional.of("It needs a lane at each sensor: crank and camshaft.");
            }
            if (lane.get().silent()) {
                return Optional.of(
                        "Lane '"
                                + lane.get().name()
                                + "' shows nothing at all: look where it is connected.");
            }
        }
        SignalWheel wheel = cylinders.wheel().get();
        CrankMarks marks = new CrankMarks(capture.lane(LaneRole.CRANK).orElseThrow(), wheel);
        List<int[]> cycles = marks.cycles();
        if (cycles.size() < LEAST_CYCLES) {
            return Optional.of(
                    String.format(
                            Locale.ROOT,
                            "%s of the crank's wheel, %d of them where none should be, make %s from gap to gap; expected turns of %d marks and a gap of %d, %d in a row at least.",
                            Words.count(marks.marks(), "mark"),
                            marks.tooMuch(),
                            Words.count(marks.turns(), "whole turn"),
                            wheel.there(),
                            wheel.missing(),
                            LEAST_CYCLES + 1));
        }
        double samples = (double) capture.length() / Math.max(1, marks.marks());
        return samples < LEAST_SAMPLES
                ? Optional.of(
                        String.format(
                                Locale.ROOT,
                                "It has %.1f samples from tooth to tooth; expected %.0f or more: sample faster, or turn slower.",
                                samples,
                                LEAST_SAMPLES))
                : Optional.empty();
    }

    /** What it says; empty when nothing can be said, and {@link #whyNot} says why. */
    public static Optional<Judgement> judge(Capture capture, Cylinders cylinders) {
        if (whyNot(capture, cylinders).isPresent()) {
            return Optional.empty();
        }
        SignalWheel wheel = cylinders.wheel().orElseThrow();
        CrankMarks marks = new CrankMarks(capture.lane(LaneRole.CRANK).orElseThrow(), wheel);
        CamPlace placed = CamPlace.of(marks, capture, wheel);
        double[] speeds = mean(marks, placed.home().isEmpty() ? marks.cycles() : placed.home());
        double mean = Arrays.stream(speeds).average().orElseThrow();
        double runout = wave(speeds, 2) / mean;
        boolean own = runout > OWN * wave(speeds, 1) / mean;
        double rpm = mean / capture.interval() / 6;
        List<Double> gains =
                placed.known() ? gains(speeds, cylinders, wheel, rpm / mean) : List.of();
        List<Double> seen = own(capture, cylinders);
        List<Integer> lost = marks.lost().stream().map(t -> t + 1).toList();
        return Optional.of(
                new Judgement(
                        outcome(marks, lost, placed, runout, own),
                        sentence(marks, lost, placed, runout, own),
                        reasons(marks, placed, runout, rpm, gains, seen),
                        placed.late(),
                        runout,
                        lost,
                        rpm,
                        gains,
                        seen));
    }

    /**
     * Cycles of the engine, each as the seconds at which cylinder 1 fires and fires again; none
     * where the lanes do not tell.
     */
    public static List<double[]> cycles(Capture capture, Cylinders cylinders) {
        if (whyNot(capture, cylinders).isPresent()) {
            return List.of();
        }
        SignalWheel wheel = cylinders.wheel().orElseThrow();
        CrankMarks marks = new CrankMarks(capture.lane(LaneRole.CRANK).orElseThrow(), wheel);
        List<double[]> all = new ArrayList<>();
        for (int[] home : CamPlace.of(marks, capture, wheel).home()) {
            double at = marks.sample(home, wheel.first()) * capture.interval();
            if (!all.isEmpty()) {
                all.get(all.size() - 1)[1] = at;
            }
            all.add(new double[] {at, Double.NaN});
        }
        if (!all.isEmpty()) {
            all.remove(all.size() - 1);
        }
        return all;
    }

    /**
     * The speed at each tooth of two turns, on the mean over all of these cycles.
     *
     * @return degrees a sample
     */
    private static double[] mean(CrankMarks marks, List<int[]> cycles) {
        double[] shares = {};
        double whole = 0;
        for (int[] cycle : cycles) {
            double[] its = marks.speeds(cycle);
            double of = Arrays.stream(its).average().orElseThrow();
            whole += of;
            shares = shares.length == 0 ? new double[its.length] : shares;
            for (int i = 0; i < shares.length; i++) {
                shares[i] += its[i] / of;
            }
        }
        double mean = whole / cycles.size();
        return Arrays.stream(shares).map(s -> s / cycles.size() * mean).toArray();
    }

    /** Amplitude of the wave that goes so often into two turns. */
    private static double wave(double[] speeds, int times) {
        double sine = 0;
        double cosine = 0;
        for (int i = 0; i < speeds.length; i++) {
            double at = 2 * Math.PI * times * i / speeds.length;
            sine += speeds[i] * Math.sin(at);
            cosine += speeds[i] * Math.cos(at);
        }
        return 2 * Math.hypot(sine, cosine) / speeds.length;
    }

    private static List<Double> gains(
            double[] speeds, Cylinders cylinders, SignalWheel wheel, double rpm) {
        int n = cylinders.order().size();
        double over = Math.min(GAIN_DEGREES, 720.0 / n);
        double[] gain = new double[n];
        for (int k = 0; k < n; k++) {
            double fires = wheel.first() + 720.0 * k / n;
            gain[cylinders.order().get(k) - 1] =
                    rpm * (at(speeds, fires + over, wheel) - at(speeds, fires, wheel));
        }
        double mean = Arrays.stream(gain).average().orElse(0);
        return Arrays.stream(gain).map(g -> g - mean).boxed().toList();
    }

    /** Mean of what the module told of each cylinder; none where it did not tell all. */
    private static List<Double> own(Capture capture, Cylinders cylinders) {
        List<Double> all =
                capture.lanes().stream()
                        .filter(l -> l.role() == LaneRole.OWN_FIGURE)
                        .map(l -> Arrays.stream(l.samples()).average().orElse(Double.NaN))
                        .toList();
        return all.size() == cylinders.order().size() ? all : List.of();
    }

    private static boolean isFarApart(List<Double> own, List<Double> gains, int k) {
        return k < own.size() && Math.abs(own.get(k) - gains.get(k)) > OWN_OFF;
    }

    /** Of three teeth: one alone is as uneven as it was cut. */
    private static double at(double[] speeds, double degrees, SignalWheel wheel) {
        int i = (int) Math.round(degrees / wheel.pitch());
        double sum = 0;
        for (int n = -1; n <= 1; n++) {
            sum += speeds[Math.floorMod(i + n, speeds.length)];
        }
        return sum / 3;
    }

    private static String outcome(
            CrankMarks marks, List<Integer> lost, CamPlace placed, double runout, boolean own) {
        if (!lost.isEmpty()) {
            return "tooth";
        }
        if (marks.lostTurns() > 0 || marks.tooMuch() > 0 || !placed.known()) {
            return "unclear";
        }
        if (Math.abs(placed.late()) > MOST_OFF) {
            return placed.late() > 0 ? "late" : "early";
        }
        return runout > MOST_RUNOUT && own ? "runout" : "right";
    }

    private static String sentence(
            CrankMarks marks, List<Integer> lost, CamPlace placed, double runout, boolean own) {
        return switch (outcome(marks, lost, placed, runout, own)) {
            case "tooth" ->
                    String.format(
                            Locale.ROOT,
                            "A mark of the crank's wheel is missing in each turn: number %s after the gap.",
                            lost.stream().map(t -> "" + t).collect(Collectors.joining(", ")));
            case "late" ->
                    String.format(
                            Locale.ROOT,
                            "The camshaft stands %.1f degrees of the crank too late: its chain has stretched or jumped.",
                            placed.late());
            case "early" ->
                    String.format(
                            Locale.ROOT,
                            "The camshaft stands %.1f degrees of the crank too early: its chain has jumped, or it was fitted wrong.",
                            -placed.late());
            case "runout" ->
                    String.format(
                            Locale.ROOT,
                            "The crank's wheel does not run true: once in each turn the speed seems to swing by %.1f %%.",
                            100 * runout);
            case "unclear" ->
                    "Marks come and go: the sensor, its distance, its wire or its shield.";
            default ->
                    "Every mark is there, the wheel runs true, and the camshaft stands where it should.";
        };
    }

    private static List<String> reasons(
            CrankMarks marks,
            CamPlace placed,
            double runout,
            double rpm,
            List<Double> gains,
            List<Double> own) {
        List<String> all = new ArrayList<>();
        all.add(
                String.format(
                        Locale.ROOT,
                        "%s at %.0f rpm, a mark missing in %d of them, %s where none should be.",
                        Words.count(marks.turns(), "whole turn"),
                        rpm,
                        marks.lostTurns(),
                        Words.count(marks.tooMuch(), "mark")));
        all.add(
                placed.known()
                        ? String.format(
                                Locale.ROOT,
                                "Camshaft %+.1f degrees of the crank from its place; its marks agree to %.1f; right is within %.0f.",
                                placed.late(),
                                placed.spread(),
                                MOST_OFF)
                        : String.format(
                                Locale.ROOT,
                                "The camshaft shows %.1f marks in two turns, and not those that are described.",
                                placed.edges()));
        all.add(
                String.format(
                        Locale.ROOT,
                        "Once a turn the speed seems to swing by %.2f %%; right is below %.1f %%.",
                        100 * runout,
                        100 * MOST_RUNOUT));
        if (!gains.isEmpty()) {
            StringBuilder text = new StringBuilder("Against the others each cylinder adds ");
            for (int k = 0; k < gains.size(); k++) {
                text.append(k == 0 ? "" : ", ")
                        .append(String.format(Locale.ROOT, "%+.1f rpm (%d)", gains.get(k), k + 1));
            }
            all.add(text.append('.').toString());
        }
        for (int k = 0; k < gains.size(); k++) {
            if (isFarApart(own, gains, k)) {
                all.add(
                        String.format(
                                Locale.ROOT,
                                "Its module sees %+.1f rpm of cylinder %d where the crank shows %+.1f: it does not time its marks rightly, or has not learned them.",
                                own.get(k),
                                k + 1,
                                gains.get(k)));
            }
        }
        return all;
    }
}
