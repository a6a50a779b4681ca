package brightlantern.core.capture;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.network.Bus;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * What to connect where for a capture, and how an oscilloscope is set for it.
 *
 * @param how what the technician does, step by step
 * @param interval seconds between samples
 * @param before share of it that comes before the trigger
 * @param follows live values that are asked meanwhile, and become lanes as well
 */
public record CapturePlan(
        String id,
        String name,
        String why,
        List<String> how,
        List<Probe> lanes,
        double interval,
        double seconds,
        double before,
        Optional<Trigger> trigger,
        List<Followed> follows) {
    /** The plan of one cranking. */
    public static final String CRANKING = "cranking";

    /** What the plan of a bus begins with; the bus follows. */
    public static final String BUS = "bus-";

    /** What the plan of who leaves first begins with; the cylinder follows. */
    public static final String LEAVING = "leaving";

    /** The plan of what an alternator gives. */
    public static final String RIPPLE = "ripple";

    /** The plan of crank and camshaft. */
    public static final String TEETH = "teeth";

    /** The plan of what coils and injectors draw. */
    public static final String CURRENTS = "currents";

    private static final double CURRENTS_INTERVAL = 2e-5;
    private static final double CURRENTS_SECONDS = 3;
    private static final double TEETH_INTERVAL = 2e-5;
    private static final double TEETH_SECONDS = 2;
    private static final double TEETH_VOLTS = 16;
    private static final double RIPPLE_INTERVAL = 5e-5;
    private static final double RIPPLE_SECONDS = 0.5;
    private static final double LEAVING_INTERVAL = 4e-4;
    private static final double LEAVING_SECONDS = 40;
    private static final double SAMPLES_PER_BIT = 10;
    private static final double BUS_SECONDS = 0.06;
    private static final double BUS_VOLTS = 6;
    private static final double CRANKING_INTERVAL = 2e-4;
    private static final double CRANKING_SECONDS = 5;
    private static final double POINT_INTERVAL = 1e-3;
    private static final double POINT_SECONDS = 10;

    /** A starter that turns draws more than this, A. */
    private static final double TURNS_AMPS = 60;

    /** What fires a cylinder is above this, V. */
    private static final double TURNS_VOLTS = 2.5;

    private static final double MOST_VOLTS = 32;

    public CapturePlan {
        how = List.copyOf(how);
        lanes = List.copyOf(lanes);
        follows = List.copyOf(follows);
    }

    /** One without live values. */
    private CapturePlan(
            String id,
            String name,
            String why,
            List<String> how,
            List<Probe> lanes,
            double interval,
            double seconds,
            double before,
            Optional<Trigger> trigger) {
        this(id, name, why, how, lanes, interval, seconds, before, trigger, List.of());
    }

    /**
     * A live value beside the lanes.
     *
     * @param value its id
     */
    public record Followed(LaneRole role, String name, String value) {}

    /**
     * A lane as it is to be connected.
     *
     * @param place how the instrument knows it
     * @param told how the technician knows it
     * @param range to either side, in the unit of the lane
     */
    public record Probe(LaneRole role, String name, String place, String told, double range) {}

    /**
     * @param lane by number, from 1
     * @param level in the lane's unit; it begins when the lane rises to it
     */
    public record Trigger(int lane, double level) {}

    /** Samples of each lane. */
    public int points() {
        return (int) Math.round(seconds / interval);
    }

    /** How long and how fast, in words. */
    public String pace() {
        return Capture.pace(seconds, interval) + " in each lane";
    }

    /** What tells the mechanical condition of an engine from one cranking. */
    public static CapturePlan cranking(Cylinders cylinders) {
        List<Probe> lanes = new ArrayList<>();
        if (cylinders.hasStarter()) {
            lanes.add(
                    new Probe(
                            LaneRole.STARTER_CURRENT,
                            "Starting current",
                            "starter",
                            "clamp for 2000 A round the starter's cable",
                            2000));
        }
        lanes.add(pickup(LaneRole.INTAKE, "intake", "pressure pickup at the intake pipe", 20));
        lanes.add(pickup(LaneRole.EXHAUST, "exhaust", "pressure pickup in the tail pipe", 20));
        lanes.add(
                pickup(
                        LaneRole.CRANKCASE,
                        "crankcase",
                        "pressure pickup at the dipstick's tube, the oil filler shut",
                        8));
        lanes.add(
                new Probe(
                        LaneRole.FIRST_CYLINDER,
                        "Cylinder 1 fires",
                        "cylinder-1",
                        "clamp round what fires cylinder 1: the wire of its injector or its coil",
                        10));
        return new CapturePlan(
                CRANKING,
                "One cranking",
                "Who compresses less, and which way its gas goes: valve, ring or neither, before anything is taken apart.",
                List.of(
                        "Turn the fuel off, so that it cannot start: pull the pump's fuse or unplug the rail's valve.",
                        "Connect the lanes as listed, and press Record.",
                        "Crank for six seconds with the foot off the pedal."),
                lanes,
                CRANKING_INTERVAL,
                CRANKING_SECONDS,
                0.05,
                Optional.of(
                        cylinders.hasStarter()
                                ? new Trigger(1, TURNS_AMPS)
                                : new Trigger(lanes.size(), TURNS_VOLTS)));
    }

    /**
     * What leaves its pattern first when a cylinder is said to misfire under load.
     *
     * @param coil whether it is fired by a coil
     */
    public static CapturePlan leaving(Cylinders cylinders, int cylinder, boolean coil) {
        List<Probe> lanes = new ArrayList<>();
        if (coil) {
            lanes.add(clamp(LaneRole.COIL, "coil", cylinder, 20));
        }
        lanes.add(clamp(LaneRole.INJECTOR, "injector", cylinder, 5));
        return new CapturePlan(
                LEAVING + "-" + cylinder,
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
                        new Followed(
                                LaneRole.COUNT,
                                "Misfires of cylinder " + cylinder + ", counted",
                                cylinders.misfiresOf(cylinder))));
    }

    /** What the alternator gives, diode by diode. */
    public static CapturePlan ripple() {
        return new CapturePlan(
                RIPPLE,
                "Ripple of the supply",
                "A meter shows the mean; a diode that is lost leaves a gap in what the alternator gives, as often as it turns past its poles.",
                List.of(
                        "Start the engine and let it idle, lights and rear window heating on.",
                        "Connect lane 1 to battery plus itself, its earth to battery minus itself.",
                        "Press Record."),
                List.of(
                        new Probe(
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

    /** Crank and camshaft by their teeth. */
    public static CapturePlan teeth() {
        return new CapturePlan(
                TEETH,
                "Crank and camshaft by tooth",
                "A chain that stretched, a mark that broke off, a wheel that is bent: each shows between the marks of both, before a cover is opened.",
                List.of(
                        "Connect both lanes at the plugs of the sensors, from the wire side; their earth to battery minus.",
                        "Start the engine and let it idle; where it does not start, crank it.",
                        "Press Record."),
                List.of(
                        new Probe(
                                LaneRole.CRANK,
                                LaneRole.CRANK.words(),
                                "crank-sensor",
                                "signal wire of the crank sensor",
                                TEETH_VOLTS),
                        new Probe(
                                LaneRole.CAM,
                                LaneRole.CAM.words(),
                                "cam-sensor",
                                "signal wire of the camshaft sensor",
                                TEETH_VOLTS)),
                TEETH_INTERVAL,
                TEETH_SECONDS,
                0,
                Optional.empty());
    }

    /**
     * What coils and injectors draw, one beside the other.
     *
     * @param coils whether it is fired by coils
     */
    public static CapturePlan currents(Cylinders cylinders, boolean coils) {
        int first = cylinders.order().get(0);
        List<Probe> lanes = new ArrayList<>();
        if (coils) {
            lanes.add(feed(LaneRole.COILS, "coils", 20));
            lanes.add(clamp(LaneRole.COIL, "coil", first, 20));
        }
        lanes.add(feed(LaneRole.INJECTORS, "injectors", 5));
        lanes.add(clamp(LaneRole.INJECTOR, "injector", first, 5));
        return new CapturePlan(
                CURRENTS,
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

    private static Probe feed(LaneRole role, String place, double amps) {
        return new Probe(
                role,
                role.words(),
                place,
                "current clamp round the feed that all " + place + " share",
                amps);
    }

    private static Probe clamp(LaneRole role, String what, int cylinder, double amps) {
        return new Probe(
                role,
                role.words() + ", cylinder " + cylinder,
                what + "-" + cylinder,
                "current clamp round the feed of " + what + " " + cylinder,
                amps);
    }

    private static Probe pickup(LaneRole role, String place, String told, double range) {
        return new Probe(role, role.words(), place, told, range);
    }

    /** Both wires of a bus at both of its ends. */
    public static CapturePlan bus(Bus bus, String near, String far) {
        String place = "can-" + bus.id() + "-";
        double interval = 1 / (bus.kbit() * 1000.0 * SAMPLES_PER_BIT);
        return new CapturePlan(
                BUS + bus.id(),
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

    private static Probe wire(LaneRole role, String place, String told) {
        return new Probe(role, role.words(), place, told, BUS_VOLTS);
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
                        "Press Record, and switch the circuit or move its harness meanwhile."),
                List.of(
                        new Probe(
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
