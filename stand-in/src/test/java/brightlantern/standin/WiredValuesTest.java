package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class WiredValuesTest {
    static Stream<String> all() {
        return Shipped.library().descriptions().stream().map(VehicleDescription::id);
    }

    /** A module cannot tell what a sensor feels when the sensor is broken. */
    @ParameterizedTest
    @MethodSource("all")
    void whatAModuleTellsComesByItsSensor(String id) {
        StandInVehicle v = Yard.common().built(id);
        Circuits circuits = v.simulation().circuits().orElseThrow();
        List<String> followed = new ArrayList<>();
        for (Circuit c : v.description().circuits()) {
            for (Gauge g : c.gauges()) {
                Optional<Part.Failure> open =
                        circuits.failures().stream()
                                .filter(f -> f.of().equals(g.part()) && f.mode().equals("series"))
                                .findFirst();
                if (g.by() != Gauge.By.MODULE || g.value().isEmpty() || open.isEmpty()) {
                    continue;
                }
                circuits.fail("series", g.part(), open.get().most());
                double told = v.reading(g.value());
                double felt = v.simulation().felt(g.value());
                circuits.mend(g.part());
                // a sensor that feels nothing tells the same when it is dead
                if (felt > 1) {
                    assertThat(told).as(g.name()).isNotCloseTo(felt, within(felt));
                    followed.add(g.value());
                }
            }
        }
        assertThat(followed).hasSizeGreaterThan(3);
    }

    private static Offset<Double> within(double felt) {
        return Offset.offset(0.05 * felt);
    }
}
