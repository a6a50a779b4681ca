package brightlantern.core.circuit;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What joins two points of a circuit. */
public enum SegmentKind {
    WIRE,
    FUSE,
    RELAY,
    SPLICE,
    CONTACT,
    EARTH;

    /** As descriptions write it. */
    @JsonValue
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /**
     * @throws IllegalArgumentException when there is none of that word
     */
    @JsonCreator
    public static SegmentKind of(String word) {
        return valueOf(word.toUpperCase(Locale.ROOT));
    }
}
