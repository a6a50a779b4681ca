package brightlantern.app.probe;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.Shipped;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.vehicle.VehicleDescription;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** From whatever somebody types to the sheet that shows it. */
class SheetFinderTest {
    private final VehicleDescription heron = Shipped.vehicle("oriel-heron");

    @ParameterizedTest
    @CsvSource({
        "P0118-15, engine-temperatures",
        "coolant temperature, engine-temperatures",
        "F41, low-beam",
        "x30, low-beam",
        "G104, side-left",
        "left  LOW beam, low-beam",
        "tunnel lever, wiper-front",
        "module brakes, wheel-front-left"
    })
    void leadsToItsSheet(String typed, String sheet) {
        assertThat(SheetFinder.find(heron, typed))
                .extracting(ProbeView.Found::circuit)
                .contains(sheet);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "   ", "X999", "<script>"})
    void whatIsOnNoSheetFindsNothing(String typed) {
        assertThat(SheetFinder.find(heron, typed)).isEmpty();
    }

    @Test
    void everyPointThatItOffersCanBeTouched() {
        assertThat(SheetFinder.find(heron, "left"))
                .isNotEmpty()
                .allSatisfy(
                        f -> {
                            Circuit c = heron.circuit(f.circuit()).orElseThrow();
                            assertThat(f.point().isEmpty() || c.probe(f.point()).isPresent())
                                    .as(f.what())
                                    .isTrue();
                        });
    }

    @Test
    void whatSharesAFuseOrAnEarthIsNamed() {
        Circuit left = heron.circuit("turn-left").orElseThrow();
        assertThat(SheetFinder.shares(heron, left))
                .anySatisfy(
                        s -> {
                            assertThat(s.part()).isEqualTo("Fuse F63 10 A");
                            assertThat(s.with())
                                    .extracting(ProbeView.SheetLink::id)
                                    .containsExactly("turn-right");
                        });
        assertThat(SheetFinder.bySystem(heron, left).get("Lighting"))
                .filteredOn(ProbeView.SheetLink::here)
                .extracting(ProbeView.SheetLink::id)
                .containsExactly("turn-left");
    }
}
