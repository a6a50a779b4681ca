package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.SparkStudy;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Pickups at the leads of all spark plugs, and what is read in them. */
class SparksTest {
    private static final Map<String, StandInVehicle> BUILT = new HashMap<>();

    private static StandInVehicle built(String vehicle) {
        StandInVehicle its =
                BUILT.computeIfAbsent(
                        vehicle, v -> StandIns.of(Shipped.derived(v), StandIns.AS_BUILT, 747));
        its.whole();
        return its;
    }

    @ParameterizedTest
    @ValueSource(strings = {"oriel-finch", "quillon-ember", "velmont-cairn"})
    void thoseOfAHealthyEngineAreAlike(String vehicle) {
        StandInVehicle v = built(vehicle);
        SparkStudy.Judgement j = ScopedCapture.sparked(v).orElseThrow();
        assertThat(j.outcome()).as(j.reasons() + "").isEqualTo("even");
        assertThat(j.sparks())
                .allSatisfy(
                        s -> {
                            assertThat(s.kilovolts()).isBetween(4.0, 12.0);
                            assertThat(1000 * s.seconds()).isBetween(1.0, 2.2);
                        });
    }

    @ParameterizedTest(name = "{0}: {1} {2}")
    @CsvSource({
        "oriel-finch, plug-2, 1.7, gap-2",
        "quillon-ember, plug-4, 1.75, gap-4",
        "velmont-cairn, plug-5, 2.4, gap-5",
        "oriel-finch, plug-fouled-3, 0.17, leak-3",
        "velmont-cairn, plug-fouled-1, 0.06, leak-1"
    })
    void aBadPlugIsReadAndNamed(String vehicle, String part, double size, String outcome) {
        StandInVehicle v = built(vehicle);
        Mechanics.Failing its = v.simulation().damage().failing(part);
        v.simulation().damage().fail(its, size);
        SparkStudy.Judgement j = ScopedCapture.sparked(v).orElseThrow();
        assertThat(j.outcome()).as(j.reasons() + "").isEqualTo(outcome);
        v.repair(its.repair());
        j = ScopedCapture.sparked(v).orElseThrow();
        assertThat(j.outcome()).as(j.reasons() + "").isEqualTo("even");
    }

    @ParameterizedTest
    @ValueSource(strings = {"oriel-finch", "velmont-cairn"})
    void aCoilWithoutCurrentGivesNone(String vehicle) {
        StandInVehicle v = built(vehicle);
        v.simulation().circuits().orElseThrow().fail("series", "coil-2", 1e6);
        v.live(2);
        SparkStudy.Judgement j = ScopedCapture.sparked(v).orElseThrow();
        assertThat(j.outcome()).as(j.reasons() + "").isEqualTo("none-2");
        assertThat(j.sentence()).contains("its coil gives nothing");
    }
}
