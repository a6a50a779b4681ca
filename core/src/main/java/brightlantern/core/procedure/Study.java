package brightlantern.core.procedure;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Stay;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** Judges what a run measured. The library of procedures knows all of them by name. */
public interface Study {
    /**
     * Column beside what a sequence read: half the time between request and answer, s; the reading
     * was taken somewhere in between.
     */
    String SLACK = "slack";

    /**
     * What it may come to.
     *
     * @param cylinders of the engine; a study may name each
     */
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

    /**
     * What an actuator of the same vehicle did before.
     *
     * @param day on which, as people write it
     */
    record Earlier(String day, Evidence.Run run) {}

    /**
     * @param take all that the run measured, in seconds since it began
     * @param stays its steps in the order in which they were entered
     * @param about id of what is judged; empty where the study does not ask
     * @param with figures of the vehicle that the study wants
     * @param earlier runs of actuators of the same vehicle, oldest first
     */
    record Material(
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
    record Verdict(
            String outcome,
            Optional<Boolean> passes,
            String sentence,
            List<String> reasons,
            Optional<Evidence> evidence) {}
}
