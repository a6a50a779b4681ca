package brightlantern.core.suspect;

import brightlantern.core.circuit.Touched;
import brightlantern.core.description.References;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Optional;

/** What a suspect does physically. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Effect.Series.class, name = "series"),
    @JsonSubTypes.Type(value = Effect.Chafed.class, name = "chafed"),
    @JsonSubTypes.Type(value = Effect.Shorted.class, name = "shorted"),
    @JsonSubTypes.Type(value = Effect.Loose.class, name = "loose"),
    @JsonSubTypes.Type(value = Effect.Stuck.class, name = "stuck"),
    @JsonSubTypes.Type(value = Effect.Off.class, name = "off"),
    @JsonSubTypes.Type(value = Effect.Drag.class, name = "drag"),
    @JsonSubTypes.Type(value = Effect.Sags.class, name = "sags")
})
public sealed interface Effect {
    /** What it refers to must be described. */
    void check(References.At at);

    /** Id of the part of a circuit in which it is; empty for what is in none. */
    Optional<String> part();

    /** It is in a part of a circuit. */
    sealed interface OfPart extends Effect {
        /** Id of the circuit. */
        String circuit();

        /** Id of the part. */
        String of();

        @Override
        default Optional<String> part() {
            return Optional.of(of());
        }

        @Override
        default void check(References.At at) {
            at.needs(kind() + " of circuit " + circuit(), of());
        }

        /** What it must be, for who wrote something else. */
        default String kind() {
            return "a segment";
        }
    }

    /**
     * Ohms are added in a segment of a circuit.
     *
     * @param of the segment
     * @param from least ohms, to the most
     * @param breaks whether it may also be open
     */
    record Series(String circuit, String of, double from, double to, boolean breaks)
            implements OfPart {
        /** One that never breaks quite. */
        public Series(String circuit, String of, double from, double to) {
            this(circuit, of, from, to, false);
        }
    }

    /**
     * A wire touches the body, or what is live.
     *
     * @param of the wire
     * @param from least ohms to what it touches, to the most
     */
    record Chafed(String circuit, String of, Touched touched, double from, double to)
            implements OfPart {
        public Chafed {
            touched = touched == null ? Touched.EARTH : touched;
        }
    }

    /**
     * A wire touches the body and blows its fuse.
     *
     * @param of the wire
     */
    record Shorted(String circuit, String of, String fuse) implements OfPart {
        @Override
        public void check(References.At at) {
            at.needs("a segment of circuit " + circuit, List.of(of, fuse));
        }
    }

    /**
     * A part opens when it is shaken, and is sound at rest.
     *
     * @param of of a connector the first of its contacts of which a break shows
     */
    record Loose(String circuit, String of) implements OfPart {}

    /**
     * What switches stays closed.
     *
     * @param of the relay, switch or output
     */
    record Stuck(String circuit, String of) implements OfPart {}

    /**
     * A sensor tells, or its module makes of what arrives, so many times what it should.
     *
     * @param of the sensor, or the part that stands for the input
     * @param down to which factor below 1 it may be off without showing; 0 where it never shows
     * @param up to which factor above 1; 0 where it never shows
     * @param misread whether the module does it
     */
    record Off(String circuit, String of, double down, double up, boolean misread)
            implements OfPart {}

    /**
     * A motor has more to move.
     *
     * @param of the motor
     * @param from least factor on its load current, to the most
     */
    record Drag(String circuit, String of, double from, double to) implements OfPart {
        @Override
        public String kind() {
            return "a motor";
        }
    }

    /**
     * The supply runs down, and with it every motor slows.
     *
     * @param share of the vehicles that have it in which it runs so far down, 0 … 1
     */
    record Sags(double share) implements Effect {
        @Override
        public Optional<String> part() {
            return Optional.empty();
        }

        @Override
        public void check(References.At at) {
            // it is of the whole vehicle
        }
    }

    /** An element of the network lets less through, or nothing. */
    record OfElement(String element) implements Effect {
        @Override
        public Optional<String> part() {
            return Optional.empty();
        }

        @Override
        public void check(References.At at) {
            // made by the program, it refers to nothing that is written
        }
    }
}
