package brightlantern.standin.plant;

import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Ohms;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Touched;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What is broken in the circuits of one vehicle, all the time or only while it is shaken. */
final class BrokenParts {
    /** Pins that do not touch: far more than any input's own resistance. */
    private static final double APART_OHM = 1e9;

    /** All parts of its circuits, by their ids. */
    private final Map<String, Component> built;

    private final Map<String, Fault> faults = new LinkedHashMap<>();

    /** Wires that touch the body → the fuse that they blow. */
    private final Map<String, String> touching = new HashMap<>();

    /** What opens when it is shaken; of a connector the first of its contacts. */
    private final Set<String> loose = new LinkedHashSet<>();

    private boolean shaken;

    /**
     * @param built all parts; it may still grow
     */
    BrokenParts(Map<String, Component> built) {
        this.built = built;
    }

    /**
     * Breaks a part.
     *
     * @param size in the unit of the mode
     * @param fuseOf the fuse that protects a wire
     * @throws IllegalArgumentException when there is no such part, or it does not break so
     */
    synchronized void fail(String mode, String of, double size, UnaryOperator<String> fuseOf) {
        if (!built.containsKey(of)) {
            throw new IllegalArgumentException("No circuit has a part '" + of + "' that breaks so");
        }
        if (mode.equals(CircuitFailures.LOOSE)) {
            loose.add(of);
        } else {
            faults.put(of, fault(mode, of, size, fuseOf));
        }
    }

    private Fault fault(String mode, String of, double size, UnaryOperator<String> fuseOf) {
        return switch (mode) {
            case CircuitFailures.SERIES -> new Fault.Series(of, size);
            case CircuitFailures.STUCK -> new Fault.Stuck(of);
            case CircuitFailures.CHAFED -> new Fault.Chafed(of, Touched.EARTH, size);
            case CircuitFailures.LIVE -> new Fault.Chafed(of, Touched.LIVE, size);
            case CircuitFailures.BIASED -> new Fault.Biased(of, size);
            case CircuitFailures.MISREAD -> new Fault.Misread(of, size);
            case CircuitFailures.SHORTED -> {
                String fuse = fuseOf.apply(of);
                touching.put(of, fuse);
                // whoever replaces the fuse alone sees the new one blow
                yield new Fault.Series(fuse, Fault.Series.OPEN_OHM);
            }
            default ->
                    throw new IllegalArgumentException(
                            "A part of a circuit does not break by '" + mode + "'");
        };
    }

    /** The size of a fault, with its unit. */
    static String told(String mode, double size) {
        return switch (mode) {
            case CircuitFailures.LOOSE -> "when shaken";
            case CircuitFailures.STUCK -> "at all times";
            case CircuitFailures.BIASED, CircuitFailures.MISREAD ->
                    String.format(Locale.ROOT, "%.3g times", size);
            default -> size >= Fault.Series.OPEN_OHM ? "open" : Ohms.told(size);
        };
    }

    /** Whether a part was broken, and is whole now. */
    synchronized boolean mend(String part) {
        touching.remove(part);
        boolean was = loose.remove(part);
        return faults.remove(part) != null || was;
    }

    /** On the road all that is loose opens; at rest all of it holds. */
    synchronized void shake(boolean now) {
        shaken = now;
    }

    synchronized boolean isShaken() {
        return shaken;
    }

    synchronized boolean isNothing() {
        return faults.isEmpty() && loose.isEmpty();
    }

    synchronized boolean isAnyLoose() {
        return !loose.isEmpty();
    }

    /**
     * Whether something flickers or jumps while a part, or the harness at a connector, is moved.
     */
    synchronized boolean jumps(String moved) {
        return loose.stream()
                .anyMatch(
                        id ->
                                isAt(built.get(id), moved)
                                        || isTapped(id) && id.equals(moved)
                                        || isLine(id)
                                                && ((Segment) built.get(id))
                                                        .plugs()
                                                        .contains(moved));
    }

    private boolean isTapped(String id) {
        return built.get(id) instanceof Segment s && s.isTapped();
    }

    private boolean isLine(String id) {
        return built.get(id) instanceof Segment s && s.kind().isLine();
    }

    /** What can be tapped and moved by itself. */
    synchronized Set<String> tapped() {
        return built.keySet().stream().filter(this::isTapped).collect(Collectors.toSet());
    }

    /** The faults of this moment. */
    synchronized List<Fault> now() {
        List<Fault> all = new ArrayList<>(faults.values());
        if (shaken) {
            Set<String> plugs =
                    loose.stream()
                            .flatMap(c -> pin(built.get(c)).stream())
                            .map(Segment.Pin::plug)
                            .collect(Collectors.toSet());
            built.values().stream()
                    .filter(
                            p ->
                                    pin(p).filter(x -> plugs.contains(x.plug())).isPresent()
                                            || loose.contains(p.id()))
                    .filter(p -> !faults.containsKey(p.id()))
                    .forEach(p -> all.add(new Fault.Series(p.id(), APART_OHM)));
        }
        return all;
    }

    private static Optional<Segment.Pin> pin(Component part) {
        return part instanceof Segment s ? s.pin() : Optional.empty();
    }

    private static boolean isAt(Component part, String plug) {
        return pin(part).filter(p -> p.plug().equals(plug)).isPresent();
    }

    /** Number of the first pin of a connector that looks bad, or holds loosely. */
    synchronized Optional<String> badPin(String plug) {
        return Stream.concat(faults.keySet().stream(), loose.stream())
                .flatMap(f -> Optional.ofNullable(built.get(f)).stream())
                .filter(p -> isAt(p, plug))
                .flatMap(p -> pin(p).stream())
                .map(Segment.Pin::number)
                .findFirst();
    }

    /** Wires that touch the body and blow this fuse. */
    synchronized Set<String> touching(String fuse) {
        return touching.entrySet().stream()
                .filter(t -> t.getValue().equals(fuse))
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
    }

    /** How a wire is all along. */
    synchronized Along along(String wire) {
        if (touching.containsKey(wire)) {
            return Along.RUBBED;
        }
        if (faults.get(wire) instanceof Fault.Chafed chafed) {
            return chafed.touched() == Touched.EARTH ? Along.RUBBED : Along.AGAINST;
        }
        return loose.contains(wire) ? Along.GIVES : Along.CLEAN;
    }
}
