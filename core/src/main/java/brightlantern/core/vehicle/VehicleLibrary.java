package brightlantern.core.vehicle;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
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

    /** Reads every folder that holds a {@code vehicle.yaml}, several at once. */
    public static VehicleLibrary read(Path folder) throws IOException {
        List<Path> folders;
        try (Stream<Path> entries = Files.list(folder)) {
            folders =
                    entries.filter(e -> Files.exists(e.resolve("vehicle.yaml"))).sorted().toList();
        }
        List<VehicleLibrary> each;
        try {
            each = folders.parallelStream().map(VehicleLibrary::one).toList();
        } catch (UncheckedIOException unreadable) {
            throw unreadable.getCause();
        }
        return new VehicleLibrary(
                each.stream().flatMap(l -> l.descriptions().stream()).toList(),
                each.stream().flatMap(l -> l.mistakes().stream()).toList());
    }

    private static VehicleLibrary one(Path folder) {
        try {
            return new VehicleLibrary(List.of(new DescriptionReader().read(folder)), List.of());
        } catch (DescriptionException mistakes) {
            return new VehicleLibrary(List.of(), mistakes.mistakes());
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** The same library with every description changed in this way, several at once. */
    public VehicleLibrary map(UnaryOperator<VehicleDescription> change) {
        return new VehicleLibrary(descriptions.parallelStream().map(change).toList(), mistakes);
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
