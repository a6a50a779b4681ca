package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A loop through plugs: what is sent comes back, or stops where it is open. */
class LoopPlanTest {
    private static final Circuit LOOP =
            Vehicles.named("quillon-ember").circuit("interlock").orElseThrow();

    private static final Gauge BACK = LOOP.gauges().get(0);

    private static Voltages with(Fault... faults) {
        var volts =
                new CircuitModel(LOOP).solve(OperatingState.idle(12.4), List.of(faults)).volts();
        return volts::get;
    }

    @Test
    void whatIsSentComesBack() {
        assertThat(with().at("X3.41")).isBetween(8.9, 9.2);
        assertThat(BACK.at(BACK.share(LOOP, with(), List.of())).well()).isTrue();
        assertThat(CircuitCheck.mistakes(LOOP)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"B-loop-heater", "C-X255.3", "W-interlock-loop-heater"})
    void behindWhatIsOpenThereIsNothing(String part) {
        Voltages volts = with(new Fault.Series(part, Fault.Series.OPEN_OHM));
        assertThat(volts.at("X254.4")).as("before it, unloaded").isGreaterThan(9.8);
        assertThat(volts.at("X255.4")).as("behind it").isLessThan(0.1);
        Band shown = BACK.at(BACK.share(LOOP, volts, List.of()));
        assertThat(shown.code()).isEqualTo("P0A0A-13");
    }

    /** Only what carries low voltage can be touched. */
    @Test
    void noBridgeCanBeReached() {
        assertThat(LOOP.segments())
                .filteredOn(s -> s.kind() == SegmentKind.BRIDGE)
                .hasSize(6)
                .allSatisfy(
                        s -> {
                            assertThat(LOOP.probe(s.from())).isEmpty();
                            assertThat(LOOP.probe(s.to())).isEmpty();
                        });
    }

    /** An unplugged link opens it, and says so. */
    @Test
    void aPulledPlugOpensIt() {
        OperatingState pulled = OperatingState.idle(12.4).moving(Set.of("unplug-X252"));
        assertThat(new FaultTable(LOOP, pulled).with(Optional.empty()).at("X3.41")).isLessThan(0.1);
    }

    /** Nothing is hung on it that its module would have to bear. */
    @Test
    void noLampIsHungOnIt() {
        HungOn on = new HungOn(LOOP, "X254.3");
        assertThat(on.offered()).allMatch(c -> c.load() == Load.NOTHING);
        assertThat(on.refused()).hasSize(1);
    }
}
