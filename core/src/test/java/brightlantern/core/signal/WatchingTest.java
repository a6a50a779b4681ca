package brightlantern.core.signal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import brightlantern.core.watch.ProposedLists;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Units of one's own, what sampling costs, and lists that are proposed. */
class WatchingTest {
    private final VehicleDescription van = Vehicles.portage();

    @ParameterizedTest
    @CsvSource({
        "1, bar, kPa, 100", "14.5037738, psi, kPa, 100", "100, °C, °F, 212", "0, °F, K, 255.372222",
        "100, km/h, mph, 62.1371192", "1, gal, l, 3.78541178", "90, min, h, 1.5",
                "3600, kg/h, g/s, 1000",
        "1, hp, kW, 0.74569987", "100, lbf·ft, Nm, 135.5818", "2.5, krpm, rpm, 2500"
    })
    void unitsAreConvertedByTheirDefinition(double value, String from, String to, double expected) {
        assertThat(Units.convert(value, from, to)).isCloseTo(expected, within(1e-6 * expected));
        assertThat(Units.convert(Units.convert(value, from, to), to, from))
                .isCloseTo(value, within(1e-9));
    }

    @Test
    void ownUnitsChangeWhatIsShownAndTheLimitsWithIt() {
        VehicleDescription mine = van.shownIn(Map.of("pressure", "bar", "temperature", "°F"));
        Value boost = mine.value("boost.actual").orElseThrow();
        assertThat(boost.show()).isEqualTo("bar");
        assertThat(Scaling.show(boost, 234.5)).isEqualTo("2.345");
        assertThat(Scaling.show(mine.value("coolant").orElseThrow(), 90)).isEqualTo("194");
        assertThat(mine.follows().get(0).behind())
                .isCloseTo(van.follows().get(0).behind() / 100, within(1e-9));
        assertThat(mine.agreements().get(0).within())
                .isCloseTo(van.agreements().get(0).within() / 100, within(1e-9));
        assertThat(mine.value("engine.speed")).isEqualTo(van.value("engine.speed"));
        assertThat(van.shownIn(Map.of())).isSameAs(van);
    }

    @Test
    void costIsWhatTheModuleCanAnswer() {
        assertThat(SamplingCost.rate(8, 10, 20)).isEqualTo(50);
        assertThat(SamplingCost.rate(11, 10, 20)).isEqualTo(25);
        assertThat(SamplingCost.rate(0, 10, 20)).isZero();
        assertThat(SamplingCost.oneMore(8, 10, 20)).isEqualTo("50 Hz, costs nothing");
        assertThat(SamplingCost.oneMore(10, 10, 20))
                .isEqualTo("25 Hz instead of 50 for its module");
        assertThat(SamplingCost.oneMore(0, 10, 0)).startsWith("about");
        assertThat(SamplingCost.rates(Map.of("a", 5), 10, m -> 10)).isEqualTo(Map.of("a", 100.0));
    }

    @Test
    void listsFollowFromSymptomsChecksAndSystems() {
        List<ProposedLists.Proposed> lists =
                ProposedLists.of(van, Optional.empty(), Set.of("flat-on-climbs"));
        assertThat(lists)
                .extracting(ProposedLists.Proposed::id)
                .contains("symptom", "cylinders", "drawing-air");
        assertThat(lists)
                .filteredOn(l -> l.id().startsWith("follow-"))
                .anySatisfy(l -> assertThat(l.values()).contains("boost.target", "boost.actual"))
                .anySatisfy(l -> assertThat(l.values()).contains("rail.target", "rail.pressure"));
        assertThat(lists)
                .allSatisfy(
                        l -> {
                            assertThat(l.values()).isNotEmpty().doesNotHaveDuplicates();
                            assertThat(l.values())
                                    .allSatisfy(v -> assertThat(van.value(v)).isPresent());
                        });
    }
}
