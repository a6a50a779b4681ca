package brightlantern.wire.scpi;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;

/**
 * The commands of a kind of instrument, as data: instruments differ in their words, not in what is
 * wanted of them.
 */
public final class CommandProfile {
    private final Map<String, String> commands = new HashMap<>();

    /** Kinds of instruments, with what each must be able to be told. */
    public enum Kind {
        OSCILLOSCOPE(
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
                "data"),
        METER("point", "load", "free", "volts", "alternating", "frequency", "duty", "ohms", "amps");

        private final List<String> needed;

        Kind(String... needed) {
            this.needed = List.of(needed);
        }

        private String words() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private CommandProfile(Kind kind, Properties read) {
        for (String name : kind.needed) {
            String command = read.getProperty(name, "").trim();
            if (command.isEmpty()) {
                throw new IllegalArgumentException(
                        "The profile of the "
                                + kind.words()
                                + " lacks the command '"
                                + name
                                + "'; expected "
                                + String.join(", ", kind.needed));
            }
            commands.put(name, command);
        }
    }

    /**
     * Reads a profile: a line for each command, as java.util.Properties reads them.
     *
     * @throws IllegalArgumentException names the command that is missing
     */
    public static CommandProfile read(Kind kind, InputStream in) throws IOException {
        Properties properties = new Properties();
        properties.load(in);
        return new CommandProfile(kind, properties);
    }

    /** By the subsystems of SCPI-1999. */
    public static CommandProfile standard(Kind kind) {
        try (InputStream in =
                CommandProfile.class.getResourceAsStream(kind.words() + ".properties")) {
            return read(kind, in);
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
