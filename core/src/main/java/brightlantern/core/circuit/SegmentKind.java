package brightlantern.core.circuit;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What joins two points of a circuit. */
public enum SegmentKind {
    /** Inside its insulation a wire hardly ages; it breaks where it is bent. */
    WIRE("bad", "Repair", 1, 70, 15),
    /** The blade's holder burns before the fuse does. */
    FUSE("burnt", "Repair the holder of", 3, 60, 25),
    /** Contacts burn with every switching. */
    RELAY("burnt", "Replace", 3, 15, 18),
    /** Switches wear, the ones in use most. */
    SWITCH("worn", "Replace", 4, 30, 35),
    /** An output of a module seldom dies by itself, and takes the module with it. */
    DRIVER("dead", "Replace the module behind", 0.7, 90, 420),
    SPLICE("bad", "Remake", 2, 80, 20),
    /** Plugs are wet, shaken, and opened at every repair. */
    CONTACT("corroded", "Clean and remake", 3, 40, 15),
    /** Earth studs sit outside, where salt reaches them. */
    EARTH("corroded", "Clean and remake", 5, 35, 12);

    private final Wear wear;

    SegmentKind(String broken, String repair, double common, double minutes, double price) {
        wear = new Wear(broken, repair, common, minutes, price);
    }

    /** How one ages. */
    public Wear wear() {
        return wear;
    }

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
