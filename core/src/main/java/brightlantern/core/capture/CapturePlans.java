package brightlantern.core.capture;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.network.Bus;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** The captures that the program knows how to take, each with where its lanes go. */
public final class CapturePlans {
    private static final double SPARKS_INTERVAL = 1e-5;
    private static final double SPARKS_SECONDS = 3;
    private static final double SPARKS_KV = 40;
    private static final double CURRENTS_INTERVAL = 2e-5;
    private static final double CURRENTS_SECONDS = 3;
    private static final double TEETH_INTERVAL = 2e-5;
    private static final double TEETH_SECONDS = 2;
    private static final double TEETH_VOLTS = 16;

    /** Resolution with which what a module makes of a cylinder is kept, rpm. */
    private static final double OWN_STEP = 0.01;

    private static final double RIPPLE_INTERVAL = 5e-5;
    private static final double RIPPLE_SECONDS = 0.5;
    private static final double LEAVING_INTERVAL = 4e-4;
    private static final double LEAVING_SECONDS = 40;
    private static final double SAMPLES_PER_BIT = 10;
    private static final double BUS_SECONDS = 0.06;
    private static final double BUS_VOLTS = 6;
    private static final double POINT_INTERVAL = 1e-3;
    private static final double POINT_SECONDS = 30;

    private static final double MOST_VOLTS = 32;

    private CapturePlans() {}

    /**
     * What leaves its pattern first when a cylinder is said to misfire under load.
     *
     * @param coil whether it is fired by a coil
     */
    public static CapturePlan leaving(Cylinders cylinders, int cylinder, boolean coil) {
        List<CapturePlan.Probe> lanes = new ArrayList<>();
        if (coil) {
            lanes.add(clamp(LaneRole.COIL, "coil", cylinder, 20));
        }
        lanes.add(clamp(LaneRole.INJECTOR, "injector", cylinder, 5));
        return new CapturePlan(
                CapturePlan.LEAVING + "-" + cylinder,
                "Who leaves first, cylinder " + cylinder,
                "Coil, injector and the module's own count of misfires beside each other: what it does because of its count is told from what made it count.",
                List.of(
                        "Lead the clamps so that they stay clear of hot and turning parts, and take somebody along.",
                        "Press Record, then pull away and climb under full load until it is felt, or until the recording ends.",
                        "Do not lift the foot meanwhile: an engine that coasts stops its injectors by itself."),
                lanes,
                LEAVING_INTERVAL,
                LEAVING_SECONDS,
                0,
                Optional.empty(),
                List.of(
                        new CapturePlan.Followed(
                                LaneRole.COUNT,
                                "Misfires of cylinder " + cylinder + ", counted",
                                cylinders.misfiresOf(cylinder),
                                true,
                                1)));
    }

    /** What the alternator gives, diode by diode. */
    public static CapturePlan ripple() {
        return new CapturePlan(
                CapturePlan.RIPPLE,
                "Ripple of the supply",
                "A meter shows the mean; a diode that is lost leaves a gap in what the alternator gives, as often as it turns past its poles.",
                List.of(
                        "Start the engine and let it idle, lights and rear window heating on.",
                        "Connect lane 1 to battery plus itself, its earth to battery minus itself.",
                        "Press Record."),
                List.of(
                        new CapturePlan.Probe(
                                LaneRole.SUPPLY,
                                LaneRole.SUPPLY.words(),
                                "supply",
                                "battery plus against battery minus",
                                MOST_VOLTS)),
                RIPPLE_INTERVAL,
                RIPPLE_SECONDS,
                0,
                Optional.empty());
    }

    /** Crank and camshaft by their teeth, with what their module makes of each cylinder. */
    public static CapturePlan teeth(Cylinders cylinders) {
        return new CapturePlan(
                CapturePlan.TEETH,
                "Crank and camshaft by tooth",
                "A chain that stretched, a mark that broke off, a wheel that is bent: each shows between the marks of both, before a cover is opened.",
                List.of(
                        "Connect both lanes at the plugs of the sensors, from the wire side; their earth to battery minus.",
                        "Start the engine and let it idle; where it does not start, crank it.",
                        "Press Record."),
                List.of(
                        new CapturePlan.Probe(
                                LaneRole.CRANK,
                                LaneRole.CRANK.words(),
                                "crank-sensor",
                                "signal wire of the crank sensor",
                                TEETH_VOLTS),
                        new CapturePlan.Probe(
                                LaneRole.CAM,
                                LaneRole.CAM.words(),
                                "cam-sensor",
                                "signal wire of the camshaft sensor",
                                TEETH_VOLTS)),
                TEETH_INTERVAL,
                TEETH_SECONDS,
                0,
                Optional.empty(),
                cylinders.order().stream()
                        .sorted()
                        .map(
                                n ->
                                        new CapturePlan.Followed(
                                                LaneRole.OWN_FIGURE,
                                                "Cylinder " + n + " as its module sees it",
                                                cylinders.deviationOf(n),
                                                false,
                                                OWN_STEP))
                        .toList());
    }

