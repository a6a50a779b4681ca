package brightlantern.core.suspect;

import brightlantern.core.network.RollCall;
import brightlantern.core.network.WireState;
import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** One finding that may speak for or against suspects. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Evidence.SymptomTold.class, name = "symptom"),
    @JsonSubTypes.Type(value = Evidence.SymptomGone.class, name = "symptomGone"),
    @JsonSubTypes.Type(value = Evidence.CodeSeen.class, name = "code"),
    @JsonSubTypes.Type(value = Evidence.Outcome.class, name = "outcome"),
    @JsonSubTypes.Type(value = Evidence.Judged.class, name = "judged"),
    @JsonSubTypes.Type(value = Evidence.Run.class, name = "run"),
    @JsonSubTypes.Type(value = Evidence.Reading.class, name = "reading"),
    @JsonSubTypes.Type(value = Evidence.Heard.class, name = "heard"),
    @JsonSubTypes.Type(value = Evidence.BusSeen.class, name = "busSeen"),
    @JsonSubTypes.Type(value = Evidence.RepairFailed.class, name = "repairFailed"),
    @JsonSubTypes.Type(value = Evidence.WorkedOn.class, name = "workedOn"),
    @JsonSubTypes.Type(value = Evidence.Driven.class, name = "driven"),
    @JsonSubTypes.Type(value = Evidence.RuledOut.class, name = "ruledOut")
})
public sealed interface Evidence {
    /** Evidence with the same key is of the same thing; the newer replaces the older. */
    String key();

    /** Whether it shows something wrong by itself; empty for what only tells together with more. */
    default Optional<Boolean> passed() {
        return Optional.empty();
    }

    /** Whether the same can be done again, to see whether a repair has helped. */
    default boolean repeatable() {
        return true;
    }

    /** Where it is done again, with its condition set, as far as the evidence itself tells. */
    default Optional<Place> place(List<Check> checks) {
        return Optional.empty();
    }

    record SymptomTold(String symptomId) implements Evidence {
        @Override
        public String key() {
            return "symptom " + symptomId;
        }
    }

    /**
     * What was complained of was tried again under its conditions, and did not show.
     *
     * @param symptomId empty for a complaint that is not coded
     */
    record SymptomGone(String symptomId) implements Evidence {
        @Override
        public String key() {
            return new SymptomTold(symptomId).key();
        }
    }

    /**
     * A code that the description's suspects speak of, present in a kept sweep or absent from it.
     */
    record CodeSeen(String code, boolean present) implements Evidence {
        @Override
        public String key() {
            return "code " + code;
        }

        @Override
        public Optional<Boolean> passed() {
            return Optional.of(!present);
        }

        @Override
        public boolean repeatable() {
            return false;
        }
    }

    /** A finding with a fixed set of outcomes, such as how boost followed on a climb. */
    record Outcome(String findingId, String outcomeId) implements Evidence {
        static String key(String findingId) {
            return "outcome " + findingId;
        }

        @Override
        public String key() {
            return key(findingId);
        }

