package brightlantern.standin.plant;

import java.util.Locale;

/** How a wire is, all along. */
public enum Along {
    CLEAN("It is whole, all of it."),
    RUBBED("It has rubbed through and touches the body."),
    AGAINST("It has rubbed through, and another wire beside it, and both touch."),
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
