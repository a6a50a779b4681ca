package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.cylinder.SignalWheel;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.Driven;
import brightlantern.standin.Shipped;
import brightlantern.standin.StandIns;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the crank tells of its cylinders, and what the study makes of it. */
class CrankTest {
    private static VehicleDescription description(String id) throws Exception {
        return Shipped.vehicle(id);
    }

    private static Take idle(
            VehicleDescription d, Crank crank, Driver.Program program, double seconds) {
        PlainPlant plant = new PlainPlant(1000, 10);
        Driven driven = new Driven(plant, crank);
        driven.start(program, 20);
        return driven.record(CylinderStudy.needed(d.cylinders().orElseThrow()), seconds);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "tamarack-portage",
                "oriel-finch",
                "velmont-cairn",
                "quillon-ember",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void aHealthyEngineIsNeverAccusedAndEachLeakIsFound(String id) throws Exception {
        VehicleDescription d = description(id);
        Cylinders cylinders = d.cylinders().orElseThrow();
        EngineSpec spec = StandIns.engine(id);
        for (int seed = 1; seed <= 20; seed++) {
            Take take =
                    idle(
                            d,
                            new Crank(spec, cylinders.wheel().orElseThrow(), seed),
                            Driver.Program.STAND,
                            20);
            assertThat(CylinderStudy.study(take, cylinders).orElseThrow().outcome())
                    .as("healthy, seed %d", seed)
                    .isEqualTo("even");
        }
        for (int n = 1; n <= spec.cylinders(); n++) {
            Take take =
                    idle(
                            d,
                            new Crank(spec, cylinders.wheel().orElseThrow(), n).leak(n, 12),
                            Driver.Program.STAND,
                            20);
            CylinderStudy.Verdict verdict = CylinderStudy.study(take, cylinders).orElseThrow();
            assertThat(verdict.outcome()).isEqualTo("weak-" + n);
            assertThat(verdict.sure()).isGreaterThan(0.95);
        }
    }

    @Test
    void aboveItsSpeedTheStudyDeclines() throws Exception {
        VehicleDescription d = description("stonebarrow-wl9");
        Cylinders cylinders = d.cylinders().orElseThrow();
        Crank crank =
                new Crank(StandIns.engine(d.id()), cylinders.wheel().orElseThrow(), 3).leak(5, 12);
        PlainPlant plant = new PlainPlant(1000, 10, 105, 12);
        Driven driven = new Driven(plant, crank);
        driven.start(Driver.Program.CRUISE, 40);
        Take take = driven.record(CylinderStudy.needed(cylinders), 20);
        assertThat(CylinderStudy.study(take, cylinders)).isEmpty();
        assertThat(CylinderStudy.whyNot(take, cylinders, d.signals())).contains("not judged");
    }

    @Test
    void whatIsLackingIsNamed() throws Exception {
        VehicleDescription d = description("stonebarrow-wl9");
        Cylinders cylinders = d.cylinders().orElseThrow();
        Take take = new Take(Map.of(), List.of());
        assertThat(CylinderStudy.study(take, cylinders)).isEqualTo(Optional.empty());
        assertThat(CylinderStudy.whyNot(take, cylinders, d.signals()))
                .contains("Running speed deviation, cylinder 1")
                .contains("record again");
    }

    @Test
    void anInjectorThatIsOffCostsAsMuchAsACylinderGives() {
        EngineSpec spec = StandIns.engine("stonebarrow-wl9");
        Crank crank = new Crank(spec, new SignalWheel(60, 2, 90, List.of(0.0)), 4);
        Driven driven = new Driven(new PlainPlant(1000, 10), crank);
        driven.start(Driver.Program.STAND, 20);
        crank.off(2, true);
        driven.pass(30);
        double off = crank.sensors().get("deviation.2").getAsDouble();
        crank.off(2, false);
        driven.pass(60);
        double on = crank.sensors().get("deviation.2").getAsDouble();
        // J·ω·Δω = W, shared by the others: friction work of one cylinder at 800 rpm
        double omega = 800 * 2 * Math.PI / 60;
        double work = 4 * Math.PI * spec.friction(800) / 6;
        double worth = work / (spec.inertia() * omega) * 60 / (2 * Math.PI);
        assertThat(on - off).isBetween(0.5 * worth, 1.5 * worth);
        assertThat(crank.sensors().get("misfires.2").getAsDouble()).isPositive();
    }
}
