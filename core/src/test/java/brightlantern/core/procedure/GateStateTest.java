package brightlantern.core.procedure;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Gates of the balancing of cells, which a stored code shuts. */
class GateStateTest {
    private static final VehicleDescription EMBER = Vehicles.named("quillon-ember");

    private static List<GateState> gates(Map<String, Double> now) throws IOException {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        now.forEach(
                (id, v) -> columns.put(id, new Take.Column(new double[] {7}, new double[] {v})));
        Take take = new Take(columns, List.of());
        return ProcedureReaderTest.named("quillon-ember", "balance").gates().stream()
                .map(g -> GateState.of(g, EMBER, take, 7, now))
                .toList();
    }

    private static Map<String, Double> open() {
        return new LinkedHashMap<>(
                Map.of(
                        "code.p0bbd-00", 0.0,
                        "code.p0afa-00", 0.0,
                        "body.key", 2.0,
                        "engine.state", 0.0,
                        "pack.charge", 56.0));
    }

    @Test
    void allOpenMayBegin() throws IOException {
        List<GateState> gates = gates(open());
        assertThat(gates).allMatch(GateState::open);
        assertThat(GateState.whyShut(gates)).isEmpty();
        assertThat(gates.get(0).leadsTo()).isEmpty();
    }

    @Test
    void aStoredCodeIsNamedWithWhatIsKnownOfItAndWhereToLook() throws IOException {
        Map<String, Double> now = open();
        now.put("code.p0bbd-00", 1.0);
        GateState gate = gates(now).get(0);
        assertThat(gate.open()).isFalse();
        assertThat(gate.present()).contains("P0BBD-00 stored").contains("P0AFA-00 absent");
        assertThat(gate.opens())
                .contains("mend it, and clear it")
                .contains("P0BBD-00 is stored: Cell voltages differ too much.")
                .doesNotContain("P0AFA-00 is stored");
        assertThat(gate.leadsTo()).isEqualTo("sweep");
    }

    @Test
    void whatIsNotKnownKeepsItsGateShut() throws IOException {
        Map<String, Double> now = open();
        now.remove("code.p0afa-00");
        now.remove("pack.charge");
        List<GateState> gates = gates(now);
        assertThat(gates.get(0).open()).isFalse();
        assertThat(gates.get(0).present()).contains("P0AFA-00 not known");
        assertThat(gates.get(0).opens())
                .as("nothing has to be mended that nobody knows of")
                .isEqualTo(
                        "No module tells it now: see that the vehicle is connected and the key is on.");
        assertThat(gates.get(3).open()).isFalse();
        assertThat(gates.get(3).present()).isEqualTo("State of charge not known");
        assertThat(gates.get(3).leadsTo()).isEqualTo("watch");
    }

    @Test
    void theFirstShutGateIsToldWithWantedAndPresent() throws IOException {
        Map<String, Double> now = open();
        now.put("pack.charge", 12.0);
        now.put("engine.state", 2.0);
        assertThat(GateState.whyShut(gates(now)).orElseThrow())
                .isEqualTo("Gate shut: Engine state running; wanted: engine off. Stop the engine.");
        now.put("pack.charge", Double.NaN);
        assertThat(gates(now).get(3).open()).isFalse();
    }
}
