package brightlantern.core.vehicle;

import brightlantern.core.reason.CircuitSuspects;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/** The descriptions that ship with the program, for tests. */
public final class Vehicles {
    private static final VehicleLibrary LIBRARY = read();
    private static final Map<String, VehicleDescription> DERIVED = new ConcurrentHashMap<>();

    private Vehicles() {}

    private static VehicleLibrary read() {
        try {
            VehicleLibrary library = VehicleLibrary.read(Path.of("../vehicles"));
            if (!library.mistakes().isEmpty()) {
                throw new IllegalStateException(String.join("\n", library.mistakes()));
            }
            return library;
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** Ids of all that ship; a new one is tested like the others. */
    public static Stream<String> all() {
        return LIBRARY.descriptions().stream().map(VehicleDescription::id);
    }

    public static VehicleDescription portage() {
        return named("tamarack-portage");
    }

    /** With all suspects and checks that its circuits derive. */
    public static VehicleDescription derived(String id) {
        return DERIVED.computeIfAbsent(id, i -> CircuitSuspects.added(named(i)));
    }

    public static VehicleDescription named(String id) {
        return LIBRARY.byId(id).orElseThrow();
    }
}
