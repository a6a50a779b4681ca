package brightlantern.standin;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;

/** The descriptions that ship with the program, read once for all tests of a process. */
public final class Shipped {
    private static final VehicleLibrary LIBRARY = read();

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
}
