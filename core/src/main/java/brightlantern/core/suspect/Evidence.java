package brightlantern.core.suspect;

import brightlantern.core.network.RollCall;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Set;

/** One finding that may speak for or against suspects. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Evidence.SymptomTold.class, name = "symptom"),
    @JsonSubTypes.Type(value = Evidence.CodeSeen.class, name = "code"),
    @JsonSubTypes.Type(value = Evidence.Outcome.class, name = "outcome"),
    @JsonSubTypes.Type(value = Evidence.Judged.class, name = "judged"),
    @JsonSubTypes.Type(value = Evidence.Run.class, name = "run"),
    @JsonSubTypes.Type(value = Evidence.Reading.class, name = "reading"),
    @JsonSubTypes.Type(value = Evidence.Heard.class, name = "heard"),
    @JsonSubTypes.Type(value = Evidence.RepairFailed.class, name = "repairFailed"),
    @JsonSubTypes.Type(value = Evidence.RuledOut.class, name = "ruledOut")
})
public sealed interface Evidence {
    /** Evidence with the same key is of the same thing; the newer replaces the older. */
    String key();

    record SymptomTold(String symptomId) implements Evidence {
        public String key() {
            return "symptom " + symptomId;
        }
    }

    /**
     * A code that the description's suspects speak of, present in a kept sweep or absent from it.
     */
    record CodeSeen(String code, boolean present) implements Evidence {
        public String key() {
            return "code " + code;
        }
    }

    /** A finding with a fixed set of outcomes, such as how boost followed on a climb. */
    record Outcome(String findingId, String outcomeId) implements Evidence {
        public String key() {
            return "outcome " + findingId;
        }
    }

    /**
     * A finding whose study weighed all that could have made it by itself, and says how sure it is;
     * so surely it counts, whatever the table of the description says of such findings.
     *
     * @param sure 0.5 … 1
     */
    record Judged(String findingId, String outcomeId, double sure) implements Evidence {
        public Judged {
            sure = Math.max(0.5, Math.min(1, Double.isFinite(sure) ? sure : 0.5));
        }

        public String key() {
            return "outcome " + findingId;
        }
    }

    /**
     * An actuator was driven.
     *
     * @param together all actuators that moved at once, this one among them
     * @param moveSeconds travel time, -1 when it never got there
     * @param deviation standard deviation of the travel time from the times of its readings alone,
     *     in seconds
     */
    record Run(
            String actuatorId,
            List<String> together,
            double moveSeconds,
            double deviation,
            double supplyVolts,
            boolean passed)
            implements Evidence {
        public Run {
            together = List.copyOf(together);
        }

        public String key() {
            return "run " + actuatorId + " with " + together;
        }
    }

    /**
     * A meter's reading.
     *
     * @param volts at the point against battery minus
     * @param load nothing, lamp or bulb
     * @param moving ids of the motors that moved meanwhile
     */
    record Reading(
            String circuitId,
            String pointId,
            String load,
            List<String> moving,
            double volts,
            double supplyVolts,
            boolean passed)
            implements Evidence {
        public Reading {
            moving = List.copyOf(moving);
        }

        public String key() {
            return "reading " + circuitId + " " + pointId + " " + load + " " + moving;
        }
    }

    /**
     * What was heard of the network, in a sweep or a roll call; the newer holds.
     *
     * @param fitted modules that this vehicle really has
     * @param passed whether all of them answered every time and none misses another
     */
    record Heard(RollCall call, Set<String> fitted, boolean passed) implements Evidence {
        public Heard {
            fitted = Set.copyOf(fitted);
        }

        public String key() {
            return "network";
        }
    }

    /** What this suspect asked for was done, and the proof failed. */
    record RepairFailed(String suspectId) implements Evidence {
        public String key() {
            return "repair failed " + suspectId;
        }
    }

    /** A technician ruled a suspect out. */
    record RuledOut(String suspectId, String reason) implements Evidence {
        public String key() {
            return "ruled out " + suspectId;
        }
    }
}
