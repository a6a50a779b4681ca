package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.study.trim.TrimCreep;
import brightlantern.core.study.trim.TrimSet;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.Shipped;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The small petrol engine's mixture, and what the trim study makes of it. */
class MixtureTest {
    private static final double STEP = 0.01;

    private static TrimSet bank() throws Exception {
        VehicleDescription finch = Shipped.vehicle("oriel-finch");
        return finch.trims().get(0);
    }

    /** An engine on a drive, with a recorder of what its sensors say. */
    private static final class Drive {
        final PlainPlant plant = new PlainPlant(50_000, 1000);
        final Mixture mixture;
        private final Map<String, DoubleSupplier> sensors = new LinkedHashMap<>();
        private final Map<String, List<double[]>> rows = new LinkedHashMap<>();
        private int slices;

        Drive(Mixture.Faults faults, long seed) {
            mixture = new Mixture(faults, seed);
            sensors.put("engine.speed", plant::rpm);
            sensors.put("vehicle.speed", plant::kilometresPerHour);
            sensors.put("coolant", plant::coolant);
            sensors.put("engine.load", mixture::load);
            sensors.put("trim.short", mixture::shortTrim);
            sensors.put("trim.long", mixture::longTrim);
            plant.driver(Driver.away().key(2));
            plant.crank();
        }

        Drive live(double seconds, boolean record) {
            for (int i = 0; i < seconds / STEP; i++) {
                plant.step(STEP);
                mixture.step(plant, STEP);
                if (record && ++slices % 10 == 0) {
                    sensors.forEach(
                            (id, s) ->
                                    rows.computeIfAbsent(id, k -> new ArrayList<>())
                                            .add(new double[] {plant.seconds(), s.getAsDouble()}));
                }
            }
            return this;
        }

        Drive drives(Driver.Program program) {
            plant.driver(plant.driver().drive(program));
            return this;
        }

        double[] column(String id, int index) {
            return rows.get(id).stream().mapToDouble(r -> r[index]).toArray();
        }

        Take take() {
            Map<String, Take.Column> columns = new LinkedHashMap<>();
            rows.keySet()
                    .forEach(id -> columns.put(id, new Take.Column(column(id, 0), column(id, 1))));
            return new Take(columns, List.of());
        }
    }

    private static Drive warm(Mixture.Faults faults, long seed) {
        return new Drive(faults, seed).live(500, false);
    }

    private static TrimStudy.Verdict study(Drive drive) throws Exception {
        drive.drives(Driver.Program.STAND).live(40, true);
        drive.drives(Driver.Program.CRUISE).live(60, true);
        return TrimStudy.study(drive.take(), bank()).orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({
        "1.4, 0, 1, 1, 0, lean-idle",
        "0, 1.5, 1, 1, 0, lean-idle",
        "0, 0, 0.85, 1, 0, lean-all",
        "0, 0, 1, 1, 0.03, rich-idle",
        "0, 0, 1, 1, 0, normal"
    })
    void eachFaultLeavesItsPatternInTheTrims(
            double purge, double hose, double meter, double fuel, double drip, String outcome)
            throws Exception {
        Drive drive = warm(new Mixture.Faults(purge, hose, meter, fuel, drip), 5);
        assertThat(study(drive).outcome()).isEqualTo(outcome);
    }

    @Test
    void twentyHealthyDrivesAreNotAccused() throws Exception {
        for (int seed = 0; seed < 20; seed++) {
            TrimStudy.Verdict verdict = study(warm(Mixture.Faults.none(), seed));
            assertThat(verdict.outcome()).as("drive " + seed).isEqualTo(TrimStudy.NORMAL);
            assertThat(Math.abs(verdict.idle())).isLessThan(4);
        }
    }

    @Test
    void afterFillingUpALeakingPurgeValveBringsVapourAndAHoseDoesNot() throws Exception {
        for (boolean purge : List.of(true, false)) {
            Mixture.Faults faults =
                    purge ? Mixture.Faults.leakingPurge(1.4) : new Mixture.Faults(0, 1.4, 1, 1, 0);
            Drive drive = warm(faults, 8);
            double before = study(drive).idle();
            drive.drives(Driver.Program.STAND).live(20, false);
            drive.mixture.fillUp();
            drive.live(20, false);
            Drive fresh = drive;
            fresh.rows.clear();
            fresh.live(30, true);
            double after = TrimStudy.regimes(fresh.take(), bank()).get(0).total();
            assertThat(TrimStudy.refuelled(before, after))
                    .isEqualTo(purge ? "richer" : "as-before");
        }
    }

    @Test
    void theLongTermTrimSettlesWhereItsFirstThirdForetold() {
        double worst = 0;
        for (int seed = 0; seed < 50; seed++) {
            Drive drive = warm(Mixture.Faults.leakingPurge(0.9 + 0.02 * seed), seed);
            drive.mixture.reset();
            // a creep of 90 s takes some 270 s
            drive.live(90, true);
            TrimCreep creep =
                    TrimCreep.fit(
                                    drive.column("trim.short", 0),
                                    drive.column("trim.short", 1),
                                    drive.column("trim.long", 1))
                            .orElseThrow();
            assertThat(creep.over()).isFalse();
            drive.live(500, false);
            worst = Math.max(worst, Math.abs(creep.settled() - drive.mixture.longTrim()));
        }
        System.out.printf(
                "settled trim of the Finch foretold from the first third, 50 runs: worst %.2f points%n",
                worst);
        assertThat(worst).isLessThan(1.0);
    }

    @Test
    void airObeysTheNozzleAndACloggedEngineStops() {
        Drive drive = warm(Mixture.Faults.none(), 1);
        assertThat(drive.mixture.airflow()).isBetween(1.8, 3.5);
        assertThat(drive.mixture.lambda()).isBetween(0.97, 1.03);
        drive.plant.driver(Driver.away());
        drive.live(3, false);
        assertThat(drive.mixture.airflow()).isZero();
        assertThat(drive.mixture.manifold()).isBetween(100.0, 102.0);
    }
}
