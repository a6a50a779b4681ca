package brightlantern.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class DriveConditionsTest {
    private static final VehicleDescription LOADER = Vehicles.named("stonebarrow-wl9");

    private static Take.Column over(double seconds, double value) {
        int n = (int) (seconds * 10);
        double[] t = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i / 10.0;
            y[i] = value;
        }
        return new Take.Column(t, y);
    }

    private static Take take(double rpm, double load, double kmh, double coolant) {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        columns.put("engine.speed", over(20, rpm));
        columns.put("engine.load", over(20, load));
        columns.put("vehicle.speed", over(20, kmh));
        columns.put("coolant", over(20, coolant));
        return new Take(columns, List.of());
    }

    private final Map<String, Double> idle =
            Map.of(
                    "engine.speed", 801.0,
                    "engine.load", 14.0,
                    "vehicle.speed", 0.0,
                    "coolant", 88.0,
                    "odometer", 61_000.0);

    /** A code that came at idle is proven at idle, not at a load that idling never has. */
    @Test
    void aFrameOfAnIdleIsMetByAWarmIdle() {
        DriveConditions frame = DriveConditions.ofFrame(idle, LOADER);
        assertThat(frame.words())
                .contains("engine speed")
                .contains("coolant")
                .doesNotContain("km ");
        assertThat(frame.met(take(810, 12, 0, 75), LOADER).seconds()).isGreaterThan(19);
        assertThat(frame.met(take(1900, 12, 0, 75), LOADER).seconds()).isZero();
        assertThat(frame.met(take(810, 12, 0, 30), LOADER).seconds()).isZero();
    }

    @Test
    void eachConditionTellsHowItStandsNow() {
        DriveConditions frame = DriveConditions.ofFrame(idle, LOADER);
        assertThat(frame.standing(take(810, 12, 0, 30), LOADER))
                .filteredOn(s -> !s.holds())
                .singleElement()
                .satisfies(s -> assertThat(s.says()).contains("coolant"))
                .satisfies(s -> assertThat(s.now()).isEqualTo("now 30 °C"));
        assertThat(frame.standing(new Take(Map.of(), List.of()), LOADER))
                .isNotEmpty()
                .allMatch(s -> !s.holds() && s.now().equals("not told"));
    }

    @Test
    void whatWasNotRecordedIsNamed() {
        Take bare = new Take(Map.of("engine.speed", over(20, 800)), List.of());
        DriveConditions.Met met = DriveConditions.ofFrame(idle, LOADER).met(bare, LOADER);
        assertThat(met.seconds()).isZero();
        assertThat(met.missing()).contains("Coolant temperature");
    }

    @Test
    void withoutAFrameTheCodedComplaintTells() {
        assertThat(DriveConditions.ofFrame(Map.of("odometer", 1.0), LOADER).isEmpty()).isTrue();
        DriveConditions told = DriveConditions.ofComplaint(List.of("no-power"), LOADER);
        assertThat(told.from()).contains("lost power");
        assertThat(told.words()).contains("load 50 % or more");
        assertThat(DriveConditions.ofComplaint(List.of(), LOADER).isEmpty()).isTrue();
    }
}
