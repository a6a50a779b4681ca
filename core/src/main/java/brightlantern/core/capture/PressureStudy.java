package brightlantern.core.capture;

import brightlantern.core.cylinder.Cylinders;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The pressure in one cylinder while it is cranked with its fuel off. What it compresses to is held
 * against its ratio (polytropic compression, p·Vⁿ constant). On its way down it passes the volume
 * at which it was shut once more before its exhaust valve opens: what is missing there has leaked.
 */
public final class PressureStudy {
    private static final double AMBIENT_KPA = 101.3;

    /** What an open cylinder rests at, kPa absolute, between the highest pass and a low day. */
    private static final double LEAST_REST = 55;

    private static final double MOST_REST = 115;

    /** One that tells what is above ambient rests within this of nothing, kPa. */
    private static final double GAUGE_REST = 25;

    /** Exponent of compression (n): cold walls take heat, so it is below the 1.4 of air. */
    private static final double EXPONENT = 1.32;

    /**
     * With this one, and so much of the ratio while its intake valve is late, it still is tight.
     */
    private static final double LEAST_EXPONENT = 1.18;

    private static final double SHUT_BY = 0.82;

    /** Share of its charge that a tight cylinder loses at most, to its rings and cold walls. */
    private static final double LOSES = 0.2;

    /** Shares of a cycle about a peak: the end of the intake stroke before it, to its shutting. */
    private static final double[] FILLED = {-0.27, -0.23};

    /** And the end of expansion behind it. */
    private static final double[] EXPANDED = {0.1, 0.25};

    private static final Pattern NUMBER = Pattern.compile(".*?(\\d+)\\s*$");

    private final Cylinders cylinders;

    public PressureStudy(Cylinders cylinders) {
        this.cylinders = cylinders;
    }

