package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Divider;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.Source;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Nothing in a circuit is mended before somebody measured at both of its ends, and what sits inside
 * a module not before somebody unplugged what hangs on it; a contact not before somebody opened its
 * connector, and what comes and goes not before somebody moved it and looked at it; a sensor that
 * tells wrong not before its pins were measured, and its wire without it, and one that is dead not
 * before its wire was looked along; a module is not called dead before what it needs was read at
 * its pins. A list is never complete, and what stands beside the accused unlisted shows there.
 */
final class BothEnds {
    private BothEnds() {}

    /**
     * The reading that is still wanted at an end of what is accused; empty when both were measured,
     * or cannot be.
     *
     * @param found what was found so far
     * @param next checks that may be done
     */
    static Optional<NextCheck> missing(
            VehicleDescription d, String suspectId, List<Evidence> found, List<NextCheck> next) {
        Optional<Suspect> suspect = d.suspect(suspectId);
        Optional<NextCheck> look = suspect.flatMap(s -> look(s, found, next));
        if (look.isPresent()) {
            return look;
        }
        Effect effect = suspect.flatMap(Suspect::effect).orElse(null);
        if (effect instanceof Effect.OfElement element) {
            return ofModule(d, element.element(), found, next);
        }
        boolean atRest = effect instanceof Effect.Stuck || effect instanceof Effect.Off;
        if (!atRest && !(effect instanceof Effect.Series series && series.breaks())) {
            return Optional.empty();
        }
        String of = ((Effect.OfPart) effect).of();
        // a fuse or an earth stands on several sheets; one of them is in question
        for (Circuit circuit : d.wiring().with(of)) {
            Component part = circuit.component(of).orElseThrow();
            Optional<NextCheck> wanted =
                    outside(circuit, part, found, next)
                            .or(() -> alone(circuit, part, effect, found, next))
                            .or(() -> dead(circuit, part, effect, found, next))
                            .or(() -> unread(circuit, part, !atRest, found, next));
            if (wanted.isPresent()) {
                return wanted;
            }
        }
        return Optional.empty();
    }

    /**
     * The check at the first end of a part where nothing was read yet and something can be. What
     * was read with something unplugged shows nothing of what is lost at work, and counts only
     * where it cannot be read otherwise.
     */
    private static Optional<NextCheck> unread(
            Circuit circuit,
            Component part,
            boolean atWork,
            List<Evidence> found,
            List<NextCheck> next) {
        Set<String> read = read(found, false);
        Set<String> plugged = atWork ? read(found, true) : read;
        return ends(part).stream()
                .map(end -> reach(circuit, part, end))
                .filter(points -> points.stream().noneMatch(plugged::contains))
                .flatMap(
                        points ->
                                at(circuit, points, atWork, next)
                                        .filter(
                                                n ->
                                                        !isUnplugged(n)
                                                                || points.stream()
                                                                        .noneMatch(read::contains))
                                        .stream())
                .findFirst();
    }

    private static Set<String> read(List<Evidence> found, boolean plugged) {
        return found.stream()
                .filter(Evidence.Reading.class::isInstance)
                .map(Evidence.Reading.class::cast)
                .filter(r -> !plugged || r.moving().stream().noneMatch(Setting::unplugs))
                .map(Evidence.Reading::pointId)
                .collect(Collectors.toSet());
    }

    /**
     * A module is dead when what it needs arrives at its pins: those are read while it should work,
     * and its connector is opened, as nobody reads behind a contact.
     */
    private static Optional<NextCheck> ofModule(
            VehicleDescription d, String element, List<Evidence> found, List<NextCheck> next) {
        for (Circuit circuit : d.circuits()) {
            for (Gauge g : circuit.gauges()) {
                if (!g.feedsModule() || !element.equals(NetworkModel.deadId(g.module()))) {
                    continue;
                }
                Component module = circuit.component(g.part()).orElseThrow();
                Optional<NextCheck> wanted =
                        unread(circuit, module, true, found, next)
                                .or(() -> opened(circuit, module, found, next));
                if (wanted.isPresent()) {
                    return wanted;
                }
            }
        }
        return Optional.empty();
    }

    /** A look into a connector in which a part hangs, that nobody has taken yet. */
    private static Optional<NextCheck> opened(
            Circuit circuit, Component part, List<Evidence> found, List<NextCheck> next) {
        List<String> ends = ends(part);
        Set<String> looks =
                circuit.segments().stream()
                        .filter(s -> ends.contains(s.from()) || ends.contains(s.to()))
                        .flatMap(s -> s.pin().stream())
                        .map(p -> DrawnCircuits.lookedAt(p.plug()))
                        .collect(Collectors.toCollection(HashSet::new));
        return untaken(looks, found, next);
    }

    private static List<String> ends(Component part) {
        return part instanceof Divider d
                ? List.of(d.out(), d.to(), d.from())
                : List.of(part.from(), part.to());
    }

    /**
     * A look at it alone, or at its connector, that nobody has taken yet. That something jumps
     * while it is moved does not tell it from what is moved with it.
     */
    private static Optional<NextCheck> look(
            Suspect suspect, List<Evidence> found, List<NextCheck> next) {
        Set<String> looks =
                suspect.tells().keySet().stream()
                        .filter(DrawnCircuits::isLook)
                        .collect(Collectors.toCollection(HashSet::new));
        if (!looks.stream().allMatch(Shaken::isFinding)) {
            looks.removeIf(Shaken::isFinding);
        }
        boolean looked =
                found.stream()
                        .anyMatch(
                                e ->
                                        e instanceof Evidence.Outcome o
                                                && looks.contains(o.findingId()));
        return next.stream()
                .filter(n -> !looked)
                .filter(n -> n.check() instanceof Check.Look l && looks.contains(l.finding()))
                .max(Comparator.comparingDouble(NextCheck::bits));
    }

