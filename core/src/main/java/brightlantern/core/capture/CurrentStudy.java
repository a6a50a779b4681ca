package brightlantern.core.capture;

import brightlantern.core.circuit.Gauge;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * What coils and injectors draw: a clamp round the feed that they share shows one ramp after the
 * other in the order of firing, and a second one round the wire of the first to fire says which is
 * whose.
 */
public final class CurrentStudy {
    /** Slower than this no ramp can be told, s. */
    private static final double SLOWEST_INTERVAL = 5e-5;

    private static final double SHORTEST_SECONDS = 0.5;

    /** Of the middle one of its kind, or of what it is made for. */
    private static final double LITTLE = 0.78;

    private static final double MUCH = 1.3;

    /** With pulses in fewer of its turns than this it is off now and then. */
    private static final double ALWAYS = 0.9;

    private static final double NEVER = 0.1;

    private final List<Integer> order;
    private final Map<String, Double> amps;

    /**
     * @param order in which the cylinders fire
     * @param amps what a consumer is made for, A, by its id
     */
    CurrentStudy(List<Integer> order, Map<String, Double> amps) {
        this.order = List.copyOf(order);
        this.amps = Map.copyOf(amps);
    }

    /** Coils or injectors: the lane of all of them, that of the first, and how each is called. */
    private enum Kind {
        /** It is switched off before its end, so what it is made for is not what it comes to. */
        COIL(LaneRole.COILS, LaneRole.COIL, "coil-", "Ignition coil", false),
        INJECTOR(LaneRole.INJECTORS, LaneRole.INJECTOR, "injector-coil-", "Injector", true);

        private final LaneRole all;
        private final LaneRole first;
        private final String consumer;
        private final String words;
        private final boolean toItsEnd;

        Kind(LaneRole all, LaneRole first, String consumer, String words, boolean toItsEnd) {
            this.all = all;
            this.first = first;
            this.consumer = consumer;
            this.words = words;
            this.toItsEnd = toItsEnd;
        }
    }

    /** Whether the current of this consumer is read in a capture: what pulses no meter follows. */
    public static boolean reads(String consumerId) {
        return Arrays.stream(Kind.values())
                .anyMatch(k -> consumerId.matches(k.consumer + "[1-9][0-9]?"));
    }

    /** What one is made for, A; 0 where that is not known. */
    private double made(Kind kind, int cylinder) {
        return kind.toItsEnd ? amps.getOrDefault(kind.consumer + cylinder, 0.0) : 0;
    }

    /**
     * One coil or injector.
     *
     * @param name as it is told
     * @param band none, little, right, much or skips
     * @param ramp empty where nothing flows
     * @param share of the middle one's current; NaN where nothing flows
     */
    public record Drawn(
            String name, String finding, String band, Optional<CurrentRamp> ramp, double share) {
        /** Whether it draws what it should. */
        public boolean isRight() {
            return band.equals("right");
        }
    }