    /**
     * @param cylinder its number, as its lane is named; empty where that does not say
     * @param outcome tight, leaks or low
     * @param peak kPa absolute
     * @param filled what it is filled with before, kPa absolute
     * @param lost share of its charge
     */
    public record Judgement(
            Optional<Integer> cylinder,
            String outcome,
            String sentence,
            List<String> reasons,
            double peak,
            double filled,
            double lost,
            double rpm)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
        }

        @Override
        public boolean holds() {
            return outcome.equals("tight");
        }

        @Override
        public List<Told> tells() {
            return cylinder.stream()
                    .map(n -> new Told(CapturePlan.PRESSURE + n, outcome, holds(), sentence))
                    .toList();
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    public static Optional<String> whyNot(Capture capture) {
        Optional<Lane> lane = capture.lane(LaneRole.CYLINDER);
        if (lane.isEmpty()) {
            return Optional.of("It needs a lane of the pressure in a cylinder.");
        }
        Optional<String> slow = Cranked.tooSlow(capture);
        if (slow.isPresent()) {
            return slow;
        }
        if (lane.get().clipped()) {
            return Optional.of("Its peaks lie flat at the end of the range: choose a larger one.");
        }
        double rest = rest(lane.get());
        if (Math.abs(rest) > GAUGE_REST && (rest < LEAST_REST || rest > MOST_REST)) {
            return Optional.of(
                    "It rests at %.0f kPa; expected some 100 of a transducer that tells absolute pressure, or 0 of one that tells what is above ambient: look at the line that was told for it."
                            .formatted(rest));
        }
        return Cranked.notCranked(capture, turns(lane.get()));
    }

    /** What it says; empty when nothing can be said, and {@link #whyNot} says why. */
    public Optional<Judgement> judge(Capture capture) {
        if (whyNot(capture).isPresent()) {
            return Optional.empty();
        }
        Lane lane = capture.lane(LaneRole.CYLINDER).orElseThrow();
        List<int[]> cycles = turns(lane);
        boolean gauge = Math.abs(rest(lane)) <= GAUGE_REST;
        double zero = gauge ? -AMBIENT_KPA : 0;
        double peak = middle(cycles.stream().mapToDouble(c -> lane.at(c[1]) - zero).toArray());
        double filled =
                middle(cycles.stream().mapToDouble(c -> mean(lane, c, FILLED) - zero).toArray());
        double left = middle(cycles.stream().mapToDouble(c -> least(lane, c) - zero).toArray());
        double lost = Math.max(0, 1 - Math.pow(Math.max(0, left) / filled, 1 / EXPONENT));
        double ratio = cylinders.ratio();
        double expected = ratio == 0 ? 0 : filled * Math.pow(SHUT_BY * ratio, LEAST_EXPONENT);
        String outcome = lost > LOSES ? "leaks" : peak < expected ? "low" : "tight";
        Optional<Integer> number = number(lane);
        List<String> reasons = new ArrayList<>();
        reasons.add(
                String.format(
                        Locale.ROOT,
                        "It compresses %.0f kPa to %.0f kPa (absolute) at %.0f rpm%s",
                        filled,
                        peak,
                        Cranked.rpm(capture, cycles),
                        ratio == 0
                                ? "; its ratio is not described, so it is not known what it should come to."
                                : String.format(
                                        Locale.ROOT,
                                        "; by its ratio of %s to 1, %.0f kPa or more is healthy.",
                                        CaptureSettings.plain(ratio),
                                        expected)));
        reasons.add(
                String.format(
                        Locale.ROOT,
                        "When its exhaust valve opens %.0f kPa are left: it has lost %.0f %% of its charge (%.0f %% or less is healthy).",
                        left,
                        100 * lost,
                        100 * LOSES));
        if (gauge) {
            reasons.add(
                    "It rests at 0, so it is taken for what is above ambient; %.1f kPa are added."
                            .formatted(AMBIENT_KPA));
        }
        return Optional.of(
                new Judgement(
                        number,
                        outcome,
                        sentence(number.map(n -> "Cylinder " + n).orElse("The cylinder"), outcome),
                        reasons,
                        peak,
                        filled,
                        lost,
                        Cranked.rpm(capture, cycles)));
    }

    private static String sentence(String which, String outcome) {
        return which
                + switch (outcome) {
                    case "leaks" ->
                            " leaks: much of its charge is gone before its exhaust valve opens.";
                    case "low" ->
                            " is tight, and yet compresses too little: it is not filled, or its valves shut late.";
                    default -> " is tight, and compresses as it should.";
                };
    }

    /**
     * Cycles of the engine, each as the seconds at which it begins and ends, counted from the dead
     * centre of cylinder 1; none without a lane of the pressure in a cylinder.
     */
    public List<double[]> cycles(Capture capture) {
        Optional<Lane> lane = capture.lane(LaneRole.CYLINDER).filter(l -> !l.silent());
        int place = lane.flatMap(PressureStudy::number).map(cylinders.order()::indexOf).orElse(0);
        double later = (double) Math.max(0, place) / cylinders.order().size();
        return lane.stream()
                .flatMap(l -> turns(l).stream())
                .map(c -> new double[] {c[0] - later * (c[1] - c[0]), c[1] - later * (c[1] - c[0])})
                .filter(c -> c[0] >= 0)
                .map(c -> new double[] {c[0] * capture.interval(), c[1] * capture.interval()})
                .toList();
    }

    private static Optional<Integer> number(Lane lane) {
        Matcher number = NUMBER.matcher(lane.name());
        return number.matches() ? Optional.of(Integer.valueOf(number.group(1))) : Optional.empty();
    }

    /** Half of a cycle it is open to the outside: the quieter half tells what it rests at. */
    private static double rest(Lane lane) {
        double[] sorted = lane.samples();
        Arrays.sort(sorted);
        return sorted[sorted.length / 3];
    }

    /** From each peak to the next. */
    private static List<int[]> turns(Lane lane) {
        List<Integer> peaks = new ArrayList<>();
        double up = (rest(lane) + lane.most()) / 2;
        double down = rest(lane) + (lane.most() - rest(lane)) / 4;
        int best = -1;
        for (int i = 0; i < lane.length(); i++) {
            double v = lane.at(i);
            if (v > up && (best < 0 || v > lane.at(best))) {
                best = i;
            } else if (v < down && best >= 0) {
                peaks.add(best);
                best = -1;
            }
        }
        return new Cycles(peaks).even();
    }

    /** About the peak that ends a cycle. */
    private static double mean(Lane lane, int[] cycle, double[] window) {
        int length = cycle[1] - cycle[0];
        double sum = 0;
        int from = cycle[1] + (int) (window[0] * length);
        int to = cycle[1] + (int) (window[1] * length);
        for (int i = from; i < to; i++) {
            sum += lane.at(i);
        }
        return sum / (to - from);
    }

    /**
     * The least behind the peak that begins a cycle, of means of a hundredth of it, for its noise.
     */
    private static double least(Lane lane, int[] cycle) {
        int length = cycle[1] - cycle[0];
        int over = Math.max(1, length / 100);
        double least = Double.POSITIVE_INFINITY;
        for (int i = (int) (EXPANDED[0] * length); i < EXPANDED[1] * length; i++) {
            double sum = 0;
            for (int k = 0; k < over; k++) {
                sum += lane.at(cycle[0] + i + k);
            }
            least = Math.min(least, sum / over);
        }
        return least;
    }

    private static double middle(double[] of) {
        Arrays.sort(of);
        return of[of.length / 2];
    }
}