    /**
     * What a module gives out is seen at its pin when nothing outside can pull it down; and no
     * module is replaced before the wire at that pin was looked along, and the sensor behind it
     * measured alone.
     */
    private static Optional<NextCheck> outside(
            Circuit circuit, Component part, List<Evidence> found, List<NextCheck> next) {
        if (!(part instanceof Source)) {
            return Optional.empty();
        }
        Set<String> points = reach(circuit, part, part.from());
        return unplugged(circuit, points, found, next)
                .or(() -> hanging(circuit, points, found, next));
    }

    /**
     * What stands on the wire of a sensor when it is unplugged comes from elsewhere: a wire that
     * leaks makes a sensor seem to tell wrong.
     */
    private static Optional<NextCheck> alone(
            Circuit circuit,
            Component part,
            Effect effect,
            List<Evidence> found,
            List<NextCheck> next) {
        if (!(effect instanceof Effect.Off off) || off.misread()) {
            return Optional.empty();
        }
        String end = part instanceof Divider d ? d.out() : part.from();
        return unplugged(circuit, reach(circuit, part, end), found, next);
    }

    /**
     * A sensor that drives its own wire is not called dead before somebody looked along that wire:
     * where it touches the body no voltage tells the two apart.
     */
    private static Optional<NextCheck> dead(
            Circuit circuit,
            Component part,
            Effect effect,
            List<Evidence> found,
            List<NextCheck> next) {
        return part instanceof Divider d && effect instanceof Effect.Series
                ? hanging(circuit, reach(circuit, part, d.out()), found, next)
                : Optional.empty();
    }

    private static Optional<NextCheck> hanging(
            Circuit circuit, Set<String> points, List<Evidence> found, List<NextCheck> next) {
        Set<String> wires =
                circuit.segments().stream()
                        .filter(s -> s.kind().isLine())
                        .filter(s -> points.contains(s.from()) || points.contains(s.to()))
                        .map(Segment::id)
                        .collect(Collectors.toSet());
        Set<String> behind =
                circuit.segments().stream()
                        .filter(s -> wires.contains(s.id()))
                        .flatMap(s -> Stream.of(s.from(), s.to()))
                        .collect(Collectors.toSet());
        Set<String> looks = wires.stream().map(DrawnCircuits::along).collect(Collectors.toSet());
        circuit.gauges().stream()
                .filter(g -> g.isOhms() && (behind.contains(g.from()) || behind.contains(g.to())))
                .forEach(g -> looks.add(g.findingId()));
        return untaken(looks, found, next);
    }

    /** The shortest of some looks that nobody has taken yet. */
    private static Optional<NextCheck> untaken(
            Set<String> looks, List<Evidence> found, List<NextCheck> next) {
        found.forEach(
                e -> {
                    if (e instanceof Evidence.Outcome o) {
                        looks.remove(o.findingId());
                    }
                });
        return next.stream()
                .filter(n -> n.check() instanceof Check.Look l && looks.contains(l.finding()))
                .min(Comparator.comparingDouble(n -> n.check().minutes()));
    }

    private static Optional<NextCheck> unplugged(
            Circuit circuit, Set<String> points, List<Evidence> found, List<NextCheck> next) {
        boolean seen =
                found.stream()
                        .anyMatch(
                                e ->
                                        e instanceof Evidence.Reading r
                                                && points.contains(r.pointId())
                                                && r.moving().stream().anyMatch(Setting::unplugs));
        return next.stream()
                .filter(n -> !seen)
                .filter(
                        n ->
                                n.check() instanceof Check.Reading r
                                        && r.circuit().equals(circuit.id())
                                        && points.contains(r.point())
                                        && isUnplugged(n))
                .max(Comparator.comparingDouble(NextCheck::bits));
    }

    /** Whether something is unplugged for a check. */
    static boolean isUnplugged(NextCheck next) {
        return next.check() instanceof Check.Reading r
                && r.moving().stream().anyMatch(Setting::unplugs);
    }

    /** The nearest points that a probe can touch on one side of a part. */
    private static Set<String> reach(Circuit circuit, Component part, String end) {
        Set<String> points = new HashSet<>();
        Set<String> seen = new HashSet<>(List.of(part.from(), part.to()));
        Deque<String> open = new ArrayDeque<>(List.of(end));
        while (!open.isEmpty()) {
            String node = open.remove();
            if (circuit.point(node).canBeProbed()) {
                points.add(node);
                continue;
            }
            for (Component c : circuit.components()) {
                String other =
                        c.from().equals(node) ? c.to() : c.to().equals(node) ? c.from() : node;
                if (c != part && seen.add(other)) {
                    open.add(other);
                }
            }
        }
        return points;
    }

    /**
     * The most telling check at one of these points.
     *
     * @param atWork or what should be off is measured while it should
     */
    private static Optional<NextCheck> at(
            Circuit circuit, Set<String> points, boolean atWork, List<NextCheck> next) {
        return next.stream()
                .filter(
                        n ->
                                n.check() instanceof Check.Reading r
                                        && r.circuit().equals(circuit.id())
                                        && points.contains(r.point()))
                .max(
                        Comparator.comparingInt((NextCheck n) -> flow(n, atWork))
                                .thenComparingDouble(NextCheck::bits));
    }

    /** How well a check shows what is lost at work, or what is there at rest; more is better. */
    private static int flow(NextCheck next, boolean atWork) {
        if (isUnplugged(next)) {
            // nothing flows through what is unplugged, so nothing is lost on the way there
            return 0;
        }
        return ((Check.Reading) next.check()).moving().isEmpty() == atWork ? 1 : 2;
    }
}
