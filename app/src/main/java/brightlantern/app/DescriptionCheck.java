package brightlantern.app;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Segment;
import brightlantern.core.reason.CircuitSuspects;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** Reads all descriptions of a folder and tells what each of them comes to, in a line. */
final class DescriptionCheck {
    private DescriptionCheck() {}

    /**
     * Prints a line for each vehicle, and one for each mistake.
     *
     * @return whether there was no mistake
     * @throws IOException when the folder cannot be read
     */
    static boolean run(Path folder, PrintStream out) throws IOException {
        VehicleLibrary library = VehicleLibrary.read(folder);
        library.descriptions().forEach(d -> out.println(line(d)));
        library.mistakes().forEach(out::println);
        return library.mistakes().isEmpty();
    }

    static String line(VehicleDescription bare) {
        VehicleDescription d = CircuitSuspects.added(NetworkSuspects.added(bare));
        List<Component> parts =
                d.circuits().stream().flatMap(c -> c.components().stream()).toList();
        return "%s: components %d, connectors %d, pins %d, sensors %d, suspects %d, checks %d, symptoms %d, codes %d"
                .formatted(
                        d.id(),
                        parts.stream().map(Component::id).distinct().count(),
                        pins(parts).map(Segment.Pin::plug).distinct().count(),
                        pins(parts).distinct().count(),
                        d.circuits().stream()
                                .filter(c -> !c.sources().isEmpty())
                                .mapToLong(DescriptionCheck::gauges)
                                .sum(),
                        d.suspects().size(),
                        d.checks().size(),
                        d.symptoms().size(),
                        d.codes().size());
    }

    private static long gauges(Circuit circuit) {
        return circuit.gauges().stream().filter(g -> g.by() == Gauge.By.MODULE).count();
    }

    private static Stream<Segment.Pin> pins(List<Component> parts) {
        return parts.stream()
                .filter(Segment.class::isInstance)
                .flatMap(p -> ((Segment) p).pin().stream());
    }
}
