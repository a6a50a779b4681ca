package brightlantern.core.suspect;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;

/** What a suspect does physically. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Effect.Series.class, name = "series"),
    @JsonSubTypes.Type(value = Effect.Drag.class, name = "drag")
})
public sealed interface Effect {
    /**
     * Ohms are added in a segment of a circuit.
     *
     * @param of the segment
     * @param from least ohms, to the most
     */
    record Series(String circuit, String of, double from, double to) implements Effect {}

    /**
     * A motor has more to move.
     *
     * @param of the motor
     * @param from least factor on its load current, to the most
     */
    record Drag(String circuit, String of, double from, double to) implements Effect {}

    /** An element of the network lets less through, or nothing. */
    record OfElement(String element) implements Effect {}
}
