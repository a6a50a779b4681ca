package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** A turn signal that is dark at the back, measured at the one beside it. */
class ReadingDoubtTest {
    private static final double SUPPLY = 12.4;

    private final VehicleDescription heron = Vehicles.derived("oriel-heron");
    private final ReadingDoubt doubt =
            new ReadingDoubt(new Plan(new Reasoners(heron), heron), heron);
    private final Circuit left = heron.circuit("turn-left").orElseThrow();
    private final ProbeCondition on = new ProbeCondition(Load.NOTHING, Optional.of("XB.14-on"));
    private final List<Evidence> found =
            new ArrayList<>(
                    List.of(
                            new Evidence.SymptomTold("circuit-turn-rear-left"),
                            new Evidence.Outcome("gauge-turn-rear-left", "dead"),
                            new Evidence.Outcome("gauge-turn-side-left", "well")));

    private Optional<String> at(String point, double volts) {
        return doubt.of(left, point, on, volts, SUPPLY, found);
    }

    @Test
    void whatIsForetoldIsNotAskedAbout() {
        assertThat(at("X50.2", 0)).as("a wire may be open").isEmpty();
        assertThat(at("X50.2", 12.1)).as("the bulb may be burnt").isEmpty();
        assertThat(at("X36.1", 11.9)).as("right").isEmpty();
        assertThat(at("X36.1", 6)).as("strange, and like no other state").isEmpty();
    }

    @Test
    void aLampThatBurnsDoesSoWithItsSwitchOn() {
        assertThat(at("X36.1", 0))
                .hasValueSatisfying(
                        q -> assertThat(q).contains("left turn signal on", "read again"));
    }

    @Test
    void swappedLeadsAndAWrongRangeAreAskedAbout() {
        assertThat(at("X36.1", -11.9)).hasValueSatisfying(q -> assertThat(q).contains("swapped"));
        assertThat(at("X36.1", 119)).hasValueSatisfying(q -> assertThat(q).contains("range"));
        assertThat(at("X50.2", -0.02)).isEmpty();
    }
}
