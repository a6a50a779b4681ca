package brightlantern.core.circuit;

import com.fasterxml.jackson.annotation.JsonCreator;
import java.util.Locale;

/**
 * Something that is switched or unplugged at the vehicle while a circuit is looked at.
 *
 * @param name as a state, such as "low beam on"
 * @param does what somebody does for it, such as "Turn the light switch to low beam"
 * @param by who or what makes it
 */
public record Setting(String id, String name, String does, By by) {
    private static final String UNPLUG = "unplug-";

    /** What makes a setting. */
    public enum By {
        /** Somebody at the vehicle, and nothing else. */
        HAND,
        /** The engine while it turns, whether it runs or is cranked; or somebody. */
        ENGINE,
        /** The key while it is held at start; or somebody. */
        STARTER;

        /**
         * @throws IllegalArgumentException when there is none of that word
         */
        @JsonCreator
        public static By of(String word) {
            return valueOf(word.toUpperCase(Locale.ROOT));
        }
    }

    /** A connector that is pulled. */
    static Setting unplugged(String plug) {
        return new Setting(UNPLUG + plug, plug + " unplugged", "Unplug connector " + plug, By.HAND);
    }

    /** Whether a setting of that id pulls a connector. */
    public static boolean unplugs(String settingId) {
        return settingId.startsWith(UNPLUG);
    }
}
