package brightlantern.core.circuit;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import java.util.Optional;

/** What joins two points of a circuit. */
public enum SegmentKind {
    /** Inside its insulation a wire hardly ages; it breaks where it is bent. */
    WIRE("bad", "Repair", 1, 0, 70, 15, 0.3, 0),
    /** The blade's holder burns before the fuse does. */
    FUSE("burnt", "Repair the holder of", 3, 0, 60, 25, 0.5, 0),
    /** Contacts burn with every switching. */
    RELAY("burnt", "Replace", 3, 0, 15, 18, 1, 0.8),
    /** Switches wear, the ones in use most. */
    SWITCH("worn", "Replace", 4, 0, 30, 35, 1, 0.6),
    /** An output of a module seldom dies by itself, and takes the module with it. */
    DRIVER("dead", "Replace the module behind", 0.7, 0, 90, 420, 0, 0.5),
    SPLICE("bad", "Remake", 2, 12, 80, 20, 0.5, 0),
    /** Plugs are wet, shaken, and opened at every repair. */
    CONTACT("corroded", "Clean and remake", 3, 12, 40, 15, 0, 0),
    /** Inside a high-voltage plug: open when that is not seated, or was left half-locked. */
    BRIDGE("open", "Make the high voltage safe, then seat or replace", 1.5, 12, 60, 90, 0.6, 0),
    /** Earth studs sit outside, where salt reaches them. */
    EARTH("corroded", "Clean and remake", 5, 12, 35, 12, 1, 0);

    private final Wear wear;
    private final Wear loose;
    private final Wear stuck;

    /**
     * @param loose how often one comes and goes; 0 where its connector does so as a whole, or a
     *     module that hides it
     * @param stuck how often one stays closed when it should open; 0 for what never opens
     */
    SegmentKind(
            String broken,
            String repair,
            double common,
            double ages,
            double minutes,
            double price,
            double loose,
            double stuck) {
        wear = new Wear(broken, repair, common, ages, minutes, price);
        this.loose = new Wear(Wear.LOOSE.broken(), repair, loose, ages, minutes, price);
        this.stuck = new Wear("stays closed", repair, stuck, minutes, price);
    }

    /** How one comes and goes; nothing where it does not do so by itself. */
    public Optional<Wear> loose() {
        return Optional.of(loose).filter(w -> w.common() > 0);
    }

    /** How one stays closed when it should open; nothing for what never opens. */
    public Optional<Wear> stuck() {
        return Optional.of(stuck).filter(w -> w.common() > 0);
    }

    /** Whether it lies in a harness, where nobody can tap it. */
    public boolean isLine() {
        return this == WIRE || this == SPLICE;
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