    /**
     * @param drawn by kind, then in the order of the cylinders' numbers
     */
    public record Judgement(
            String sentence, List<String> reasons, List<Drawn> drawn, List<Told> tells)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
            drawn = List.copyOf(drawn);
            tells = List.copyOf(tells);
        }

        @Override
        public boolean holds() {
            return drawn.stream().allMatch(Drawn::isRight);
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    Optional<String> whyNot(Capture capture) {
        if (capture.interval() > SLOWEST_INTERVAL || capture.seconds() < SHORTEST_SECONDS) {
            return Optional.of(
                    text(
                            "It has a sample every %.0f µs for %.2f s; expected one every %.0f µs or faster, for %.1f s or longer.",
                            1e6 * capture.interval(),
                            capture.seconds(),
                            1e6 * SLOWEST_INTERVAL,
                            SHORTEST_SECONDS));
        }
        for (Kind kind : kinds(capture)) {
            Optional<Lane> first = capture.lane(kind.first);
            if (first.isEmpty()) {
                return Optional.of(
                        text(
                                "Which %s is whose cannot be told without a clamp round the wire of cylinder %d alone.",
                                lower(kind.words), order.get(0)));
            }
            if (capture.lane(kind.all).orElseThrow().clipped()) {
                return Optional.of(
                        "Its peaks lie flat at the end of the range: choose a larger one.");
            }
            if (turns(capture, kind).isEmpty()) {
                return Optional.of(
                        lane(capture, kind.all).starts().size() < SwitchedLane.TRAIN
                                ? text(
                                        "No current comes again and again in %s: the engine did not run, or the clamp is not round the feed.",
                                        lower(kind.all.words()))
                                : text(
                                        "Which %s is whose cannot be told: the clamp at cylinder %d shows no current, and the others leave no gap where its own would be.",
                                        lower(kind.words), order.get(0)));
            }
        }
        return Optional.empty();
    }

    private static List<Kind> kinds(Capture capture) {
        return Arrays.stream(Kind.values()).filter(k -> capture.lane(k.all).isPresent()).toList();
    }

    /** What it says; empty when nothing can be said, and {@link #whyNot} says why. */
    Optional<Judgement> judge(Capture capture) {
        if (whyNot(capture).isPresent()) {
            return Optional.empty();
        }
        List<Drawn> all = new ArrayList<>();
        List<CaptureReading.Told> told = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        List<String> reasons = new ArrayList<>();
        for (Kind kind : kinds(capture)) {
            List<Drawn> drawn = drawn(capture, kind);
            all.addAll(drawn);
            OptionalDouble right = right(kind, drawn);
            reasons.add(together(kind, drawn));
            if (SwitchedLane.isTurned(capture.lane(kind.all).orElseThrow())) {
                reasons.add(
                        "The clamp of "
                                + lower(kind.all.words())
                                + " sat the wrong way round; its lane was turned over.");
            }
            drawn.stream().filter(d -> !d.isRight()).forEach(d -> wrong.add(wrong(d, right)));
            // without what they are made for, one can only be held against the others
            if (made(kind, order.get(0)) > 0 || drawn.stream().anyMatch(d -> !d.isRight())) {
                drawn.stream().filter(d -> isTold(d.band())).forEach(d -> told.add(told(d)));
            }
        }
        String sentence =
                wrong.isEmpty()
                        ? "All draw what they should, one like the other."
                        : String.join(" ", wrong);
        return Optional.of(new Judgement(sentence, reasons, all, told));
    }

    private static boolean isTold(String band) {
        return List.of("none", "little", "right").contains(band);
    }

    private static CaptureReading.Told told(Drawn d) {
        return new CaptureReading.Told(d.finding(), d.band(), d.isRight(), words(d));
    }

    private static String words(Drawn d) {
        return d.ramp()
                .map(r -> text("%s draws %.2f A in the end.", d.name(), r.amps()))
                .orElse(d.name() + " draws nothing.");
    }

    /** All of a kind in a sentence. */
    private static String together(Kind kind, List<Drawn> drawn) {
        List<CurrentRamp> ramps = drawn.stream().flatMap(d -> d.ramp().stream()).toList();
        if (ramps.isEmpty()) {
            return kind.words + "s: none draws anything.";
        }
        double off =
                drawn.stream()
                        .filter(d -> d.ramp().isPresent())
                        .mapToDouble(d -> Math.abs(d.share() - 1))
                        .max()
                        .orElseThrow();
        long moves = ramps.stream().filter(r -> !Double.isNaN(r.moves())).count();
        return text(
                        "%ss: the middle one would come to %.2f A, the furthest lies %.0f %% off",
                        kind.words, middle(ramps), 100 * off)
                + (kind.toItsEnd
                        ? text("; an armature is seen to move in %d of %d.", moves, ramps.size())
                        : ".");
    }

    private static String wrong(Drawn d, OptionalDouble right) {
        return switch (d.band()) {
            case "none" ->
                    d.name()
                            + " gets no current: its coil or a wire of it is broken, or its module leaves it off.";
            case "skips" -> d.name() + " is left out now and then.";
            case "much" ->
                    text(
                            "%s draws %.2f A where %.2f A are right: its winding is bridged.",
                            d.name(), d.ramp().orElseThrow().amps(), right.orElse(Double.NaN));
            default ->
                    text(
                            "%s draws %.2f A where %.2f A are right: something is in its way.",
                            d.name(), d.ramp().orElseThrow().amps(), right.orElse(Double.NaN));
        };
    }

    /** What is right for each, A: the middle one's, unless that is less than they are made for. */
    private OptionalDouble right(Kind kind, List<Drawn> drawn) {
        double middle = middle(drawn.stream().flatMap(d -> d.ramp().stream()).toList());
        double made = made(kind, order.get(0));
        return Double.isNaN(middle)
                ? OptionalDouble.empty()
                : OptionalDouble.of(middle < LITTLE * made ? made : middle);
    }

    private static double middle(List<CurrentRamp> ramps) {
        double[] sorted = ramps.stream().mapToDouble(CurrentRamp::amps).sorted().toArray();
        return sorted.length == 0 ? Double.NaN : sorted[sorted.length / 2];
    }

    private List<Drawn> drawn(Capture capture, Kind kind) {
        SwitchedLane all = lane(capture, kind.all);
        List<EngineTurn> turns = turns(capture, kind);
        List<Optional<CurrentRamp>> ramps = new ArrayList<>();
        List<Double> often = new ArrayList<>();
        for (int k = 0; k < order.size(); k++) {
            List<Integer> starts = new ArrayList<>();
            int length = Integer.MAX_VALUE;
            for (EngineTurn turn : turns) {
                int start = turn.start(all, k, order.size());
                int end = all.end(start);
                if (start >= 0 && end - start >= CurrentRamp.LEAST) {
                    starts.add(start);
                    length = Math.min(length, end - start);
                }
            }
            often.add(starts.size() / (double) turns.size());
            ramps.add(
                    often.get(k) < NEVER
                            ? Optional.empty()
                            : Optional.of(
                                    CurrentRamp.of(
                                            all.lane(), starts, length, capture.interval())));
        }
        if (ramps.stream().flatMap(Optional::stream).anyMatch(CurrentRamp::isStraight)) {
            // all are held against each other by the same figure
            ramps.replaceAll(r -> r.map(CurrentRamp::asItEnds));
        }
        double middle = middle(ramps.stream().flatMap(Optional::stream).toList());
        List<Drawn> drawn = new ArrayList<>();
        for (int n = 1; n <= order.size(); n++) {
            int k = order.indexOf(n);
            String id = kind.consumer + n;
            double share = ramps.get(k).map(r -> r.amps() / middle).orElse(Double.NaN);
            drawn.add(
                    new Drawn(
                            kind.words + " " + n,
                            Gauge.findingOf(Gauge.ampsOf(id)),
                            band(ramps.get(k), share, often.get(k), made(kind, n)),
                            ramps.get(k),
                            share));
        }
        return drawn;
    }

    private static String band(
            Optional<CurrentRamp> ramp, double share, double often, double made) {
        if (ramp.isEmpty()) {
            return "none";
        }
        if (share < LITTLE || ramp.get().amps() < LITTLE * made) {
            return "little";
        }
        return share > MUCH ? "much" : often < ALWAYS ? "skips" : "right";
    }

    private static SwitchedLane lane(Capture capture, LaneRole role) {
        return new SwitchedLane(capture.lane(role).orElseThrow());
    }

    private List<EngineTurn> turns(Capture capture, Kind kind) {
        return EngineTurn.of(lane(capture, kind.first), lane(capture, kind.all), order.size());
    }

    private static String lower(String words) {
        return words.substring(0, 1).toLowerCase(Locale.ROOT) + words.substring(1);
    }

    private static String text(String format, Object... of) {
        return String.format(Locale.ROOT, format, of);
    }
}
