package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Which lane left its pattern first, where a module counts misfires of a cylinder: its coil, its
 * injector, or the count. The pattern of each is learned from how it began; a train of pulses has
 * left it when several are missing in a row, a count when it rises and goes on. What follows by its
 * function is not taken for a cause: a module stops an injector because of its count.
 */
public final class DepartureStudy {
    /** A train that lacks so many pulses in a row has left its pattern. */
    private static final double LACKS = 5;

    /** The usual gap follows the speed by this share of each new one. */
    private static final double FOLLOWS = 1.0 / 8;

    /** A count that rises by so much within so many seconds has left. */
    private static final int RISES = 3;

    private static final double RISES_WITHIN = 5;

    /** A live value is asked so often, s; what it shows may have happened so much earlier. */
    private static final double ASKED_EVERY = 0.4;

    /** Trains that end this near to each other at the end were switched off with the engine, s. */
    private static final double TOGETHER = 0.3;

    private static final double SHORTEST_SECONDS = 5;

    private DepartureStudy() {}

    /**
     * A lane that left its pattern.
     *
     * @param seconds since the start
     * @param within how exactly that is known, s
     */
    public record Departure(LaneRole role, String name, double seconds, double within) {}

    /** What it is told as. */
    private static final String LEFT_FIRST = "left-first";

