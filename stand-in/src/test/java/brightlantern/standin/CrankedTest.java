package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.PressureStudy;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** One cranking before the stand-in's oscilloscope tells leaks apart by physics alone. */
class CrankedTest {
    private final Yard yard = Yard.common();

    @ParameterizedTest
    @CsvSource({
        "stonebarrow-wl9, valve-5, exhaust-valve-5",
        "stonebarrow-wl9, rings-5, rings-5",
        "stonebarrow-wl9, injector-5, even",
        "quillon-ember, intake-valve-2, intake-valve-2",
        "oriel-finch, rings-3, rings-3",
        "tamarack-portage, valve-1, exhaust-valve-1",
        "velmont-cairn, valve-4, exhaust-valve-4"
    })
    void tellsWhatLeaks(String vehicle, String fault, String outcome) {
        StandInVehicle v = yard.built(vehicle);
        Mechanics.Failing failing = v.simulation().damage().failing(fault);
        v.simulation().damage().fail(failing, (failing.least() + failing.most()) / 2);
        CrankingStudy.Judgement judgement = ScopedCapture.judged(v);
        assertThat(judgement.outcome()).as(judgement.toString()).isEqualTo(outcome);
        boolean leaks = !outcome.equals("even");
        int cylinder = fault.charAt(fault.length() - 1) - '0';
        assertThat(pressure(v, cylinder)).isEqualTo(leaks ? "leaks" : "tight");
        assertThat(pressure(v, cylinder % v.description().cylinders().get().order().size() + 1))
                .as("its neighbour")
                .isEqualTo("tight");
        v.whole();
        assertThat(ScopedCapture.judged(v).outcome()).as("mended").isEqualTo("even");
    }

    private static String pressure(StandInVehicle v, int cylinder) {
        PressureStudy.Judgement judgement = ScopedCapture.pressed(v, cylinder).orElseThrow();
        assertThat(judgement.tells().get(0).finding()).isEqualTo("pressure-" + cylinder);
        return judgement.outcome();
    }
}
