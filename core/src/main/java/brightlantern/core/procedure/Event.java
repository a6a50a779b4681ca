package brightlantern.core.procedure;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What happened to a run. The log of these is all that is needed to play a run again. Each names
 * the step that it is about; one about another step than the present one came too late and counts
 * for nothing.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Event.Pressed.class, name = "pressed"),
    @JsonSubTypes.Type(value = Event.Chosen.class, name = "chosen"),
    @JsonSubTypes.Type(value = Event.Typed.class, name = "typed"),
    @JsonSubTypes.Type(value = Event.Held.class, name = "held"),
    @JsonSubTypes.Type(value = Event.Late.class, name = "late"),
    @JsonSubTypes.Type(value = Event.Did.class, name = "did"),
    @JsonSubTypes.Type(value = Event.Kept.class, name = "kept"),
    @JsonSubTypes.Type(value = Event.Refused.class, name = "refused"),
    @JsonSubTypes.Type(value = Event.Judged.class, name = "judged"),
    @JsonSubTypes.Type(value = Event.Stopped.class, name = "stopped"),
    @JsonSubTypes.Type(value = Event.Resumed.class, name = "resumed")
})
public sealed interface Event {
    String step();

    /** What was told to do is done. */
    record Pressed(String step) implements Event {}

    record Chosen(String step, String choice) implements Event {}

    record Typed(String step, double number) implements Event {}

    /** The condition of a wait came true. */
    record Held(String step) implements Event {}

    /** It did not in its time. */
    record Late(String step) implements Event {}

    /** A command was carried out, or values were read. */
    record Did(String step, Map<String, Double> readings) implements Event {}

    /** What was read or built, under the names by which it is known. */
    record Kept(String step, Map<String, String> data) implements Event {}

    /** The vehicle refused a command, in these words. */
    record Refused(String step, String words) implements Event {}

    /** A study judged what was measured. */
    record Judged(
            String step,
            String outcome,
            Optional<Boolean> passes,
            String sentence,
            List<String> reasons)
            implements Event {}

    /** The run was broken off; all outputs were given back. */
    record Stopped(String step, String why) implements Event {}

    /** Somebody goes on with a run that was broken off. */
    record Resumed(String step) implements Event {}
}
