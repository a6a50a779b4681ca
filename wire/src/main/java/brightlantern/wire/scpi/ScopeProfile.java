package brightlantern.wire.scpi;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;

/**
 * The commands of a kind of oscilloscope, as data: instruments differ in their words, not in what
 * is wanted of them.
 */
public final class ScopeProfile {
    private static final List<String> NEEDED =
            List.of(
                    "connect",
                    "free",
                    "range",
                    "interval",
                    "points",
                    "before",
                    "at-once",
                    "by-lane",
                    "level",
                    "rises",
                    "falls",
                    "longer",
                    "shorter",
                    "missing",
                    "coupling",
                    "filter",
                    "format",
                    "start",
                    "stop",
                    "state",
                    "acquired",
                    "preamble",
                    "data");

    private final Map<String, String> commands = new HashMap<>();

    private ScopeProfile(Properties read) {
        for (String name : NEEDED) {
            String command = read.getProperty(name, "").trim();
            if (command.isEmpty()) {
                throw new IllegalArgumentException(
                        "The profile of the oscilloscope lacks the command '"
                                + name
                                + "'; expected "
                                + String.join(", ", NEEDED));
            }
            commands.put(name, command);
        }
    }

    /**
     * Reads a profile: a line for each command, as java.util.Properties reads them.
     *
     * @throws IllegalArgumentException names the command that is missing
     */
    public static ScopeProfile read(InputStream in) throws IOException {
        Properties properties = new Properties();
        properties.load(in);
        return new ScopeProfile(properties);
    }

    /** By the subsystems of SCPI-1999. */
    public static ScopeProfile standard() {
        try (InputStream in = ScopeProfile.class.getResourceAsStream("scope.properties")) {
            return read(in);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /**
     * A command with its braces filled in.
     *
     * @param with name and value in turn
     */
    String command(String name, Object... with) {
        String text = commands.get(name);
        for (int i = 0; i < with.length; i += 2) {
            text = text.replace("{" + with[i] + "}", String.valueOf(with[i + 1]));
        }
        return text;
    }
}
