package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import brightlantern.core.circuit.Characteristic;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Value;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Hands;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A sensor's pins follow what it feels, and its module tells what arrives at them. */
class SensesTest {
    private static final String PIN = "X1.12";
    private static final String AT_SENSOR = "X83.1";

    private final Yard yard = Yard.common();

    private static Characteristic coolant(StandInVehicle v) {
        Value value = v.description().value("coolant").orElseThrow();
        for (Circuit c : v.description().circuits()) {
            for (Gauge g : c.gauges()) {
                if (g.by() == Gauge.By.MODULE && g.value().equals("coolant")) {
                    return Characteristic.of(c, g, value).orElseThrow();
                }
            }
        }
        throw new AssertionError("nobody tells the coolant of " + v.description().id());
    }

    private static double volts(StandInVehicle v, String point) {
        return v.simulation().circuits().orElseThrow().volts(point).orElseThrow();
    }

    private static void warm(StandInVehicle v) {
        v.simulation().crank();
        v.live(240);
        assertThat(v.simulation().running()).isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "tamarack-portage",
                "oriel-finch",
                "velmont-cairn",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void theSignalFollowsTheWater(String vehicle) {
        // one that nobody has warmed
        StandInVehicle v = StandIns.of(Shipped.derived(vehicle), StandIns.AS_BUILT, 733);
        Characteristic its = coolant(v);
        double cold = volts(v, PIN);
        double before = v.simulation().felt("coolant");
        assertThat(cold).isCloseTo(5 * its.shareAt(before), within(0.2));
        warm(v);
        double after = v.simulation().felt("coolant");
        assertThat(after).isGreaterThan(before + 3);
        assertThat(volts(v, PIN)).isCloseTo(5 * its.shareAt(after), within(0.2)).isLessThan(cold);
        assertThat(v.reading("coolant")).isCloseTo(after, within(1.0));
        Hands hands = v.simulation().circuits().orElseThrow().hands();
        Gauge ohms = hands.ohms().get("gauge-coolant-sensor-ohms");
        double share = its.shareAt(after);
        assertThat(hands.ohms(ohms))
                .as("unplugged it is as warm as before")
                .isCloseTo(2200 * share / (1 - share), withinPercentage(12));
    }

    @Test
    void ohmsInItsWireTakeFromWhatArrives() {
        StandInVehicle v = yard.built("oriel-finch");
        Circuits circuits = v.simulation().circuits().orElseThrow();
        double felt = v.simulation().felt("coolant");
        circuits.fail("series", "W-coolant-sensor", 1500);
        double arrives = volts(v, PIN);
        assertThat(arrives - volts(v, AT_SENSOR))
                .isCloseTo((5 - arrives) / 2200 * 1500, within(0.2));
        // more ohms are colder water
        double told = v.reading("coolant");
        assertThat(told).isLessThan(felt - 10);
        assertThat(coolant(v).shareAt(told)).isCloseTo(arrives / 5, within(0.03));
        circuits.mend("W-coolant-sensor");
        assertThat(v.reading("coolant")).isCloseTo(felt, within(1.0));
    }

    @Test
    void anOpenWireTellsTheColdestThereIs() {
        StandInVehicle v = yard.built("oriel-heron");
        Circuits circuits = v.simulation().circuits().orElseThrow();
        circuits.fail("series", "W-coolant-sensor", 1e9);
        assertThat(v.reading("coolant")).isCloseTo(-40, within(1.0));
        assertThat(volts(v, PIN)).isGreaterThan(4.9);
        assertThat(volts(v, AT_SENSOR)).isLessThan(0.2);
        circuits.mend("W-coolant-sensor");
    }
}
