package brightlantern.core.capture;

import brightlantern.core.circuit.Gauge;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;

/**
 * What coils and injectors draw: a clamp round the feed that they share shows one ramp after the
 * other in the order of firing, and a second one round the wire of the first to fire says which is
 * whose.
 */
public final class CurrentStudy {
    /** Slower than this no ramp can be told, s. */
    private static final double SLOWEST_INTERVAL = 5e-5;

    private static final double SHORTEST_SECONDS = 0.5;

    /** Above this share of the largest current something is on. */
    private static final double ON = 0.15;

    /** It is off again below this share of where it was on, so that noise ends nothing. */
    private static final double OFF = 0.4;

    /** Less than this, A, is what a clamp shows of itself. */
    private static final double LEAST_AMPS = 0.2;

    /** Of the middle one of its kind, or of what it is made for. */
    private static final double LITTLE = 0.78;

    private static final double MUCH = 1.3;

    /** With pulses in fewer of its turns than this it is off now and then. */
    private static final double ALWAYS = 0.9;

    private static final double NEVER = 0.1;

    /** A pulse begins so far before or behind where its turn would begin, as a share of a turn. */
    private static final double EARLY = 0.3;

    /** Fewer pulses are no train. */
    private static final int TRAIN = 3;

    /** A gap of so many usual ones lacks a pulse. */
    private static final double GAP = 1.6;

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
                        starts(upright(capture, kind.all).orElseThrow()).size() < TRAIN
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
            if (upright(capture, kind.all).orElseThrow() != capture.lane(kind.all).orElseThrow()) {
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
        Lane all = upright(capture, kind.all).orElseThrow();
        List<Turn> turns = turns(capture, kind).orElseThrow();
        double on = on(all);
        List<Optional<CurrentRamp>> ramps = new ArrayList<>();
        List<Double> often = new ArrayList<>();
        for (int k = 0; k < order.size(); k++) {
            List<Integer> starts = new ArrayList<>();
            int length = Integer.MAX_VALUE;
            for (Turn turn : turns) {
                int start = turn.start(all, k, order.size(), on);
                int end = end(all, start, on);
                if (start >= 0 && end - start >= CurrentRamp.LEAST) {
                    starts.add(start);
                    length = Math.min(length, end - start);
                }
            }
            often.add(starts.size() / (double) turns.size());
            ramps.add(
                    often.get(k) < NEVER
                            ? Optional.empty()
                            : Optional.of(CurrentRamp.of(all, starts, length, capture.interval())));
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

    private static double on(Lane lane) {
        return Math.max(LEAST_AMPS, ON * lane.most());
    }

    private static int end(Lane lane, int start, double on) {
        int i = Math.max(0, start);
        while (i < lane.length() && lane.at(i) > OFF * on) {
            i++;
        }
        return i;
    }

    /** From one pulse of the first cylinder to its next, in samples. */
    private record Turn(double from, double to) {
        /** Where the pulse of the k-th to fire begins; below 0 where none comes. */
        int start(Lane lane, int k, int of, double on) {
            double turn = (to - from) / of;
            double at = from + k * turn;
            int begin = (int) Math.max(1, Math.round(at - EARLY * turn));
            int end = (int) Math.min(lane.length() - 1, Math.round(at + (1 - 2 * EARLY) * turn));
            for (int i = begin; i < end; i++) {
                if (rises(lane, i, on)) {
                    return i;
                }
            }
            return -1;
        }
    }

    /**
     * The turns of the engine: from the clamp at the first cylinder, or, where nothing flows there,
     * from the one gap that is left in the feed of all.
     */
    private Optional<List<Turn>> turns(Capture capture, Kind kind) {
        List<Integer> first = upright(capture, kind.first).map(CurrentStudy::starts).orElseThrow();
        List<Turn> turns = new ArrayList<>();
        if (first.size() >= TRAIN) {
            for (int i = 1; i < first.size(); i++) {
                turns.add(new Turn(first.get(i - 1), first.get(i)));
            }
            return Optional.of(turns);
        }
        List<Integer> all = upright(capture, kind.all).map(CurrentStudy::starts).orElseThrow();
        if (all.size() < TRAIN * order.size()) {
            return Optional.empty();
        }
        double usual = usual(all);
        int last = -1;
        for (int i = 1; i < all.size(); i++) {
            if (all.get(i) - all.get(i - 1) > GAP * usual) {
                if (last >= 0 && i - last == order.size() - 1) {
                    turns.add(new Turn(all.get(last) - usual, all.get(i) - usual));
                }
                last = i;
            }
        }
        return turns.isEmpty() ? Optional.empty() : Optional.of(turns);
    }

    /** Middle distance from one pulse to the next, in samples. */
    private static double usual(List<Integer> starts) {
        int[] gaps =
                IntStream.range(1, starts.size())
                        .map(i -> starts.get(i) - starts.get(i - 1))
                        .sorted()
                        .toArray();
        return gaps[gaps.length / 2];
    }

    /** Samples at which something is switched on. */
    private static List<Integer> starts(Lane lane) {
        double on = on(lane);
        List<Integer> starts = new ArrayList<>();
        int i = 1;
        while (i < lane.length() - 1) {
            if (rises(lane, i, on)) {
                starts.add(i);
                i = end(lane, i, on);
            }
            i++;
        }
        return starts;
    }

    private static boolean rises(Lane lane, int i, double on) {
        return lane.at(i - 1) <= on && lane.at(i) > on && lane.at(i + 1) > on;
    }

    /** A clamp that sits the wrong way round shows everything below its rest. */
    private static Optional<Lane> upright(Capture capture, LaneRole role) {
        return capture.lane(role).map(l -> -l.least() > l.most() ? l.inverted() : l);
    }

    private static String lower(String words) {
        return words.substring(0, 1).toLowerCase(Locale.ROOT) + words.substring(1);
    }

    private static String text(String format, Object... of) {
        return String.format(Locale.ROOT, format, of);
    }
}
