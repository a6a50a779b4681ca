package brightlantern.core.emission;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.Noise;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.assertj.core.groups.Tuple;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

class EmissionTest {
    @Test
    void readinessOfASparkIgnitionEngineByHand() {
        // lamp on, 2 codes; misfire and fuel there and done, parts there and open; catalyst done,
        // vapour open
        Readiness r = Readiness.decode(new byte[] {(byte) 0x82, 0x47, 0x05, 0x04});
        assertThat(r.lamp()).isTrue();
        assertThat(r.codes()).isEqualTo(2);
        assertThat(r.compression()).isFalse();
        assertThat(r.monitors())
                .extracting(Readiness.Monitor::name, Readiness.Monitor::complete)
                .containsExactly(
                        Tuple.tuple("Misfire", true),
                        Tuple.tuple("Fuel system", true),
                        Tuple.tuple("Electrical parts", false),
                        Tuple.tuple("Catalyst", true),
                        Tuple.tuple("Fuel vapour", false));
        assertThat(r.open()).isEqualTo(2);
    }

    @Test
    void compressionIgnitionHasOtherMonitors() {
        Readiness r = Readiness.decode(new byte[] {0, 0x08, 0x48, 0x00});
        assertThat(r.compression()).isTrue();
        assertThat(r.monitors())
                .extracting(Readiness.Monitor::name)
                .containsExactly("Boost pressure", "Particulate filter");
        assertThatThrownBy(() -> Readiness.decode(new byte[3]))
                .hasMessageContaining("expected 4 bytes, found 3");
    }

    @Test
    void monitorResultsAreScaledAndJudged() {
        // purge flow, test 81, 0.01 g/s: 0.96, between 0 and 0.40; then one that has not run
        byte[] raw = {(byte) 0x81, 0x27, 0, 96, 0, 0, 0, 40, (byte) 0x82, 0x27, 0, 0, 0, 0, 0, 0};
        List<MonitorResult> results = MonitorResult.decode(0x3D, raw);
        assertThat(results).hasSize(2);
        MonitorResult first = results.get(0);
        assertThat(first.name()).isEqualTo("Purge flow");
        assertThat(first.value()).isCloseTo(0.96, within(1e-9));
        assertThat(first.max()).isCloseTo(0.40, within(1e-9));
        assertThat(first.unit()).isEqualTo("g/s");
        assertThat(first.ran()).isTrue();
        assertThat(first.passed()).isFalse();
        assertThat(results.get(1).ran()).isFalse();
        EmissionReport report =
                new EmissionReport(Optional.empty(), List.of(), List.of(), results, List.of());
        assertThat(report.failed()).containsExactly(first);
    }

    @Test
    void signedScalingsAndOffsets() {
        byte[] signed = {1, (byte) 0x8B, (byte) 0xFF, (byte) 0x9C, (byte) 0xFF, 0x38, 0, 100};
        MonitorResult volts = MonitorResult.decode(0x01, signed).get(0);
        assertThat(volts.value()).isCloseTo(-0.1, within(1e-9));
        assertThat(volts.min()).isCloseTo(-0.2, within(1e-9));
        assertThat(volts.passed()).isTrue();
        byte[] warm = {1, 0x16, 0x01, (byte) 0xF4, 0, 0, 0x03, (byte) 0xE8};
        assertThat(MonitorResult.decode(0x21, warm).get(0).value()).isCloseTo(10, within(1e-9));
    }

    @Test
    void listsOfMonitorsCountFromTheHighestBit() {
        assertThat(MonitorResult.supported(0x20, new byte[] {(byte) 0x80, 0, 0x00, 0x09}))
                .containsExactly(0x21, 0x3D, 0x40);
        assertThatThrownBy(() -> MonitorResult.supported(0, new byte[5]))
                .hasMessageContaining("expected 4 bytes, found 5");
        assertThat(MonitorResult.nameOf(0xA4)).isEqualTo("Misfires of cylinder 3");
        assertThat(MonitorResult.nameOf(0x77)).isEqualTo("Monitor 77");
    }

    @RepeatedTest(500)
    void noAnswerDoesMoreThanBeTurnedDown(RepetitionInfo nth) {
        byte[] raw = Noise.bytes(new Random(nth.getCurrentRepetition()), 40);
        try {
            assertThat(MonitorResult.decode(0x21, raw)).hasSize(raw.length / 8);
        } catch (IllegalArgumentException named) {
            assertThat(named).hasMessageContaining("expected 8 bytes a test");
        }
        if (raw.length == 4) {
            assertThat(Readiness.decode(raw).codes()).isBetween(0, 127);
        }
    }
}
