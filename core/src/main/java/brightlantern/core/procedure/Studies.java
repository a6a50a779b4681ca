package brightlantern.core.procedure;

import brightlantern.core.actuator.ActuatorRun;
import brightlantern.core.actuator.ByHand;
import brightlantern.core.actuator.Responses;
import brightlantern.core.cylinder.CutOut;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.tank.TankTest;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** The core's studies by the names under which procedures ask for them. */
public final class Studies {
    /** Names of studies that procedures made by the program ask for. */
    public static final String STROKES = "strokes";

    public static final String UP_AND_DOWN = "up-and-down";

    public static final String RESPONSES = "responses";

    public static final String BY_HAND = "by-hand";

    /**
     * Column beside what a sequence read: half the time between request and answer, s; the reading
     * was taken somewhere in between.
     */
    public static final String SLACK = "slack";

    private static final Map<String, Study> ALL = new LinkedHashMap<>();

    static {
        ALL.put("cut-out", CutOut.STUDY);
        ALL.put("tank", TankTest.STUDY);
        ALL.put(STROKES, ActuatorRun.STROKES);
        ALL.put(UP_AND_DOWN, ActuatorRun.STEPS);
        ALL.put(RESPONSES, Responses.STUDY);
        ALL.put(BY_HAND, ByHand.STUDY);
    }

    private Studies() {}

    /**
     * When a step was entered and left.
     *
     * @param from and to: seconds since the run began
     */
    public record Stay(String step, double from, double to) {}

    /**
     * What an actuator of the same vehicle did before.
     *
     * @param day on which, as people write it
     */
    public record Earlier(String day, Evidence.Run run) {}

    /**
     * @param take all that the run measured, in seconds since it began
     * @param stays its steps in the order in which they were entered
     * @param about id of what is judged; empty where the study does not ask
     * @param with figures of the vehicle that the study wants
     * @param earlier runs of actuators of the same vehicle, oldest first
     */
    public record Material(
            VehicleDescription description,
            Take take,
            List<Stay> stays,
            String about,
            Map<String, Double> with,
            List<Earlier> earlier) {
        /** A figure of the vehicle; the usual one when its description gives none. */
        public double figure(String name, double usual) {
            return with.getOrDefault(name, usual);
        }
    }

    /**
     * @param outcome one of the study's own outcomes
     * @param passes empty when it cannot be told
     * @param sentence empty when there is nothing to be told yet
     * @param evidence beside the outcome, which may be evidence itself
     */
    public record Verdict(
            String outcome,
            Optional<Boolean> passes,
            String sentence,
            List<String> reasons,
            Optional<Evidence> evidence) {}

    /** Judges what a run measured. */
    public interface Study {
        List<String> outcomes(int cylinders);

        Verdict judge(Material material);

        /** A study whose outcomes do not depend on the engine. */
        static Study of(List<String> outcomes, Function<Material, Verdict> judge) {
            return new Study() {
                @Override
                public List<String> outcomes(int cylinders) {
                    return outcomes;
                }

                @Override
                public Verdict judge(Material material) {
                    return judge.apply(material);
                }
            };
        }
    }

    public static boolean knows(String study) {
        return ALL.containsKey(study);
    }

    /** Most cylinders that any engine here has; a study may name each. */
    private static final int MOST_CYLINDERS = 16;

    /** What a study may come to. */
    public static List<String> outcomes(String study) {
        return knows(study) ? ALL.get(study).outcomes(MOST_CYLINDERS) : List.of();
    }

    public static Verdict judge(String study, Material material) {
        return ALL.get(study).judge(material);
    }
}
