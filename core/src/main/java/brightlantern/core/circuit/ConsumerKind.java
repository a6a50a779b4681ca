package brightlantern.core.circuit;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** Kinds of consumers: how they are seen to work, and how they break. */
public enum ConsumerKind {
    /** Filaments burn through: by far the most common fault of a lamp's circuit. */
    LAMP("bright", "dim", "dark", "burnt out", 12, 10, 6),
    HEATER("warm", "lukewarm", "cold", "broken", 4, 40, 60),
    COIL("pulls in", "pulls in weakly", "does nothing", "broken", 3, 35, 45),
    MOTOR("runs", "runs slowly", "stands still", "worn out", 5, 50, 90),
    HORN("loud", "faint", "silent", "broken", 4, 20, 35),
    SOCKET("full voltage", "low voltage", "dead", "broken", 2, 25, 20),
    /** Two wires whose resistance tells what it feels. */
    SENSOR("tells", "tells too little", "tells nothing", "broken inside", 6, 25, 45),
    /** The coil of a relay, which is replaced with it. */
    RELAY("pulls in", "pulls in weakly", "does not pull in", "burnt out", 1.2, 15, 18),
    /** A control module; what breaks in it by itself is of the network. */
    MODULE("fed as it should be", "poorly fed", "silent", "dead", 0.5, 90, 420);

    private final String well;
    private final String weak;
    private final String dead;
    private final Wear wear;

    ConsumerKind(
            String well,
            String weak,
            String dead,
            String broken,
            double common,
            double minutes,
            double price) {
        this.well = well;
        this.weak = weak;
        this.dead = dead;
        this.wear = new Wear(broken, "Replace", common, minutes, price);
    }

    /** How it is while it gets what it needs. */
    public String well() {
        return well;
    }

    /** How it is while it gets too little. */
    public String weak() {
        return weak;
    }

    /** How it is while it gets nothing. */
    public String dead() {
        return dead;
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
    public static ConsumerKind of(String word) {
        return valueOf(word.toUpperCase(Locale.ROOT));
    }
}
