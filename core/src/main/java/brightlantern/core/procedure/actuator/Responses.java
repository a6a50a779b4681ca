package brightlantern.core.procedure.actuator;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.actuator.Response;
import brightlantern.core.procedure.Study;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.study.reaction.ReactionCheck;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * What follows an actuator that tells no position: command, then current, then what it brings
 * about. Each described value must begin to move in time, the right way, and far enough.
 */
public final class Responses {
    /** Readings are some tens of milliseconds apart; a first movement is known no better. */
    private static final double READ_SECONDS = 0.05;

    /** Judges all that is described to follow. */
    public static final Study STUDY =
            Study.of(List.of("right", "wrong", "not-judged"), Responses::judge);

    private Responses() {}

    /**
     * @param delay until the first movement, s; NaN when it did not move
     * @param moved by how much, in the value's own unit
     */
    private record Found(Response of, double delay, double moved) {
        boolean follows() {
            return moved * of.by() > 0
                    && Math.abs(moved) >= Math.abs(of.by())
                    && delay <= of.seconds();
        }

        boolean still() {
            return Double.isNaN(delay);
        }
    }

    private static Study.Verdict judge(Study.Material m) {
        return judge(
                m.description(),
                m.description().actuator(m.about()).orElseThrow(),
                m.take(),
                m.earlier());
    }

    static Study.Verdict judge(
            VehicleDescription d, Actuator a, Take take, List<Study.Earlier> earlier) {
        List<Found> found = new ArrayList<>();
        List<String> reasons = new ArrayList<>();
        for (Response r : a.responds()) {
            Optional<Found> its = found(a, take, r);
            if (its.isEmpty()) {
                return new Study.Verdict(
                        "not-judged",
                        Optional.empty(),
                        a.name() + " could not be judged.",
                        List.of(
                                name(d, r)
                                        + " was not read closely enough before and after the command."),
                        Optional.empty());
            }
            found.add(its.get());
            reasons.add(told(d, its.get()));
        }
        boolean right = found.stream().allMatch(Found::follows);
        double slowest =
                found.stream().mapToDouble(Found::delay).filter(Double::isFinite).max().orElse(-1);
        boolean moved = found.stream().noneMatch(Found::still);
        ActuatorRun.earlier(earlier, a, moved ? slowest : Double.POSITIVE_INFINITY, READ_SECONDS)
                .ifPresent(reasons::add);
        Take.Column supply = take.columns().get(d.live().supply());
        return new Study.Verdict(
                right ? "right" : "wrong",
                Optional.of(right),
                sentence(d, a, found),
                reasons,
                supply == null || supply.size() == 0
                        ? Optional.empty()
                        : Optional.of(
                                new Evidence.Run(
                                        a.id(),
                                        List.of(a.id()),
                                        moved ? slowest : -1,
                                        READ_SECONDS,
                                        supply.value(0),
                                        right)));
    }

    private static Optional<Found> found(Actuator a, Take take, Response r) {
        if (!take.columns().containsKey(a.command()) || !take.columns().containsKey(r.value())) {
            return Optional.empty();
        }
        // the weakest of its answers counts
        return ReactionCheck.check(take, a.command(), r.value()).steps().stream()
                .filter(s -> s.command() > 0)
                .min(Comparator.comparingDouble(s -> s.answer() * Math.signum(r.by())))
                .map(s -> new Found(r, s.delay(), s.answer()));
    }

    private static String sentence(VehicleDescription d, Actuator a, List<Found> found) {
        List<Found> wrong = found.stream().filter(f -> !f.follows()).toList();
        if (wrong.isEmpty()) {
            return a.name() + " does what it is told.";
        }
        boolean drawsNothing =
                wrong.stream()
                        .anyMatch(
                                f -> f.still() && a.current().equals(Optional.of(f.of().value())));
        if (drawsNothing) {
            return a.name() + " draws no current: its supply, its earth, its wire, or itself.";
        }
        return wrong.size() == found.size() && wrong.stream().allMatch(Found::still)
                ? a.name() + " does nothing that can be read."
                : name(d, wrong.get(0).of()) + " does not follow as it should.";
    }

    private static String told(VehicleDescription d, Found f) {
        Value v = d.value(f.of().value()).orElseThrow();
        String wanted =
                String.format(
                        Locale.ROOT,
                        "right is %s by at least %s within %.1f s",
                        f.of().by() > 0 ? "up" : "down",
                        size(v, f.of().by()),
                        f.of().seconds());
        return f.still()
                ? v.name() + " did not move; " + wanted + "."
                : String.format(
                        Locale.ROOT,
                        "%s began to move after %.2f s and went %s by %s; %s.",
                        v.name(),
                        Math.max(0, f.delay()),
                        f.moved() > 0 ? "up" : "down",
                        size(v, f.moved()),
                        wanted);
    }

    private static String size(Value v, double change) {
        double shown = Scaling.shown(v, Math.abs(change)) - Scaling.shown(v, 0);
        return String.format(Locale.ROOT, "%." + v.digits() + "f %s", shown, v.show()).trim();
    }

    private static String name(VehicleDescription d, Response r) {
        return d.value(r.value()).map(Value::name).orElse(r.value());
    }
}
