package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What may be hung on a point, and what would harm. */
class HungOnTest {
    private static Circuit circuit(String id) {
        return Vehicles.named("oriel-finch").circuit(id).orElseThrow();
    }

    private static List<String> offered(Circuit c, String point) {
        return new HungOn(c, point).offered().stream().map(ProbeCondition::id).toList();
    }

    @Test
    void whatIsFedAtRestIsLoadedAtRestAndElseWhileItIsOn() {
        Circuit beam = circuit("high-beam");
        assertThat(offered(beam, "K42.in")).contains("lamp", "bulb");
        String on = beam.settings().get(0).id();
        assertThat(offered(beam, "K42.out"))
                .contains("lamp-" + on, "bulb-" + on)
                .doesNotContain("lamp", "bulb");
    }

    @Test
    void aSignalCarriesNothingAndAModuleOnlyWhatItBears() {
        Circuit sensors = circuit("engine-pressures");
        ProbePoint signal =
                sensors.points().stream()
                        .filter(p -> p.side().equals("signal") && p.canBeProbed())
                        .findFirst()
                        .orElseThrow();
        assertThat(offered(sensors, signal.id())).noneMatch(id -> id.matches("(lamp|bulb).*"));
        assertThat(new HungOn(sensors, signal.id()).refused())
                .singleElement()
                .asString()
                .startsWith("Nothing is hung on " + signal.name());
        Source reference =
                sensors.sources().stream().filter(s -> s.ohm() < 100).findFirst().orElseThrow();
        assertThat(offered(sensors, reference.from())).contains("lamp").doesNotContain("bulb");
        assertThat(new HungOn(sensors, reference.from()).refused())
                .singleElement()
                .asString()
                .contains("through " + reference.name() + ", which bears 0.5 A.");
    }

    /** Three ohms in a fuse's holder: nothing at rest, and volts under a bulb. */
    @Test
    void aBadHolderShowsUnderTheBulbAlone() {
        Circuit beam = circuit("high-beam");
        List<Fault> burnt = List.of(new Fault.Series("F42", 3));
        for (Load load : Load.HUNG) {
            ProbeCondition c = new ProbeCondition(load, Optional.empty());
            double lost =
                    new CircuitModel(beam)
                                    .solve(c.state("K42.in", 12.4), List.of())
                                    .volts()
                                    .get("K42.in")
                            - new CircuitModel(beam)
                                    .solve(c.state("K42.in", 12.4), burnt)
                                    .volts()
                                    .get("K42.in");
            // a divider of the holder and the filament
            assertThat(lost).isBetween(load == Load.BULB ? 4.0 : 0, load == Load.BULB ? 10 : 1.6);
        }
    }
}
