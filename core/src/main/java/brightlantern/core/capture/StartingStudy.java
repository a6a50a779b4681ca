package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Where the volts of a battery go while the starter draws: they break down in itself, or are lost
 * in the cable to the starter or between engine and battery minus. By what was lost on the mean
 * while the engine turned, and by the current as a resistance (Ohm's law).
 */
public final class StartingStudy {
    /** A cable of a starter loses no more than this while it turns the engine, V. */
    private static final double CABLE_VOLTS = 0.5;

    /** A battery that holds less than this while it turns the engine is low or worn, V. */
    private static final double BATTERY_VOLTS = 9.6;

    /** The starter draws more than this, A. */
    private static final double TURNS_AMPS = 60;

    /** Until then the engine is only set in motion, s. */
    private static final double SETS_OFF_SECONDS = 0.4;

    private static final double SHORTEST_SECONDS = 0.5;

    private StartingStudy() {}

    /**
     * @param outcome even, plus or earth: what loses more than it may
     * @param supply V that the battery holds on the mean while the starter draws
     */
    public record Judgement(String outcome, String sentence, List<String> reasons, double supply)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
        }

        @Override
        public boolean holds() {
            return outcome.equals("even") && supply >= BATTERY_VOLTS;
        }

        @Override
        public List<Told> tells() {
            String held =
                    String.format(Locale.ROOT, "%.1f V are left while the starter draws.", supply);
            boolean fine = supply >= BATTERY_VOLTS;
            return List.of(
                    new Told(CapturePlan.STARTING, outcome, outcome.equals("even"), sentence),
                    new Told("start-volts", fine ? "fine" : "low", fine, held));
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    public static Optional<String> whyNot(Capture capture) {
        for (LaneRole role :
                List.of(
                        LaneRole.SUPPLY,
                        LaneRole.PLUS_CABLE,
                        LaneRole.EARTH_CABLE,
                        LaneRole.STARTER_CURRENT)) {
            Optional<Lane> lane = capture.lane(role);
            if (lane.isEmpty()) {
                return Optional.of("No lane shows this: " + role.words().toLowerCase(Locale.ROOT));
            }
            if (lane.get().clipped()) {
                return Optional.of(
                        "Peaks of '"
                                + lane.get().name()
                                + "' lie flat at the end of its range: choose a larger one.");
            }
        }
        return turning(capture).length * capture.interval() < SHORTEST_SECONDS
                ? Optional.of(
                        String.format(
                                Locale.ROOT,
                                "The starter drew for %.1f s after it had set off; expected %.1f s or more.",
                                turning(capture).length * capture.interval(),
                                SHORTEST_SECONDS))
                : Optional.empty();
    }

    /** Samples in which the starter turns the engine steadily. */
    private static int[] turning(Capture capture) {
        Lane amps = capture.lane(LaneRole.STARTER_CURRENT).orElseThrow();
        int begins =
                IntStream.range(0, amps.length())
                        .filter(i -> amps.at(i) > TURNS_AMPS)
                        .findFirst()
                        .orElse(amps.length());
        return IntStream.range(
                        begins + (int) (SETS_OFF_SECONDS / capture.interval()), amps.length())
                .filter(i -> amps.at(i) > TURNS_AMPS)
                .toArray();
    }

    /** What it says; empty when nothing can be said, and {@link #whyNot} says why. */
    public static Optional<Judgement> judge(Capture capture) {
        if (whyNot(capture).isPresent()) {
            return Optional.empty();
        }
        int[] at = turning(capture);
        double amps = mean(capture, LaneRole.STARTER_CURRENT, at);
        double supply = mean(capture, LaneRole.SUPPLY, at);
        double plus = mean(capture, LaneRole.PLUS_CABLE, at);
        double earth = mean(capture, LaneRole.EARTH_CABLE, at);
        List<String> reasons = new ArrayList<>();
        reasons.add(
                String.format(
                        Locale.ROOT,
                        "While the starter draws %.0f A on the mean the battery holds %.2f V (%.1f V or more are expected).",
                        amps,
                        supply,
                        BATTERY_VOLTS));
        reasons.add(lost("cable from battery plus to the starter", plus, amps));
        reasons.add(lost("way from the engine to battery minus", earth, amps));
        String outcome =
                Math.max(plus, earth) <= CABLE_VOLTS ? "even" : plus > earth ? "plus" : "earth";
        return Optional.of(new Judgement(outcome, sentence(outcome, supply), reasons, supply));
    }

    private static String lost(String what, double volts, double amps) {
        return String.format(
                Locale.ROOT,
                "The %s loses %.2f V, which is %.1f mΩ (%.1f V at most are expected).",
                what,
                volts,
                1000 * volts / amps,
                CABLE_VOLTS);
    }

    private static String sentence(String outcome, double supply) {
        return switch (outcome) {
            case "plus" -> "The cable from the battery to the starter loses too much.";
            case "earth" ->
                    "Between engine and battery minus too much is lost: earth strap or cable.";
            default ->
                    supply < BATTERY_VOLTS
                            ? "The cables lose little; the battery itself gives in."
                            : "Battery and cables carry the start.";
        };
    }

    private static double mean(Capture capture, LaneRole role, int[] at) {
        Lane lane = capture.lane(role).orElseThrow();
        return IntStream.of(at).mapToDouble(lane::at).average().orElseThrow();
    }
}
