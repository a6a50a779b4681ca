package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Circuit;
import brightlantern.standin.Shipped;
import java.util.OptionalDouble;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The physics by itself, faster than real time. */
class PortagePlantTest {
    private static final Circuit CIRCUIT =
            Shipped.vehicle("tamarack-portage").circuit("air-actuators").orElseThrow();

    private static void run(PortagePlant plant, double seconds) {
        for (double t = 0; t < seconds - PortagePlant.STEP / 2; t += 0.01) {
            plant.step(0.01);
        }
    }

    private static double reading(PortagePlant plant, String value) {
        return plant.sensors().get(value).getAsDouble();
    }

    /**
     * @param ohm that stud G12 has too many
     */
    private static PortagePlant corroded(double ohm, long seed) {
        PortagePlant plant = new PortagePlant(CIRCUIT, seed, 84_000);
        if (ohm > 0) {
            plant.fail("series", "G12", ohm);
        }
        return plant;
    }

    private static PortagePlant started(double ohm, long seed) {
        PortagePlant plant = corroded(ohm, seed);
        plant.driver(Driver.away().key(2));
        run(plant, 2);
        plant.crank();
        run(plant, 3);
        assertThat(plant.running()).isTrue();
        assertThat(plant.rpm()).isBetween(750.0, 900.0);
        return plant;
    }

    /**
     * Largest lag of boost behind its target after the first 12 s of a climb of a minute, in kPa.
     */
    private static double worstOnClimb(double ohm, long seed) {
        PortagePlant plant = started(ohm, seed);
        plant.driver(plant.driver().drive(Driver.Program.CLIMB));
        run(plant, 12);
        double worst = 0;
        for (int i = 0; i < 480; i++) {
            run(plant, 0.1);
            worst =
                    Math.max(
                            worst,
                            reading(plant, "boost.target") / 10 - reading(plant, "boost.actual"));
        }
        return worst;
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 417, 422})
    void aVanAsBuiltFollowsAndACorrodedEarthReallyFallsBehind(long seed) {
        assertThat(worstOnClimb(0, seed)).isLessThan(15);
        assertThat(worstOnClimb(0.9, seed)).isGreaterThan(25);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 417})
    void theEarthIsPerfectAtRestAndLosesNearlyTwoVoltsWhileTheVanesMove(long seed) {
        PortagePlant plant = corroded(0.9, seed);
        plant.driver(Driver.away().key(2));
        run(plant, 3);
        assertThat(plant.volts("G12").orElseThrow()).isLessThan(0.05);
        plant.overrideVane(OptionalDouble.of(90));
        run(plant, 0.15);
        assertThat(plant.volts("G12").orElseThrow()).isBetween(1.5, 2.1);
        assertThat(plant.volts("NOWHERE")).isEmpty();
    }
}
