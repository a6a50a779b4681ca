package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Divider;
import brightlantern.core.circuit.Segment;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;

/**
 * What was done and driven before the complaint came. A part that wears with the kilometres, or
 * ages with the years, is rarer while it has few. What was worked on before the complaint came: a
 * part that was replaced a month ago is hardly worn again, but its plug may have been left loose,
 * and whoever was there may have bent a pin. Both fade with the months.
 */
final class HistoryMechanism implements Mechanism {
    /** What was just renewed is rarer by this share. */
    private static final double NEW = 0.8;

    /** What was just unplugged is bad so many times more often beyond the once. */
    private static final double DISTURBED = 4;

    private static final double SHAPE = 2.5;

    /** Even a new part may be bad. */
    private static final double HARDLY = 0.1;

    /** What has run its life is so much more common than on the mean of all. */
    private static final double WORN = 1.2;

    /** Months over which what was done before fades to a third (1/e). */
    private static final double FADES = 12;

    private final VehicleDescription description;

    HistoryMechanism(VehicleDescription description) {
        this.description = description;
    }

    @Override
    public boolean weighs(Evidence piece) {
        return piece instanceof Evidence.WorkedOn || piece instanceof Evidence.Driven;
    }

    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        if (piece instanceof Evidence.Driven driven) {
            return under.each(
                    h ->
                            description
                                    .suspect(h.suspectId())
                                    .map(s -> lives(s, driven))
                                    .filter(l -> l.isPresent())
                                    .map(l -> Math.log(worn(l.getAsDouble())))
                                    .orElse(0.0));
        }
        Evidence.WorkedOn done = (Evidence.WorkedOn) piece;
        double left = Math.exp(-Math.max(0, done.months()) / FADES);
        Set<String> disturbed = disturbed(done.suspectId());
        return under.each(
                h ->
                        h.suspectId().equals(done.suspectId())
                                ? Math.log(1 - NEW * left)
                                : partOf(h.suspectId()).filter(disturbed::contains).isPresent()
                                        ? Math.log(1 + DISTURBED * left)
                                        : 0);
    }

    /** How many of its lives a part has behind it, by what has used it up more. */
    private static OptionalDouble lives(Suspect s, Evidence.Driven driven) {
        return DoubleStream.of(
                        s.wears() > 0 ? driven.kilometres() / s.wears() : 0,
                        s.ages() > 0 ? driven.years() / s.ages() : 0)
                .filter(l -> l > 0)
                .max();
    }

    /**
     * How much more common something is than on the mean after so much of its life: the hazard of a
     * Weibull distribution with shape 2.5, which renewal keeps from growing beyond one life.
     */
    static double worn(double lives) {
        return Math.max(HARDLY, Math.min(WORN, Math.pow(Math.max(0, lives), SHAPE - 1)));
    }

    private Optional<String> partOf(String suspectId) {
        return description.suspect(suspectId).flatMap(Suspect::effect).flatMap(Effect::part);
    }

    /** The connectors that come off for a part, and all contacts in them. */
    private Set<String> disturbed(String suspectId) {
        Set<String> plugs = new HashSet<>();
        partOf(suspectId)
                .ifPresent(
                        id ->
                                description
                                        .wiring()
                                        .with(id)
                                        .forEach(c -> plugs.addAll(plugs(c, id))));
        Set<String> all = new HashSet<>(plugs);
        contacts(description.circuits().stream())
                .filter(s -> plugs.contains(s.pin().orElseThrow().plug()))
                .map(Segment::id)
                .forEach(all::add);
        return all;
    }

    private static List<String> plugs(Circuit circuit, String id) {
        Component part = circuit.component(id).orElseThrow();
        Set<String> ends = new HashSet<>(Set.of(part.from(), part.to()));
        if (part instanceof Divider divider) {
            ends.add(divider.out());
        }
        return contacts(Stream.of(circuit))
                .filter(s -> ends.contains(s.from()) || ends.contains(s.to()))
                .map(s -> s.pin().orElseThrow().plug())
                .toList();
    }

    private static Stream<Segment> contacts(Stream<Circuit> circuits) {
        return circuits.flatMap(c -> c.segments().stream()).filter(s -> s.pin().isPresent());
    }

    @Override
    public List<Check> checks(List<Evidence> known) {
        return List.of();
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        return Optional.empty();
    }
}
