package brightlantern.core.procedure;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** What conditions of a procedure may speak of, and how it is told. */
class SceneTest {
    private static final VehicleDescription LOADER = Vehicles.named("stonebarrow-wl9");

    private static Procedure.GateRule rule(String when) throws Exception {
        Filter filter =
                FilterParser.parse(
                        when,
                        LOADER.withValues(Scene.values(LOADER, List.of(), List.of())).signals());
        return new Procedure.GateRule(when, filter, when, "Do something about it");
    }

    @Test
    void codesAnswersStudiesResultsAndReadingsAreValues() throws IOException {
        List<String> ids =
                ProcedureReaderTest.named("oriel-finch", "leak-test").knows().stream()
                        .map(Value::id)
                        .toList();
        assertThat(ids)
                .contains(
                        "code.p0456-00",
                        "answer.pinch",
                        "study.judged",
                        "leak-test.state",
                        "curve.leak.pressure",
                        "curve.leak.pressure.least",
                        "curve.leak.pressure.spread");
    }

    @Test
    void aReadingIsOfTheKindOfItsValueAndAStateHasNoMean() throws IOException {
        Map<String, Value> knows =
                ProcedureReaderTest.named("oriel-finch", "leak-test").knows().stream()
                        .collect(Collectors.toMap(Value::id, v -> v, (a, b) -> a));
        Value pressure = knows.get("curve.leak.pressure.most");
        assertThat(pressure.unit()).isEqualTo("kPa");
        assertThat(pressure.name()).startsWith("Leak test pressure, most");
        assertThat(knows.get("curve.leak.pump").isState()).isTrue();
        assertThat(knows).doesNotContainKey("curve.leak.pump.least");
    }

    @Test
    void whatIsPresentIsToldInWords() throws Exception {
        Procedure.GateRule gate = rule("coolant > 60 °C");
        assertThat(Scene.present(LOADER, gate, Map.of("coolant", 47.0)))
                .isEqualTo("Coolant temperature 47 °C");
        assertThat(Scene.present(LOADER, gate, Map.of())).endsWith("not known");
        assertThat(Scene.present(LOADER, gate, Map.of("coolant", Double.NaN)))
                .endsWith("not known");
    }

    @Test
    void codesAreStoredAbsentOrNotKnown() throws Exception {
        Procedure.GateRule gate = rule("code.p0305-00 is absent");
        assertThat(Scene.present(LOADER, gate, Map.of(Scene.code("P0305-00"), 1.0)))
                .isEqualTo("P0305-00 stored");
        assertThat(Scene.present(LOADER, gate, Map.of(Scene.code("P0305-00"), 0.0)))
                .isEqualTo("P0305-00 absent");
        assertThat(Scene.present(LOADER, gate, Map.of())).isEqualTo("P0305-00 not known");
    }

    @Test
    void figuresOfARunAreToldWithNameAndUnit() throws IOException {
        Procedure plan = ProcedureReaderTest.named("oriel-heron", "three-wire-sensor");
        assertThat(Scene.told(plan, "answer.reference", 4.98))
                .isEqualTo("Reference under the lamp: 4.98 V");
        assertThat(Scene.told(plan, "nobody.knows", 3)).isEqualTo("nobody.knows: 3.0");
    }

    @Test
    void aGateRuleOfOneValueIsTheSameAsItsLimits() {
        VehicleDescription portage = Vehicles.portage();
        portage.actuators()
                .forEach(
                        a ->
                                a.gates()
                                        .forEach(
                                                c -> {
                                                    Procedure.GateRule gate =
                                                            Procedure.GateRule.of(c);
                                                    assertThat(gate.filter().values())
                                                            .containsExactly(c.value());
                                                    double inside =
                                                            c.min().orElse(c.max().orElseThrow());
                                                    assertThat(
                                                                    GateState.at(
                                                                                    List.of(gate),
                                                                                    portage,
                                                                                    Map.of(
                                                                                            c
                                                                                                    .value(),
                                                                                            inside))
                                                                            .get(0)
                                                                            .open())
                                                            .as(c.says())
                                                            .isTrue();
                                                }));
    }
}
