package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Divider;
import brightlantern.core.circuit.ExpectedReading;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class SensorWalkTest {
    static Stream<String> vehicles() {
        return Vehicles.all();
    }

    @ParameterizedTest
    @MethodSource("vehicles")
    void everySensorIsWalkedRoundInTheOrderOfItsPins(String id) {
        VehicleDescription d = Vehicles.derived(id);
        int walked = 0;
        for (Circuit c : d.circuits()) {
            for (Gauge g : SensorWalk.sensors(c)) {
                SensorWalk walk = SensorWalk.of(d, g.part()).orElseThrow();
                List<SensorWalk.Step> steps = walk.steps();
                boolean three = c.component(g.part()).orElseThrow() instanceof Divider;
                List<String> proves = steps.stream().map(SensorWalk.Step::proves).toList();
                assertThat(proves.get(0)).startsWith(three ? "The reference arrives" : "Its earth");
                assertThat(proves)
                        .as(g.id())
                        .anyMatch(p -> p.startsWith("Unplugged it " + (three ? "falls" : "rises")))
                        .contains("What arrives at the module's pin.")
                        .doesNotHaveDuplicates();
                assertThat(steps.stream().anyMatch(s -> s.check().id().endsWith("-compared")))
                        .isEqualTo(c.gauges().stream().anyMatch(x -> isOf(x, g)));
                assertThat(steps).allSatisfy(s -> assertThat(s.expected()).isNotBlank());
                Set<String> keys = new HashSet<>();
                steps.forEach(s -> keys.add(s.check().key()));
                assertThat(keys).hasSameSizeAs(steps);
                walked++;
            }
        }
        assertThat(walked).isGreaterThan(8);
    }

    private static boolean isOf(Gauge compared, Gauge sensor) {
        return compared.isCompared() && compared.part().equals(sensor.part());
    }

    /**
     * A reference is regulated: a volt beside it is a fault, whatever wires and sensors scatter.
     */
    @Test
    void aReferenceIsExpectedWithinTenths() {
        VehicleDescription d = Vehicles.derived("oriel-finch");
        Circuit c = d.circuit("engine-pressures").orElseThrow();
        ExpectedReading sound = ExpectedReading.of(c, "X87.1", 12.4, 4.99);
        assertThat(sound.holds(4.8)).isTrue();
        assertThat(sound.holds(4.4)).isFalse();
        assertThat(sound.holds(5.6)).isFalse();
        // what comes through a bad contact depends on what hangs behind it
        assertThat(ExpectedReading.of(c, "X87.1", 12.4, 2.5).tolerance())
                .isGreaterThan(2 * sound.tolerance());
    }

    @Test
    void whoSharesItsReferenceIsNamed() {
        VehicleDescription d = Vehicles.derived("oriel-finch");
        assertThat(SensorWalk.of(d, "rail-sensor").orElseThrow().steps().get(0).proves())
                .contains("Oil pressure sensor")
                .contains("Accelerator, first track")
                .doesNotContain("Feed pressure");
        assertThat(SensorWalk.of(d, "no-such-sensor")).isEmpty();
    }

    /** Every suspect of the circuit is laid at the door of whom it belongs to. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "rail-sensor, SENSOR",
        "C-X87.2, WAY",
        "W-rail-sensor, WAY",
        "R-rail-sensor, WAY",
        "E-rail-sensor, WAY",
        "I-X1.43, MODULE",
        "R-X1.41, SHARED",
        "W-X1.42, SHARED",
        "T-X1.42, SHARED",
        "W-oil-pressure-sensor, NONE",
        "oil-pressure-sensor, NONE",
        "C-X83.1, NONE"
    })
    void theBlameIsOfThePart(String part, SensorWalk.Culprit culprit) {
        VehicleDescription d = Vehicles.derived("oriel-finch");
        SensorWalk walk = SensorWalk.of(d, "rail-sensor").orElseThrow();
        List<Suspect> its =
                d.suspects().stream()
                        .filter(s -> s.effect().flatMap(Effect::part).equals(Optional.of(part)))
                        .toList();
        assertThat(its).as(part).isNotEmpty();
        for (Suspect s : its) {
            List<Standing> standings = new ArrayList<>();
            standings.add(new Standing(s.id(), s.name(), 0.9, List.of(), ""));
            Ranking ranking = new Ranking(standings, List.of(), 0, Optional.empty(), "");
            Map<SensorWalk.Culprit, Double> blamed = walk.blamed(ranking);
            assertThat(blamed.get(culprit)).as(s.id()).isEqualTo(0.9);
            assertThat(walk.culprit(ranking)).contains(culprit);
        }
    }

    @Test
    void whoIsNotSureEnoughIsNotSaid() {
        VehicleDescription d = Vehicles.derived("oriel-finch");
        SensorWalk walk = SensorWalk.of(d, "rail-sensor").orElseThrow();
        Ranking ranking =
                new Ranking(
                        List.of(
                                new Standing("circuit-rail-sensor", "sensor", 0.6, List.of(), ""),
                                new Standing("circuit-C-X87.2", "contact", 0.4, List.of(), "")),
                        List.of(),
                        0,
                        Optional.empty(),
                        "");
        assertThat(walk.culprit(ranking)).isEmpty();
        assertThat(walk.blamed(ranking))
                .containsEntry(SensorWalk.Culprit.SENSOR, 0.6)
                .containsEntry(SensorWalk.Culprit.WAY, 0.4);
        assertThat(walk.steps().stream().map(SensorWalk.Step::check))
                .hasAtLeastOneElementOfType(Check.Reading.class)
                .hasAtLeastOneElementOfType(Check.Look.class);
    }

    private static String expected(SensorWalk walk, String point, boolean unplugged) {
        return walk.steps().stream()
                .filter(
                        s ->
                                s.check() instanceof Check.Reading r
                                        && r.point().equals(point)
                                        && r.moving().isEmpty() != unplugged)
                .findFirst()
                .orElseThrow()
                .expected();
    }

    @Test
    void aWarmSensorIsHeldAgainstWhatItsModuleTells() {
        VehicleDescription d = Vehicles.derived("tamarack-portage");
        assertThat(SensorWalk.valueOf(d, "coolant-sensor")).contains("coolant");
        assertThat(SensorWalk.valueOf(d, "crank-sensor")).isEmpty();
        SensorWalk cold = SensorWalk.of(d, "coolant-sensor").orElseThrow();
        SensorWalk warm = SensorWalk.of(d, "coolant-sensor", Map.of("coolant", 90.0)).orElseThrow();
        String its = expected(warm, "X83.1", false);
        assertThat(its).isNotEqualTo(expected(cold, "X83.1", false));
        // 90 °C of -40 to 215, and 0.52 of 5 V at 20 °C
        assertThat(Double.parseDouble(its.split(" ")[0])).isBetween(1.3, 1.7);
        assertThat(expected(warm, "X83.1", true)).isEqualTo(expected(cold, "X83.1", true));
    }
}
