package brightlantern.core.procedure;

import brightlantern.core.cylinder.CutOut;
import brightlantern.core.take.Take;
import brightlantern.core.tank.TankTest;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The core's studies by the names under which procedures ask for them. */
public final class Studies {
    private static final Map<String, Study> ALL = new LinkedHashMap<>();

    static {
        ALL.put("cut-out", CutOut.STUDY);
        ALL.put("tank", TankTest.STUDY);
    }

    private Studies() {}

    /**
     * When a step was entered and left.
     *
     * @param from and to: seconds since the run began
     */
    public record Stay(String step, double from, double to) {}

    /**
     * @param take all that the run measured, in seconds since it began
     * @param stays its steps in the order in which they were entered
     * @param with figures of the vehicle that the study wants
     */
    public record Material(
            VehicleDescription description, Take take, List<Stay> stays, Map<String, Double> with) {
        /** A figure of the vehicle; the usual one when its description gives none. */
        public double figure(String name, double usual) {
            return with.getOrDefault(name, usual);
        }
    }

    /**
     * @param outcome one of the study's own outcomes
     * @param passes empty when it cannot be told
     */
    public record Verdict(
            String outcome, Optional<Boolean> passes, String sentence, List<String> reasons) {}

    /** Judges what a run measured. */
    public interface Study {
        List<String> outcomes(int cylinders);

        Verdict judge(Material material);
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
