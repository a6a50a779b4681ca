package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Wires that blow a fuse when they touch the body, and what a test lamp in the place of that fuse
 * shows then, with all that it feeds unplugged: it is bright where current finds its way to the
 * body through it.
 */
public final class Shorts {
    /** A lamp of 21 W on 12 V, hot. */
    private static final double LAMP_OHM = 7;

    /** A bare wire on bare metal. */
    private static final double TOUCHES_OHM = 0.2;

    /** A lamp that has so much of the supply is bright. */
    private static final double BRIGHT = 0.8;

    /** A point that has less than this share of the supply is dead, with more it is fed. */
    private static final double FED = 0.5;

    private static final double SUPPLY_VOLTS = GaugeState.TYPICAL_VOLTS;

    private Shorts() {}

    /** What the lamp shows. */
    public enum Glow {
        DARK("dark"),
        AT_ONCE("bright at once"),
        SWITCHED_ON("dark, and bright once it is switched on");

        private final String words;

        Glow(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }

        /** As findings name it. */
        public String id() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /**
     * @param fuse that it blows
     * @param glow what a lamp in its place shows
     */
    public record Short(String fuse, Glow glow) {}

    /**
     * Of a circuit as drawn: wire → what becomes of it; wires that no fuse protects are left out.
     */
    public static Map<String, Short> of(Circuit circuit) {
        Map<String, Short> all = new LinkedHashMap<>();
        List<Segment> fuses =
                circuit.segments().stream().filter(s -> s.kind() == SegmentKind.FUSE).toList();
        if (fuses.isEmpty()) {
            return all;
        }
        OperatingState on = switched(circuit);
        CircuitModel model = new CircuitModel(circuit);
        Set<String> fed = fed(model.solve(on, List.of()).volts());
        Map<String, Set<String>> behind = new LinkedHashMap<>();
        for (Segment fuse : fuses) {
            Set<String> left =
                    fed(
                            model.solve(
                                            on,
                                            List.of(
                                                    new Fault.Series(
                                                            fuse.id(), Fault.Series.OPEN_OHM)))
                                    .volts());
            behind.put(
                    fuse.id(),
                    fed.stream().filter(p -> !left.contains(p)).collect(Collectors.toSet()));
        }
        for (Segment wire : circuit.segments()) {
            if (wire.kind() == SegmentKind.WIRE) {
                protecting(wire, behind)
                        .ifPresent(
                                fuse -> {
                                    Glow glow =
                                            glow(
                                                    circuit,
                                                    circuit.components(),
                                                    fuse,
                                                    Set.of(wire.id()));
                                    if (glow != Glow.DARK) {
                                        all.put(wire.id(), new Short(fuse, glow));
                                    }
                                });
            }
        }
        return all;
    }

    /**
     * The fuse that a wire blows when it touches the body.
     *
     * @throws IllegalArgumentException when none protects it
     */
    public static String fuseOf(List<Circuit> circuits, String wire) {
        return circuits.stream()
                .flatMap(c -> Optional.ofNullable(of(c).get(wire)).stream())
                .map(Short::fuse)
                .findFirst()
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "No fuse protects the wire '" + wire + "'"));
    }

    /** The nearest of the fuses behind which both ends of a wire are. */
    private static Optional<String> protecting(Segment wire, Map<String, Set<String>> behind) {
        return behind.entrySet().stream()
                .filter(f -> f.getValue().contains(wire.from()) && f.getValue().contains(wire.to()))
                .min((a, b) -> a.getValue().size() - b.getValue().size())
                .map(Map.Entry::getKey);
    }

    private static Set<String> fed(Map<String, Double> volts) {
        return volts.entrySet().stream()
                .filter(v -> v.getValue() > FED * SUPPLY_VOLTS)
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
    }

    private static OperatingState switched(Circuit circuit) {
        return OperatingState.idle(SUPPLY_VOLTS)
                .moving(
                        circuit.settings().stream()
                                .map(Setting::id)
                                .filter(s -> !Setting.unplugs(s))
                                .collect(Collectors.toSet()));
    }

    /**
     * What a lamp in the place of a fuse shows.
     *
     * @param parts the circuit's parts as they really are
     * @param touching wires that touch the body
     */
    public static Glow glow(
            Circuit circuit, List<Component> parts, String fuse, Set<String> touching) {
        List<Component> with = new ArrayList<>();
        Segment its = null;
        for (Component part : parts) {
            if (part.id().equals(fuse) && part instanceof Segment s) {
                its = s;
                with.add(s.with(LAMP_OHM));
            } else if (part instanceof Segment s && touching.contains(s.id())) {
                with.add(new Chafed(s, Touched.EARTH, TOUCHES_OHM));
            } else {
                with.add(
                        part instanceof Consumer c && c.kind() != ConsumerKind.RELAY
                                ? c.with(Fault.Series.OPEN_OHM)
                                : part);
            }
        }
        if (its == null) {
            return Glow.DARK;
        }
        CircuitModel model = new CircuitModel(circuit, with);
        if (isBright(model, OperatingState.idle(SUPPLY_VOLTS), its)) {
            return Glow.AT_ONCE;
        }
        return isBright(model, switched(circuit), its) ? Glow.SWITCHED_ON : Glow.DARK;
    }

    private static boolean isBright(CircuitModel model, OperatingState state, Segment fuse) {
        Map<String, Double> volts = model.solve(state, List.of()).volts();
        return volts.get(fuse.from()) - volts.get(fuse.to()) > BRIGHT * SUPPLY_VOLTS;
    }
}
