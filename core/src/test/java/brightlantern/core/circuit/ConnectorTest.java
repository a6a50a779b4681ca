package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What sits in a connector, and what is lost without a part. */
class ConnectorTest {
    private static final List<Circuit> HERON = Vehicles.named("oriel-heron").circuits();

    static Stream<String> vehicles() {
        return Vehicles.all();
    }

    /** The left rear lamp has six pins on three sheets. */
    @Test
    void tellsItsPinsAcrossSheets() {
        Connector rear = Connector.of(HERON, "X50").orElseThrow();
        assertThat(rear.pins())
                .extracting(Connector.Pin::number)
                .containsExactly("1", "2", "3", "4", "5", "6");
        Connector.Pin brake = rear.pins().get(2);
        assertThat(brake.at().name()).isEqualTo("Left brake lamp, pin 3");
        assertThat(brake.rest()).isCloseTo(0, within(0.01));
        assertThat(brake.work()).isBetween(11.0, 12.0);
        assertThat(brake.setting()).isEqualTo("brake pedal pressed");
        assertThat(brake.wires()).extracting(Segment::id).containsExactly("W-brake-left");
        assertThat(Connector.of(HERON, "X999")).isEmpty();
    }

    @ParameterizedTest
    @MethodSource("vehicles")
    void everyConnectorIsTold(String id) {
        List<Circuit> circuits = Vehicles.named(id).circuits();
        List<String> plugs =
                circuits.stream()
                        .flatMap(c -> c.segments().stream())
                        .flatMap(s -> s.pin().stream())
                        .map(Segment.Pin::plug)
                        .distinct()
                        .toList();
        assertThat(plugs).hasSizeGreaterThan(20);
        assertThat(plugs)
                .allSatisfy(
                        plug ->
                                assertThat(Connector.of(circuits, plug).orElseThrow().pins())
                                        .isNotEmpty()
                                        .allMatch(p -> Double.isFinite(p.rest() + p.work())));
    }

    @Test
    void withoutAFuseAllThatItFeedsIsLost() {
        assertThat(Lost.with(HERON, Set.of("F64")))
                .extracting(l -> l.gauge().name() + " " + l.shows().name())
                .containsExactlyInAnyOrder(
                        "Left brake lamp dark", "Right brake lamp dark", "High brake lamp dark");
        assertThat(Lost.with(HERON, Set.of("G104")))
                .as("an earth of several sheets")
                .extracting(l -> l.circuit().id())
                .contains("brake-lamps")
                .hasSizeGreaterThan(2);
        assertThat(Lost.with(HERON, Set.of("none"))).isEmpty();
        assertThat(Lost.with(HERON, Set.of())).isEmpty();
    }
}
