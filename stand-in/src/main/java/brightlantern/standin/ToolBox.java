package brightlantern.standin;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Hands;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/** What a technician measures at a vehicle with instruments of his own. */
public final class ToolBox {
    /** More than a meter on ohms can tell. */
    private static final double OVERLOAD_OHM = 2e7;

    /** From here on it shows thousands. */
    private static final double RANGE_OHM = 999;

    private static final String WIRES = "wires-";
    private static final String PULLED = "pulled-";

    private final VehicleSimulation simulation;
    private final BusWires wires;

    ToolBox(VehicleSimulation simulation, BusWires wires) {
        this.simulation = simulation;
        this.wires = wires;
    }

    /** What can be measured, id → name. */
    public Map<String, String> names() {
        Map<String, String> all = new LinkedHashMap<>();
        simulation.measures().forEach(m -> all.put(m.id(), m.name()));
        compared().forEach((id, g) -> all.put(id, g.name()));
        simulation
                .description()
                .buses()
                .forEach(
                        b -> all.put(WIRES + b.id(), "Ohms between both wires of the " + b.name()));
        simulation
                .description()
                .buses()
                .forEach(
                        b ->
                                all.put(
                                        PULLED + b.id(),
                                        "Pull the plugs of the modules on the "
                                                + b.name()
                                                + " one after another"));
        ohms().forEach((id, g) -> all.put(id, g.name()));
        fed().forEach((id, g) -> all.put(id, "Feed it: " + g.name()));
        clamped().forEach((id, g) -> all.put(id, g.name()));
        return all;
    }

    /**
     * Measures one of {@link #names}, and tells what is read, in words.
     *
     * @throws IllegalArgumentException when there is no such
     */
    public String measure(String id) {
        Optional<Mechanics.Measure> gauge =
                simulation.measures().stream().filter(m -> m.id().equals(id)).findFirst();
        if (gauge.isPresent()) {
            Mechanics.Measure its = gauge.get();
            return String.format(Locale.ROOT, its.says(), simulation.measured(its));
        }
        if (compared().containsKey(id)) {
            Value value = simulation.description().value(compared().get(id).value()).orElseThrow();
            return "Your instrument reads "
                    + Scaling.show(value, simulation.felt(value.id()))
                    + " "
                    + value.show()
                    + ".";
        }
        if (ohms().containsKey(id)) {
            return told(hands().orElseThrow().ohms(ohms().get(id)));
        }
        if (fed().containsKey(id)) {
            return "It: " + hands().orElseThrow().fed(fed().get(id)) + ".";
        }
        if (clamped().containsKey(id)) {
            OptionalDouble amps = hands().orElseThrow().amps(clamped().get(id));
            return amps.isPresent()
                    ? String.format(
                            Locale.ROOT, "Your clamp reads %.3g A.", Math.abs(amps.getAsDouble()))
                    : "Your clamp reads 0 A: it is not on. Switch it on first.";
        }
        if (!names().containsKey(id)) {
            throw new IllegalArgumentException("Nothing called '" + id + "' can be measured");
        }
        if (id.startsWith(PULLED)) {
            return broughtBack(id.substring(PULLED.length()))
                    .map(m -> "The others answer again without the plug of: " + name(m) + ".")
                    .orElse("Nothing changes, whichever plug is pulled.");
        }
        return asleep()
                ? told(ohms(id.substring(WIRES.length())))
                : "Your meter shows nothing steady: the modules send. Turn the key off first.";
    }

    /**
     * What a meter on ohms reads of a part alone, or between the wires of a bus; empty where it is
     * neither, NaN while modules send.
     *
     * @param place id of a gauge, or the name of a bus as {@link #names} has it
     */
    OptionalDouble ohmsAt(String place) {
        Optional<Gauge> gauge = at(ohms(), place);
        if (gauge.isPresent()) {
            return OptionalDouble.of(hands().orElseThrow().ohms(gauge.get()));
        }
        boolean bus =
                simulation.description().buses().stream()
                        .anyMatch(b -> place.equals(WIRES + b.id()));
        return bus
                ? OptionalDouble.of(asleep() ? ohms(place.substring(WIRES.length())) : Double.NaN)
                : OptionalDouble.empty();
    }

    /** What a clamp shows, A, of a gauge; none where nothing is on. */
    OptionalDouble ampsAt(String place) {
        return at(clamped(), place)
                .map(g -> hands().orElseThrow().amps(g).orElse(0))
                .map(OptionalDouble::of)
                .orElse(OptionalDouble.empty());
    }

    private static Optional<Gauge> at(Map<String, Gauge> gauges, String place) {
        return Optional.ofNullable(gauges.get(Gauge.findingOf(place)));
    }

    /** Ohms between both wires of a bus, whoever sends on it. */
    double ohms(String bus) {
        return wires.ohms(bus, simulation.seconds());
    }

    /** The module without whose plug a bus comes back. */
    Optional<String> broughtBack(String bus) {
        return wires.broughtBack(bus, simulation.seconds());
    }

    private String name(String moduleId) {
        return simulation.description().module(moduleId).orElseThrow().name();
    }

    private boolean asleep() {
        return simulation.driver().key() == 0;
    }

    /** As the display of a meter shows it, which changes its range and knows no powers of ten. */
    static String told(double ohm) {
        if (ohm > OVERLOAD_OHM) {
            return "Your meter shows overload: nothing goes through it.";
        }
        return ohm >= RANGE_OHM
                ? String.format(Locale.ROOT, "Your meter reads %.2f kΩ.", ohm / 1e3)
                : String.format(Locale.ROOT, "Your meter reads %.3g Ω.", ohm);
    }

    private Optional<Hands> hands() {
        return simulation.circuits().map(Circuits::hands);
    }

    private Map<String, Gauge> compared() {
        return hands().map(Hands::compared).orElse(Map.of());
    }

    private Map<String, Gauge> fed() {
        return hands().map(Hands::fed).orElse(Map.of());
    }

    private Map<String, Gauge> clamped() {
        return hands().map(Hands::clamped).orElse(Map.of());
    }

    private Map<String, Gauge> ohms() {
        return hands().map(Hands::ohms).orElse(Map.of());
    }
}
