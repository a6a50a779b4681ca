package brightlantern.core.network;

/** What an oscilloscope at both ends of a bus shows of its wires. */
public enum WireState {
    SOUND("both wires carry every frame to both ends"),
    SOUND_WITHOUT("both wires are sound, and some modules send nothing"),
    HIGH_OPEN("the high wire is broken or has a bad contact"),
    LOW_OPEN("the low wire is broken or has a bad contact"),
    BOTH_OPEN("both wires are broken"),
    SHORTED("the wires lie together, no level comes about"),
    UNTERMINATED("levels are too far apart: a terminating resistor is missing"),
    BABBLING("one module sends without an end"),
    SILENT("nobody sends anything"),
    UNCLEAR("what is seen fits none of these");

    private final String words;

    WireState(String words) {
        this.words = words;
    }

    /** As people read it. */
    public String words() {
        return words;
    }

    /** Whether a wire is broken at a place that it tells. */
    public boolean isOpen() {
        return this == HIGH_OPEN || this == LOW_OPEN || this == BOTH_OPEN;
    }
}
