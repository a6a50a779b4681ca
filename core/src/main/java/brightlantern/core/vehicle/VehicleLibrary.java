package brightlantern.core.vehicle;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * All descriptions that could be read, and the mistakes of those that could not.
 *
 * @param mistakes one line each, with file and line; a bad description does not hide the good ones
 */
public record VehicleLibrary(List<VehicleDescription> descriptions, List<String> mistakes) {
    public VehicleLibrary {
        descriptions = List.copyOf(descriptions);
        mistakes = List.copyOf(mistakes);
    }

    /** Reads every folder that holds a {@code vehicle.yaml}. */
    public static VehicleLibrary read(Path folder) throws IOException {
        DescriptionReader reader = new DescriptionReader();
        List<VehicleDescription> good = new ArrayList<>();
        List<String> bad = new ArrayList<>();
        try (Stream<Path> entries = Files.list(folder)) {
            for (Path entry : entries.sorted().toList()) {
                if (Files.exists(entry.resolve("vehicle.yaml"))) {
                    try {
                        good.add(reader.read(entry));
                    } catch (DescriptionException mistakes) {
                        bad.addAll(mistakes.mistakes());
                    }
                }
            }
        }
        return new VehicleLibrary(good, bad);
    }

    /** The same library with every description changed in this way. */
    public VehicleLibrary map(UnaryOperator<VehicleDescription> change) {
        return new VehicleLibrary(descriptions.stream().map(change).toList(), mistakes);
    }

    /** The first description whose pattern a VIN fits. */
    public Optional<VehicleDescription> fitting(Vin vin) {
        return descriptions.stream().filter(d -> d.fits(vin)).findFirst();
    }

    /** The description of an id, if it could be read. */
    public Optional<VehicleDescription> byId(String id) {
        return descriptions.stream().filter(d -> d.id().equals(id)).findFirst();
    }
}
