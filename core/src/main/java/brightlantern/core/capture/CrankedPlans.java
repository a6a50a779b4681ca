package brightlantern.core.capture;

import brightlantern.core.cylinder.Cylinders;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Captures of an engine that is cranked and does not start. */
public final class CrankedPlans {
    private static final double CRANKING_INTERVAL = 2e-4;
    private static final double CRANKING_SECONDS = 5;
    private static final double PRESSURE_KPA = 6000;

    /** A cylinder that compresses rises above this, kPa. */
    private static final double COMPRESSES_KPA = 250;

    /** A starter that turns draws more than this, A. */
    private static final double TURNS_AMPS = 60;

    /** What fires a cylinder is above this, V. */
    private static final double TURNS_VOLTS = 2.5;

    private static final double STARTING_INTERVAL = 1e-3;
    private static final double STARTING_SECONDS = 4;

    /** A cable that loses more does not turn an engine, V. */
    private static final double DROP_VOLTS = 8;

    private static final double MOST_VOLTS = 32;

    private CrankedPlans() {}

    /** What tells the mechanical condition of an engine from one cranking. */
    public static CapturePlan cranking(Cylinders cylinders) {
        List<CapturePlan.Probe> lanes = new ArrayList<>();
        if (cylinders.hasStarter()) {
            lanes.add(
                    new CapturePlan.Probe(
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
                new CapturePlan.Probe(
                        LaneRole.FIRST_CYLINDER,
                        "Cylinder 1 fires",
                        "cylinder-1",
                        "clamp round what fires cylinder 1: the wire of its injector or its coil",
                        10));
        return new CapturePlan(
                CapturePlan.CRANKING,
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
                                ? new CapturePlan.Trigger(1, TURNS_AMPS)
                                : new CapturePlan.Trigger(lanes.size(), TURNS_VOLTS)));
    }

    /**
     * What a cylinder holds of its charge, in absolute figures.
     *
     * @param instead what the transducer takes the place of: a plug, or what heats
     */
    public static CapturePlan pressure(int cylinder, String instead) {
        return new CapturePlan(
                CapturePlan.PRESSURE + cylinder,
                "Pressure in cylinder " + cylinder,
                "What it compresses to, and what it has lost when its exhaust valve opens: whether it is tight, without the other cylinders to compare with.",
                List.of(
                        "Turn the fuel off, so that it cannot start: pull the pump's fuse or unplug the rail's valve.",
                        "Take out " + instead + " and screw the transducer in its place, by hand.",
                        "Connect it to lane 1, tell under Set it otherwise what a volt of it means, and press Record.",
                        "Crank for six seconds with the pedal down."),
                List.of(
                        new CapturePlan.Probe(
                                LaneRole.CYLINDER,
                                "Pressure in cylinder " + cylinder,
                                "pressure-" + cylinder,
                                "pressure transducer in place of " + instead,
                                PRESSURE_KPA)),
                CRANKING_INTERVAL,
                CRANKING_SECONDS,
                0.05,
                Optional.of(new CapturePlan.Trigger(1, COMPRESSES_KPA)));
    }

    /** Where the volts of the battery go while the starter draws. */
    public static CapturePlan starting() {
        return new CapturePlan(
                CapturePlan.STARTING,
                "Supply and cables at a start",
                "An engine that turns slowly has a weak battery, or a cable that loses what the battery gives; only while the starter draws can they be told apart.",
                List.of(
                        "Turn the fuel off, so that it cannot start: pull the pump's fuse or unplug the rail's valve.",
                        "Connect the lanes as listed: on the posts and on bare metal, not on clamps.",
                        "Press Record, and crank for four seconds."),
                List.of(
                        new CapturePlan.Probe(
                                LaneRole.SUPPLY,
                                LaneRole.SUPPLY.words(),
                                "supply",
                                "battery plus against battery minus",
                                MOST_VOLTS),
                        new CapturePlan.Probe(
                                LaneRole.PLUS_CABLE,
                                LaneRole.PLUS_CABLE.words(),
                                "plus-cable",
                                "battery plus against the starter's thick terminal",
                                DROP_VOLTS),
                        new CapturePlan.Probe(
                                LaneRole.EARTH_CABLE,
                                LaneRole.EARTH_CABLE.words(),
                                "earth-cable",
                                "bare metal of the engine against battery minus",
                                DROP_VOLTS),
                        new CapturePlan.Probe(
                                LaneRole.STARTER_CURRENT,
                                "Starting current",
                                "starter",
                                "clamp for 2000 A round the starter's cable",
                                2000)),
                STARTING_INTERVAL,
                STARTING_SECONDS,
                0.1,
                Optional.of(new CapturePlan.Trigger(4, TURNS_AMPS)));
    }

    private static CapturePlan.Probe pickup(
            LaneRole role, String place, String told, double range) {
        return new CapturePlan.Probe(role, role.words(), place, told, range);
    }
}
