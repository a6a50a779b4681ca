package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FaceTest {
    private static final List<Circuit> CIRCUITS = Vehicles.named("oriel-heron").circuits();

    private static Face face(String plug) {
        return Face.of(Connector.of(CIRCUITS, plug).orElseThrow()).orElseThrow();
    }

    /** X35 holds 1 and 2, X60 1 and 4, X51 1 to 6. */
    @ParameterizedTest
    @CsvSource({"X35, 2, 1, 2", "X60, 2, 2, 2", "X51, 3, 2, 6"})
    void cavitiesAreCountedRowByRow(String plug, int columns, int rows, int used) {
        Face face = face(plug);
        assertThat(face.columns()).isEqualTo(columns);
        assertThat(face.rows()).isEqualTo(rows);
        assertThat(face.cavities()).hasSize(columns * rows);
        assertThat(face.cavities().stream().filter(Face.Cavity::used)).hasSize(used);
        assertThat(face.cavities())
                .allSatisfy(
                        c -> assertThat(c.row() * columns + c.column() + 1).isEqualTo(c.number()));
    }

    @Test
    void everyConnectorOfThatVehicleHasOneInWhichEachPinHasItsPlace() {
        List<String> plugs =
                CIRCUITS.stream()
                        .flatMap(c -> c.segments().stream())
                        .flatMap(s -> s.pin().stream())
                        .map(Segment.Pin::plug)
                        .distinct()
                        .toList();
        assertThat(plugs).hasSizeGreaterThan(40);
        for (String plug : plugs) {
            Connector connector = Connector.of(CIRCUITS, plug).orElseThrow();
            assertThat(face(plug).cavities().stream().filter(Face.Cavity::used).count())
                    .as(plug)
                    .isEqualTo(
                            connector.pins().stream()
                                    .map(Connector.Pin::number)
                                    .distinct()
                                    .count());
        }
    }

    @Test
    void whatIsNotCountedHasNoFace() {
        Connector.Pin pin = Connector.of(CIRCUITS, "X35").orElseThrow().pins().get(0);
        Connector named =
                new Connector(
                        "X35",
                        List.of(
                                new Connector.Pin(
                                        "A",
                                        pin.circuit(),
                                        pin.contact(),
                                        pin.at(),
                                        pin.wires(),
                                        0,
                                        0,
                                        "")));
        assertThat(Face.of(named)).isEmpty();
    }
}