    /**
     * @param outcome none, coil, injector, count or together
     * @param order those that left, the first first
     */
    public record Judgement(
            String outcome, String sentence, List<String> reasons, List<Departure> order)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
            order = List.copyOf(order);
        }

        /** Whether all kept their pattern. */
        @Override
        public boolean holds() {
            return outcome.equals("none");
        }

        @Override
        public List<Told> tells() {
            return List.of(new Told(LEFT_FIRST, outcome, holds(), sentence));
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    public static Optional<String> whyNot(Capture capture) {
        if (capture.lane(LaneRole.COUNT).isEmpty() || capture.lane(LaneRole.INJECTOR).isEmpty()) {
            return Optional.of(
                    "It needs the injector and the count of misfires of one cylinder beside each other.");
        }
        if (capture.seconds() < SHORTEST_SECONDS) {
            return Optional.of(
                    text(
                            "It is %.1f s long; expected %.0f s or more.",
                            capture.seconds(), SHORTEST_SECONDS));
        }
        boolean trains =
                capture.lanes().stream()
                        .filter(l -> l.role() == LaneRole.COIL || l.role() == LaneRole.INJECTOR)
                        .allMatch(
                                l ->
                                        Pulses.of(l, capture.interval())
                                                .filter(Pulses::isTrain)
                                                .isPresent());
        return trains
                ? Optional.empty()
                : Optional.of(
                        "A clamp shows no pulses: the engine did not run, or the clamp is not round the feed.");
    }

    /** Who left first; empty when nothing can be said, and {@link #whyNot} says why. */
    public static Optional<Judgement> judge(Capture capture) {
        if (whyNot(capture).isPresent()) {
            return Optional.empty();
        }
        List<String> reasons = new ArrayList<>();
        Optional<Departure> coil = pulses(capture, LaneRole.COIL);
        Optional<Departure> injector = pulses(capture, LaneRole.INJECTOR);
        Optional<Departure> count = count(capture);
        // what is still counted still turns
        if (count.isEmpty()
                && coil.isPresent()
                && injector.isPresent()
                && stopped(capture, coil, injector)) {
            reasons.add(
                    text(
                            "Coil and injector end together at %.1f s and do not come back: the engine was switched off there.",
                            coil.get().seconds()));
            coil = Optional.empty();
            injector = Optional.empty();
        }
        List<Departure> order = new ArrayList<>();
        coil.ifPresent(order::add);
        injector.ifPresent(order::add);
        count.ifPresent(order::add);
        order.sort(Comparator.comparingDouble(Departure::seconds));
        order.forEach(
                d ->
                        reasons.add(
                                text(
                                        "%s left its pattern at %.2f s (known to %.2f s).",
                                        d.name(), d.seconds(), d.within())));
        capture.lanes().stream()
                .filter(l -> order.stream().noneMatch(d -> d.role() == l.role()))
                .forEach(l -> reasons.add(l.name() + " kept its pattern all the while."));
        return Optional.of(judgement(order, reasons));
    }

    private static boolean stopped(
            Capture capture, Optional<Departure> coil, Optional<Departure> injector) {
        return Math.abs(coil.orElseThrow().seconds() - injector.orElseThrow().seconds()) < TOGETHER
                && lastRise(capture, LaneRole.COIL) <= coil.get().seconds()
                && lastRise(capture, LaneRole.INJECTOR) <= injector.get().seconds();
    }

    private static double lastRise(Capture capture, LaneRole role) {
        List<Double> rises = train(capture, role).orElseThrow().rises();
        return rises.get(rises.size() - 1);
    }

    private static Optional<Pulses> train(Capture capture, LaneRole role) {
        return capture.lane(role).flatMap(l -> Pulses.of(l, capture.interval()));
    }

    /** The first gap that several pulses would have filled, by the gaps before it. */
    private static Optional<Departure> pulses(Capture capture, LaneRole role) {
        Optional<Pulses> train = train(capture, role);
        if (train.isEmpty()) {
            return Optional.empty();
        }
        List<Double> rises = train.get().rises();
        double usual = rises.get(1) - rises.get(0);
        for (int i = 0; i < rises.size(); i++) {
            double next = i + 1 < rises.size() ? rises.get(i + 1) : capture.seconds();
            double gap = next - rises.get(i);
            if (gap > LACKS * usual) {
                return Optional.of(
                        new Departure(
                                role,
                                capture.lane(role).orElseThrow().name(),
                                rises.get(i) + usual,
                                usual));
            }
            usual += (gap - usual) * FOLLOWS;
        }
        return Optional.empty();
    }

    /** Where a count begins to rise and goes on. */
    private static Optional<Departure> count(Capture capture) {
        Lane lane = capture.lane(LaneRole.COUNT).orElseThrow();
        int back = (int) (RISES_WITHIN / capture.interval());
        int from = 0;
        for (int i = 1; i < lane.length(); i++) {
            if (lane.at(i) < lane.at(i - 1) || i - from > back) {
                // what it forgets, and what rose slowly, is no beginning
                from = i;
            }
            if (lane.at(i) - lane.at(from) >= RISES) {
                int first = from;
                while (lane.at(first) <= lane.at(from)) {
                    first++;
                }
                return Optional.of(
                        new Departure(
                                LaneRole.COUNT,
                                lane.name(),
                                first * capture.interval(),
                                ASKED_EVERY));
            }
        }
        return Optional.empty();
    }

    private static Judgement judgement(List<Departure> order, List<String> reasons) {
        if (order.isEmpty()) {
            return new Judgement(
                    "none",
                    "None left its pattern: it was not under load long enough, or nothing is wrong.",
                    reasons,
                    order);
        }
        Optional<Departure> coil = of(order, LaneRole.COIL);
        Optional<Departure> injector = of(order, LaneRole.INJECTOR);
        Departure first = order.get(0);
        if (coil.isPresent() && isBefore(coil.get(), order)) {
            boolean both =
                    injector.isPresent()
                            && Math.abs(injector.get().seconds() - coil.get().seconds()) < TOGETHER;
            return both
                    ? new Judgement(
                            "together",
                            "Coil and injector left together: look for what feeds both.",
                            reasons,
                            order)
                    : new Judgement(
                            "coil",
                            "The coil left first"
                                    + then(order, coil.get())
                                    + ": the coil, or what feeds it, is at fault.",
                            reasons,
                            order);
        }
        if (injector.isPresent() && isBefore(injector.get(), order)) {
            return new Judgement(
                    "injector",
                    "The injector left first"
                            + then(order, injector.get())
                            + ": its wire or what drives it is at fault, and nothing was counted before.",
                    reasons,
                    order);
        }
        String stopped =
                injector.map(
                                i ->
                                        text(
                                                ", and the module stopped the injector %.1f s later because of it",
                                                i.seconds() - first.seconds()))
                        .orElse("");
        return new Judgement(
                "count",
                "The count of misfires rose first"
                        + stopped
                        + ": coil and injector worked when it began. Either the cylinder lacks what no clamp shows, or the count itself is wrong.",
                reasons,
                order);
    }

    /** Whether it left before all others, or as near to the first as those can be read. */
    private static boolean isBefore(Departure one, List<Departure> order) {
        Departure first = order.get(0);
        return one.seconds() - first.seconds() <= Math.max(one.within(), first.within());
    }

    private static Optional<Departure> of(List<Departure> order, LaneRole role) {
        return order.stream().filter(d -> d.role() == role).findFirst();
    }

    private static String then(List<Departure> order, Departure lead) {
        StringBuilder then = new StringBuilder();
        order.stream()
                .filter(d -> d != lead)
                .forEach(
                        d ->
                                then.append(
                                        text(
                                                ", then %s after %.1f s",
                                                d.role().words().toLowerCase(Locale.ROOT),
                                                Math.max(0, d.seconds() - lead.seconds()))));
        return then.toString();
    }

    private static String text(String format, Object... with) {
        return String.format(Locale.ROOT, format, with);
    }
}
