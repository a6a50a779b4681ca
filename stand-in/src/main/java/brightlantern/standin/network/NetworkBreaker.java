package brightlantern.standin.network;

import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Part;
import java.util.List;
import java.util.Random;
import java.util.Set;

/** What can break on the buses of a vehicle, and how it is put into its wires. */
public final class NetworkBreaker {
    /** The mode of what is broken on the wires of the network. */
    public static final String MODE = "network";

    /** Some bad contacts come and go. */
    private static final double COMES_AND_GOES = 0.4;

    private static final double BAD_SECONDS = 2.5;
    private static final double GOOD_SECONDS = 1.5;
    private static final double LEAST_OHM = 600;
    private static final double MOST_OHM = 20_000;
    private static final double SHORT_OHM = 3;

    private final NetworkModel model;

    /** What is drawn breaks as a part of its circuit. */
    private final Set<String> drawn;

    private final BusWires wires;

    public NetworkBreaker(VehicleDescription description, BusWires wires) {
        this.drawn = description.wiring().feedingModules();
        this.model = new NetworkModel(description.network());
        this.wires = wires;
    }

    /** Each element that can be at fault; its size says which wire, and how bad. */
    public List<Part.Failure> failures() {
        return model.elements().stream()
                .filter(e -> !e.modules().equals(Set.of(Network.GATEWAY)))
                .filter(e -> !drawn.contains(e.id()))
                .map(e -> new Part.Failure(MODE, e.id(), 1, 1000, e.common(), e.name()))
                .toList();
    }

    /**
     * Breaks an element.
     *
     * @param size 1 … 1000; which of the wires it is, and whether it comes and goes, is drawn from
     *     it
     * @throws IllegalArgumentException when there is no such element
     */
    public void breakIt(String id, double size) {
        Element e =
                model.elements().stream()
                        .filter(x -> x.id().equals(id))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new IllegalArgumentException(
                                                "There is no element '" + id + "' of the network"));
        Random random = new Random(Double.hashCode(size));
        boolean flickers = random.nextDouble() < COMES_AND_GOES;
        double bad = flickers ? BAD_SECONDS : Double.POSITIVE_INFINITY;
        double good = flickers ? GOOD_SECONDS : 0;
        wires.add(
                switch (e.kind()) {
                    case GAP ->
                            new WireFault.Broken(
                                    id,
                                    e.bus(),
                                    e.at(),
                                    WireFault.Wire.values()[random.nextInt(3)],
                                    LEAST_OHM * Math.pow(MOST_OHM / LEAST_OHM, random.nextDouble()),
                                    bad,
                                    good);
                    case MODULE ->
                            new WireFault.Dead(
                                    id,
                                    id.substring("dead-".length()),
                                    Double.POSITIVE_INFINITY,
                                    0);
                    case FEED -> new WireFault.Unfed(id, id, bad, good);
                    case SHORT ->
                            new WireFault.Shorted(
                                    id, e.bus(), SHORT_OHM, Double.POSITIVE_INFINITY, 0);
                    case BABBLING ->
                            new WireFault.Babbling(
                                    id,
                                    id.substring("babbling-".length()),
                                    Double.POSITIVE_INFINITY,
                                    0);
                    case TERMINATOR ->
                            new WireFault.Unterminated(
                                    id, e.bus(), e.at(), Double.POSITIVE_INFINITY, 0);
                });
    }

    /** Mends an element, if it is broken. */
    public void mend(String id) {
        wires.mend(id);
    }
}
