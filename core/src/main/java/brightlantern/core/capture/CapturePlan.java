package brightlantern.core.capture;

import java.util.List;
import java.util.Optional;

/**
 * What to connect where for a capture, and how an oscilloscope is set for it.
 *
 * @param how what the technician does, step by step
 * @param interval seconds between samples
 * @param before share of it that comes before the trigger
 * @param follows live values that are asked meanwhile, and become lanes as well
 * @param input what is done to all lanes before they are sampled
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
        List<Followed> follows,
        Input input) {
    /** The plan of one cranking. */
    public static final String CRANKING = "cranking";

    /** What the plan of the pressure in a cylinder begins with; the cylinder follows. */
    public static final String PRESSURE = "pressure-";

    /** What the plan of a bus begins with; the bus follows. */
    public static final String BUS = "bus-";

    /** What the plan of who leaves first begins with; the cylinder follows. */
    public static final String LEAVING = "leaving";

    /** The plan of what an alternator gives. */
    public static final String RIPPLE = "ripple";

    /** The plan of what a start takes from the supply, and what its cables lose. */
    public static final String STARTING = "starting";

    /** The plan of crank and camshaft. */
    public static final String TEETH = "teeth";

    /** The plan of what coils and injectors draw. */
    public static final String CURRENTS = "currents";

    /** The plan of what ignites. */
    public static final String SPARKS = "sparks";

    public CapturePlan {
        how = List.copyOf(how);
        lanes = List.copyOf(lanes);
        follows = List.copyOf(follows);
    }

    /** One whose lanes come as they are. */
    CapturePlan(
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
        this(id, name, why, how, lanes, interval, seconds, before, trigger, follows, Input.PLAIN);
    }

    /** One without live values. */
    CapturePlan(
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
     * @param needed whether a capture without it says nothing
     * @param step what one step of its lane is worth, in its unit
     */
    public record Followed(LaneRole role, String name, String value, boolean needed, double step) {}

    /**
     * A lane as it is to be connected.
     *
     * @param place how the instrument knows it
     * @param told how the technician knows it
     * @param range to either side, in the unit of the lane
     * @param output what it gives to the instrument
     */
    public record Probe(
            LaneRole role,
            String name,
            String place,
            String told,
            double range,
            ProbeOutput output) {
        Probe(LaneRole role, String name, String place, String told, double range) {
            this(role, name, place, told, range, ProbeOutput.PLAIN);
        }
    }

    /**
     * @param lane by number, from 1
     * @param level in the lane's unit
     * @param when what the lane must do at its level for the capture to begin
     * @param held seconds, where that is about time
     */
    public record Trigger(int lane, double level, When when, double held) {
        Trigger(int lane, double level) {
            this(lane, level, When.RISES, 0);
        }
    }

    /** What a lane does at its level when a capture begins. */
    public enum When {
        RISES("rises to", false),
        FALLS("falls below", false),
        LONGER("is above, longer than", true),
        SHORTER("was above, but shorter than", true),
        MISSING("does not rise to, for", true);

        private final String words;
        private final boolean timed;

        When(String words, boolean timed) {
            this.words = words;
            this.timed = timed;
        }

        public String words() {
            return words;
        }

        /** Whether it is about how long. */
        public boolean isTimed() {
            return timed;
        }
    }

    /**
     * What is done to all lanes before they are sampled.
     *
     * @param alternating whether their steady part is left out
     * @param filter Hz above which they are dampened (first order); 0 for none
     */
    public record Input(boolean alternating, double filter) {
        public static final Input PLAIN = new Input(false, 0);
    }

    /** The same with other lanes. */
    CapturePlan withLanes(List<Probe> others) {
        return new CapturePlan(
                id, name, why, how, others, interval, seconds, before, trigger, follows, input);
    }

    /** Samples of each lane. */
    public int points() {
        return (int) Math.round(seconds / interval);
    }

    /** How long and how fast, in words. */
    public String pace() {
        return Capture.pace(seconds, interval) + " in each lane";
    }
}
