package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.CurrentStudy;
import brightlantern.standin.plant.Circuits;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What clamps round the feeds of coils and injectors show of an engine that idles. */
class CurrentsTest {
    private static final double SOME_OHM = 9;
    private static final double BREAK_OHM = 1e6;

    @ParameterizedTest
    @ValueSource(strings = {"oriel-finch", "velmont-cairn", "stonebarrow-wl9"})
    void theOneWithSomethingInItsWayIsNamedAndNoOther(String id) {
        StandInVehicle vehicle = StandIns.of(Shipped.derived(id), StandIns.AS_BUILT, 741);
        CurrentStudy.Judgement healthy = ScopedCapture.drawn(vehicle);
        assertThat(healthy.holds()).as(healthy.toString()).isTrue();
        assertThat(healthy.drawn()).allMatch(d -> !Double.isNaN(d.ramp().orElseThrow().rises()));

        Circuits circuits = vehicle.simulation().circuits().orElseThrow();
        circuits.fail("series", "W-injector-coil-2", SOME_OHM);
        CurrentStudy.Judgement less = ScopedCapture.drawn(vehicle);
        assertThat(odd(less)).as(less.toString()).containsExactly("Injector 2 little");
        assertThat(less.sentence())
                .contains("Injector 2 draws")
                .contains("something is in its way");
        circuits.mend("W-injector-coil-2");
        assertThat(ScopedCapture.drawn(vehicle).holds()).as("mended").isTrue();

        circuits.fail("series", "W-injector-coil-1", BREAK_OHM);
        CurrentStudy.Judgement none = ScopedCapture.drawn(vehicle);
        assertThat(odd(none)).as(none.toString()).containsExactly("Injector 1 none");
        assertThat(none.tells())
                .anyMatch(
                        t ->
                                t.finding().equals("gauge-injector-coil-1-amps")
                                        && t.outcome().equals("none"));
    }

    private static List<String> odd(CurrentStudy.Judgement judgement) {
        return judgement.drawn().stream()
                .filter(d -> !d.isRight())
                .map(d -> d.name() + " " + d.band())
                .toList();
    }
}