        @Override
        public Optional<Place> place(List<Check> checks) {
            return checks.stream().filter(c -> c.key().equals(key())).findFirst().map(Check::place);
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

        @Override
        public String key() {
            return Outcome.key(findingId);
        }

        @Override
        public Optional<Place> place(List<Check> checks) {
            return new Outcome(findingId, outcomeId).place(checks);
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
            @JsonProperty("passed") boolean right)
            implements Evidence {
        public Run {
            together = List.copyOf(together);
        }

        static String key(String actuatorId, List<String> together) {
            return "run " + actuatorId + " with " + together;
        }

        @Override
        public String key() {
            return key(actuatorId, together);
        }

        @Override
        public Optional<Boolean> passed() {
            return Optional.of(right);
        }

        @Override
        public Optional<Place> place(List<Check> checks) {
            return Optional.of(Place.driving(actuatorId));
        }
    }

    /**
     * A meter's reading.
     *
     * @param volts at the point against battery minus
     * @param load nothing, lamp or bulb
     * @param moving ids of the motors that moved meanwhile
     * @param told value → what its module told meanwhile of a sensor whose signal is at the point
     */
    record Reading(
            String circuitId,
            String pointId,
            String load,
            List<String> moving,
            double volts,
            double supplyVolts,
            @JsonProperty("passed") boolean right,
            Map<String, Double> told)
            implements Evidence {
        @JsonCreator
        public Reading {
            moving = List.copyOf(moving);
            // readings that were kept before have none
            told = told == null ? Map.of() : Map.copyOf(told);
        }

        /** A reading of a point at which no sensor's signal is, or while no module was asked. */
        public Reading(
                String circuitId,
                String pointId,
                String load,
                List<String> moving,
                double volts,
                double supplyVolts,
                boolean right) {
            this(circuitId, pointId, load, moving, volts, supplyVolts, right, Map.of());
        }

        static String key(String circuitId, String pointId, String load, List<String> moving) {
            return "reading " + circuitId + " " + pointId + " " + load + " " + moving;
        }

        /** The condition under which a reading is taken, as the page of readings names it. */
        public static String condition(String load, List<String> moving) {
            return load.toLowerCase(Locale.ROOT)
                    + moving.stream().map(m -> "-" + m).findFirst().orElse("");
        }

        @Override
        public String key() {
            return key(circuitId, pointId, load, moving);
        }

        @Override
        public Optional<Boolean> passed() {
            return Optional.of(right);
        }

        @Override
        public Optional<Place> place(List<Check> checks) {
            return Optional.of(Place.probing(circuitId, pointId, condition(load, moving)));
        }
    }

    /**
     * What was heard of the network, in a sweep or a roll call; the newer holds.
     *
     * @param fitted modules that this vehicle really has
     * @param right whether all of them answered every time and none misses another
     */
    record Heard(RollCall call, Set<String> fitted, @JsonProperty("passed") boolean right)
            implements Evidence {
        public Heard {
            fitted = Set.copyOf(fitted);
        }

        static final String KEY = "network";

        @Override
        public String key() {
            return KEY;
        }

        @Override
        public Optional<Boolean> passed() {
            return Optional.of(right);
        }

        @Override
        public Optional<Place> place(List<Check> checks) {
            return Optional.of(Place.of("sweep/roll-call"));
        }
    }

    /**
     * What an oscilloscope at both ends of a bus showed of its wires.
     *
     * @param at the last station before a break, the gateway being 0; below 0 without one
     * @param upTo the last one behind which it may be as well, as nobody between them sends
     * @param absent modules that sent nothing, where both wires are sound
     */
    record BusSeen(
            String bus,
            WireState state,
            int at,
            int upTo,
            Set<String> absent,
            @JsonProperty("passed") boolean right)
            implements Evidence {
        public BusSeen {
            absent = Set.copyOf(absent);
            // what was kept before this was known
            upTo = Math.max(at, upTo);
        }

        /** Whether a break behind a station may be what was seen. */
        public boolean mayBeBehind(int station) {
            return station >= at && station <= upTo;
        }

        static String key(String bus) {
            return "bus " + bus;
        }

        @Override
        public String key() {
            return key(bus);
        }

        @Override
        public Optional<Boolean> passed() {
            return Optional.of(right);
        }

        @Override
        public Optional<Place> place(List<Check> checks) {
            return Optional.of(Place.capturing("bus-" + bus));
        }
    }

    /** What this suspect asked for was done, and the proof failed. */
    record RepairFailed(String suspectId) implements Evidence {
        @Override
        public String key() {
            return "repair failed " + suspectId;
        }

        @Override
        public boolean repeatable() {
            return false;
        }
    }

    /**
     * What a suspect asks for was done before the complaint came.
     *
     * @param months since it was done
     */
    record WorkedOn(String suspectId, double months) implements Evidence {
        @Override
        public String key() {
            return "worked on " + suspectId;
        }

        @Override
        public boolean repeatable() {
            return false;
        }
    }

    /**
     * What the odometer shows, and how old it is; what wears is rarer before it has worn.
     *
     * @param years since it was built; 0 where that is not known
     */
    record Driven(double kilometres, double years) implements Evidence {
        @Override
        public String key() {
            return "driven";
        }

        @Override
        public boolean repeatable() {
            return false;
        }
    }

    /** A technician ruled a suspect out. */
    record RuledOut(String suspectId, String reason) implements Evidence {
        @Override
        public String key() {
            return "ruled out " + suspectId;
        }

        @Override
        public boolean repeatable() {
            return false;
        }
    }
}
