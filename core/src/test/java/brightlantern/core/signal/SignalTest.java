package brightlantern.core.signal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.battery.SupplyVerdict;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.actuator.ActuatorRun;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Small things that all stages lean on: scaling, units, ranges, gates, runs, supply, likeness. */
class SignalTest {
    private static final VehicleDescription PORTAGE = Vehicles.portage();

    @Test
    void rawAndPhysicalAreInverse() {
        Value value = PORTAGE.value("engine.speed").orElseThrow();
        for (int raw = 0; raw <= 0xFFFF; raw++) {
            byte[] bytes = {(byte) (raw >> 8), (byte) raw};
            assertThat(Scaling.raw(value, Scaling.physical(value, bytes))).isEqualTo(bytes);
        }
    }

    @Test
    void scalingByHandAndHeldWithinItsBytes() {
        Value coolant = PORTAGE.value("coolant").orElseThrow();
        assertThat(Scaling.physical(coolant, new byte[] {(byte) 130})).isEqualTo(90);
        assertThat(Scaling.raw(coolant, 1000)).isEqualTo(new byte[] {(byte) 255});
        assertThat(Scaling.raw(coolant, Double.NaN)).isEqualTo(new byte[] {0});
        assertThatThrownBy(() -> Scaling.physical(coolant, new byte[2]))
                .hasMessageContaining("expected 1 byte");
        assertThat(Scaling.show(PORTAGE.value("body.key").orElseThrow(), 9))
                .isEqualTo("unknown state 9");
    }

    @Test
    void whatCountsSecondsSince1970IsTheDay() {
        Value clock = Vehicles.named("oriel-finch").value("clock").orElseThrow();
        assertThat(Scaling.show(clock, 1_793_516_544)).isEqualTo("2026-11-01 07:02");
        assertThat(Scaling.show(clock, Double.NaN)).isEqualTo("–");
    }

    @Test
    void unitsOfOneQuantityOnly() {
        assertThat(Units.convert(2350, "hPa", "kPa")).isCloseTo(235, within(1e-9));
        assertThat(Units.convert(212, "°F", "°C")).isCloseTo(100, within(1e-9));
        assertThatThrownBy(() -> Units.convert(1, "bar", "°C")).hasMessageContaining("bar into °C");
    }

    @Test
    void aRangeIsJudgedOnlyInItsCondition() {
        Value speed = PORTAGE.value("engine.speed").orElseThrow();
        Map<String, Double> idle =
                Map.of(
                        "engine.speed",
                        980.0,
                        "engine.state",
                        2.0,
                        "coolant",
                        85.0,
                        "vehicle.speed",
                        0.0,
                        "pedal",
                        0.0);
        assertThat(RangeVerdict.of(speed, idle)).get().matches(v -> !v.inside());
        assertThat(RangeVerdict.of(speed, Map.of("engine.speed", 980.0, "coolant", 20.0)))
                .isEmpty();
    }

    @Test
    void gatesTellWantedPresentAndWhatOpensThem() {
        Actuator vane = PORTAGE.actuator("vane").orElseThrow();
        List<GateState> gates =
                GateState.at(
                        vane.gates().stream().map(Procedure.GateRule::of).toList(),
                        PORTAGE,
                        Map.of(
                                "body.key",
                                2.0,
                                "engine.speed",
                                810.0,
                                "engine.supply",
                                Double.NaN,
                                "exhaust.temperature",
                                180.0));
        assertThat(gates).extracting(GateState::open).containsExactly(true, false, false, false);
        assertThat(gates.get(3).opens()).contains("cool down");
        assertThat(gates.get(1).present()).isEqualTo("Engine speed 810 rpm");
        assertThat(gates.get(1).opens()).contains("Stop the engine");
        assertThat(gates.get(2).present()).endsWith("not known");
    }

    /** Strokes read every 20 ms; from 0.1 to 0.9 of the step in the times given. */
    private static List<ActuatorRun.Sample> strokes(double... travelSeconds) {
        List<ActuatorRun.Sample> samples = new ArrayList<>();
        double t = 0;
        for (double travel : travelSeconds) {
            for (int i = 0; i < 20; i++, t += 0.02) {
                samples.add(new ActuatorRun.Sample(t, 0.005, 10, 10));
            }
            for (int i = 0; i < 60; i++, t += 0.02) {
                samples.add(
                        new ActuatorRun.Sample(
                                t, 0.005, 90, Math.min(89, 10 + 80 * i * 0.02 / (travel / 0.8))));
            }
        }
        return samples;
    }

    @Test
    void aRunIsJudgedByItsMiddleStroke() {
        Actuator vane = PORTAGE.actuator("vane").orElseThrow();
        ActuatorRun.Verdict good = ActuatorRun.judge(vane, strokes(0.35, 0.36, 0.80), 12.4);
        assertThat(good.passed()).isTrue();
        assertThat(good.moveSeconds()).isCloseTo(0.36, within(0.01));
        assertThat(good.endError()).isCloseTo(-1, within(1e-9));
        assertThat(ActuatorRun.judge(vane, strokes(0.6), 12.4).sentence()).contains("is slow");
        assertThat(ActuatorRun.judge(vane, strokes(3.0), 12.4).sentence())
                .contains("does not get where");
        assertThat(ActuatorRun.judge(vane, List.of(), 12.4).judged()).isFalse();
    }

    @Test
    void aStrokeThatWasReadTooThinlyDoesNotCount() {
        Actuator vane = PORTAGE.actuator("vane").orElseThrow();
        // the readings around the end of the second stroke are missing, as on a line that stalls
        List<ActuatorRun.Sample> stalled = new ArrayList<>(strokes(0.36, 0.36, 0.36));
        stalled.removeIf(s -> s.seconds() > 2.25 && s.seconds() < 2.75);
        ActuatorRun.Verdict verdict = ActuatorRun.judge(vane, stalled, 12.4);
        assertThat(verdict.moveSeconds()).isCloseTo(0.36, within(0.01));
        assertThat(verdict.sure()).isFalse();
        assertThat(verdict.reasons()).anyMatch(r -> r.startsWith("1 stroke not counted"));

        List<ActuatorRun.Sample> late =
                strokes(0.36).stream()
                        .map(
                                s ->
                                        new ActuatorRun.Sample(
                                                s.seconds(), 0.2, s.command(), s.feedback()))
                        .toList();
        ActuatorRun.Verdict none = ActuatorRun.judge(vane, late, 12.4);
        assertThat(none.judged()).isFalse();
        assertThat(none.sentence()).contains("too thinly");
        assertThat(ActuatorRun.judge(vane, strokes(0.36, 0.36, 0.36), 12.4).sure()).isTrue();
        // so near the limit that three strokes do not decide
        double limit = vane.moveSeconds();
        assertThat(ActuatorRun.judge(vane, strokes(limit, limit, limit), 12.4).sure()).isFalse();
    }

    @Test
    void supplyInWords() {
        assertThat(SupplyVerdict.of(11.2, false).words()).startsWith("Too low");
        assertThat(SupplyVerdict.of(12.6, false).good()).isTrue();
        assertThat(SupplyVerdict.of(12.6, true).words()).contains("nothing charges");
        assertThat(SupplyVerdict.of(13.6, false).words()).isEqualTo("Charger connected.");
        assertThat(SupplyVerdict.of(Double.NaN, false).good()).isFalse();
    }
}
