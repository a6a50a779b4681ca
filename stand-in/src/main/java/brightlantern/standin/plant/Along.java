package brightlantern.standin.plant;

import java.util.Locale;

/** How a wire is, all along. */
public enum Along {
    CLEAN("It is whole, all of it."),
    RUBBED("It has rubbed through on the body, and touches it."),
    AGAINST("It has rubbed through on another wire, and both are bare there."),
    GIVES("It gives when it is pulled: it is broken inside its insulation.");

    private final String words;

    Along(String words) {
        this.words = words;
    }

    /** As somebody tells it who looked. */
    public String words() {
        return words;
    }

    /** As a finding has it. */
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }
}