    /**
     * What coils and injectors draw, one beside the other.
     *
     * @param coils whether it is fired by coils
     */
    public static CapturePlan currents(Cylinders cylinders, boolean coils) {
        int first = cylinders.order().get(0);
        List<CapturePlan.Probe> lanes = new ArrayList<>();
        if (coils) {
            lanes.add(feed(LaneRole.COILS, "coils", 20));
            lanes.add(clamp(LaneRole.COIL, "coil", first, 20));
        }
        lanes.add(feed(LaneRole.INJECTORS, "injectors", 5));
        lanes.add(clamp(LaneRole.INJECTOR, "injector", first, 5));
        return new CapturePlan(
                CapturePlan.CURRENTS,
                coils ? "Currents of coils and injectors" : "Currents of injectors",
                "A ramp tells what is in its way, and a step in it whether something moves; one cylinder beside the others, and nothing is unplugged.",
                List.of(
                        "Lay one clamp round the feed that all of them share, at their splice or relay, and one round the wire of the first cylinder to fire.",
                        "Start the engine and let it idle.",
                        "Press Record."),
                lanes,
                CURRENTS_INTERVAL,
                CURRENTS_SECONDS,
                0,
                Optional.empty());
    }

    /** What each spark needs, and how long it burns. */
    public static CapturePlan sparks(Cylinders cylinders) {
        int first = cylinders.order().get(0);
        return new CapturePlan(
                CapturePlan.SPARKS,
                "Sparks beside each other",
                "The voltage that a spark needs, and how long it burns, tell a wide gap from a leak and from a coil that gives nothing; no plug is taken out.",
                List.of(
                        "Hold a pickup at the lead or the coil of every cylinder, all joined into lane 1, and lay the other clamp as listed.",
                        "Start the engine and let it idle.",
                        "Press Record; do not touch the leads meanwhile."),
                List.of(
                        new CapturePlan.Probe(
                                LaneRole.SPARKS,
                                LaneRole.SPARKS.words(),
                                "sparks",
                                "capacitive pickups at the leads of all cylinders, joined",
                                SPARKS_KV),
                        new CapturePlan.Probe(
                                LaneRole.FIRST_CYLINDER,
                                "Cylinder " + first + " fires",
                                "cylinder-1",
                                "clamp round the wire that fires the coil of cylinder " + first,
                                10)),
                SPARKS_INTERVAL,
                SPARKS_SECONDS,
                0,
                Optional.empty());
    }

    private static CapturePlan.Probe feed(LaneRole role, String place, double amps) {
        return new CapturePlan.Probe(
                role,
                role.words(),
                place,
                "current clamp round the feed that all " + place + " share",
                amps);
    }

    private static CapturePlan.Probe clamp(LaneRole role, String what, int cylinder, double amps) {
        return new CapturePlan.Probe(
                role,
                role.words() + ", cylinder " + cylinder,
                what + "-" + cylinder,
                "current clamp round the feed of " + what + " " + cylinder,
                amps);
    }

    /** Both wires of a bus at both of its ends. */
    public static CapturePlan bus(Bus bus, String near, String far) {
        String place = "can-" + bus.id() + "-";
        double interval = 1 / (bus.rate().fastest() * 1000.0 * SAMPLES_PER_BIT);
        return new CapturePlan(
                CapturePlan.BUS + bus.id(),
                "Both ends of the " + bus.name().toLowerCase(Locale.ROOT),
                "Which of the two wires is sick, between which modules, or whether a short, a missing resistor or a module that never stops holds it.",
                List.of(
                        "Key on, all modules awake.",
                        "Connect the lanes at the plugs of "
                                + near
                                + " and "
                                + far
                                + ", and press Record."),
                List.of(
                        wire(LaneRole.HIGH_NEAR, place + "high-near", "high wire at " + near),
                        wire(LaneRole.LOW_NEAR, place + "low-near", "low wire at " + near),
                        wire(LaneRole.HIGH_FAR, place + "high-far", "high wire at " + far),
                        wire(LaneRole.LOW_FAR, place + "low-far", "low wire at " + far)),
                interval,
                BUS_SECONDS,
                0,
                Optional.empty());
    }

    private static CapturePlan.Probe wire(LaneRole role, String place, String told) {
        return new CapturePlan.Probe(role, role.words(), place, told, BUS_VOLTS);
    }

    /** The volts of a point of a circuit for a while. */
    public static CapturePlan point(Circuit circuit, ProbePoint point) {
        return new CapturePlan(
                "point-" + point.id(),
                "Volts at " + point.name(),
                "What comes and goes between two readings: "
                        + circuit.name()
                        + " while it is switched, or while its harness is moved.",
                List.of(
                        "Connect lane 1 to " + point.name() + ", its earth to battery minus.",
                        "Press Record, and switch the circuit, or move its harness, one connector after the other, two times each or more; press Mark with its name meanwhile."),
                List.of(
                        new CapturePlan.Probe(
                                LaneRole.POINT,
                                point.name(),
                                point.id(),
                                point.name(),
                                MOST_VOLTS)),
                POINT_INTERVAL,
                POINT_SECONDS,
                0,
                Optional.empty());
    }
}
