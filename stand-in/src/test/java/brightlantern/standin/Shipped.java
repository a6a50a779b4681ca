package brightlantern.standin;

import brightlantern.core.reason.CircuitSuspects;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** The descriptions that ship with the program, read once for all tests of a process. */
public final class Shipped {
    private static final VehicleLibrary LIBRARY = read();
    private static final Map<String, VehicleDescription> DERIVED = new ConcurrentHashMap<>();
    private static final Map<String, Reasoners> REASONERS = new ConcurrentHashMap<>();

    private Shipped() {}

    private static VehicleLibrary read() {
        try {
            return VehicleLibrary.read(Path.of("../vehicles"));
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    public static VehicleLibrary library() {
        return LIBRARY;
    }

    public static VehicleDescription vehicle(String id) {
        return LIBRARY.byId(id).orElseThrow();
    }

    /** With all suspects and checks that are derived. */
    public static VehicleDescription derived(String id) {
        return DERIVED.computeIfAbsent(
                id,
                i -> {
                    VehicleDescription d = vehicle(i);
                    return CircuitSuspects.added(NetworkSuspects.added(d));
                });
    }

    /** They remember what they computed. */
    static Reasoners reasoners(String id) {
        return REASONERS.computeIfAbsent(id, i -> new Reasoners(derived(i)));
    }
}
