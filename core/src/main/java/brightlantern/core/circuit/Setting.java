package brightlantern.core.circuit;

/**
 * Something that is switched or unplugged at the vehicle while a circuit is looked at.
 *
 * @param name as a state, such as "low beam on"
 * @param does what somebody does for it, such as "Turn the light switch to low beam"
 */
public record Setting(String id, String name, String does) {
    private static final String UNPLUG = "unplug-";

    /** A connector that is pulled. */
    static Setting unplugged(String plug) {
        return new Setting(UNPLUG + plug, plug + " unplugged", "Unplug connector " + plug);
    }

    /** Whether a setting of that id pulls a connector. */
    public static boolean unplugs(String settingId) {
        return settingId.startsWith(UNPLUG);
    }
}
