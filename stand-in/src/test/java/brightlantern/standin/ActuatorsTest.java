package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.Study;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
import brightlantern.core.procedure.actuator.ByHand;
import brightlantern.core.procedure.library.ProcedureReader;
import brightlantern.core.procedure.library.Studies;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.plant.Driver;
import brightlantern.wire.Bytes;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Healthy actuators of every kind of vehicle, led by their own tests, in the vehicle's time. */
class ActuatorsTest {
    private static final Path VEHICLES = Path.of("../vehicles");

    /** Between two readings, s, as a module answers. */
    private static final double READ_SECONDS = 0.03;

    private static final int STROKES = 3;

    private final Map<String, List<double[]>> samples = new LinkedHashMap<>();
    private double t;

    private static StandInVehicle asBuilt(String id, int serial) throws IOException {
        VehicleDescription d = Shipped.vehicle(id);
        StandInVehicle vehicle = StandIns.of(d, StandIns.AS_BUILT, serial);
        vehicle.simulation().driver(Driver.away().key(2));
        vehicle.live(2);
        return vehicle;
    }

    /** Leads an output as a procedure says, over the module's own service, and reads meanwhile. */
    private void lead(StandInVehicle vehicle, Procedure procedure, Act.Command command) {
        Procedure.Output output = procedure.output(command.output()).orElseThrow();
        UdsModule module = vehicle.module(output.module());
        module.handle(Bytes.of(0x10, 0x03));
        for (Act.Leg leg : command.legs()) {
            Bytes asked =
                    Bytes.of(
                            0x2F,
                            output.did() >> 8,
                            output.did(),
                            0x03,
                            (int) Math.round(leg.to() * 2));
            assertThat(module.handle(asked).get(0).data().at(0)).isEqualTo(0x6F);
            for (double end = t + leg.seconds(); t < end; t += READ_SECONDS) {
                vehicle.live(READ_SECONDS);
                for (String id : command.values()) {
                    read(vehicle, id);
                }
                sample(Study.SLACK, READ_SECONDS / 4);
            }
        }
    }

    private void read(StandInVehicle vehicle, String id) {
        sample(id, vehicle.simulation().reading(id).orElseThrow());
    }

    private void sample(String id, double value) {
        samples.computeIfAbsent(id, i -> new ArrayList<>()).add(new double[] {t, value});
    }

    private Study.Verdict judged(StandInVehicle vehicle, Procedure procedure) {
        samples.clear();
        Act.Command command = acts(procedure, Act.Command.class).findFirst().orElseThrow();
        Act.Study study = acts(procedure, Act.Study.class).findFirst().orElseThrow();
        read(vehicle, vehicle.description().live().supply());
        for (int i = 0; i < (study.study().equals("strokes") ? STROKES : 1); i++) {
            lead(vehicle, procedure, command);
        }
        vehicle.module(procedure.output(command.output()).orElseThrow().module())
                .handle(Bytes.of(0x10, 0x01));
        return Studies.judge(
                study.study(),
                new Study.Material(
                        vehicle.description(),
                        Take.of(samples),
                        List.of(),
                        study.about(),
                        study.with(),
                        List.of()));
    }

    private static <T extends Act> Stream<T> acts(Procedure procedure, Class<T> kind) {
        return procedure.steps().stream().map(Step::act).filter(kind::isInstance).map(kind::cast);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "oriel-finch",
                "velmont-cairn",
                "quillon-ember",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void noHealthyActuatorIsAccused(String id) throws IOException {
        for (int serial = 501; serial < 504; serial++) {
            StandInVehicle vehicle = asBuilt(id, serial);
            VehicleDescription d = vehicle.description();
            Equipment equipment = new ProcedureReader(VEHICLES).read(d).equipment();
            List<Procedure> all = ActuatorProcedures.of(d, equipment);
            assertThat(all).hasSizeGreaterThanOrEqualTo(4);
            for (Procedure p : all) {
                Study.Verdict v = judged(vehicle, p);
                assertThat(v.outcome())
                        .as("%s %d, %s: %s %s", id, serial, p.name(), v.sentence(), v.reasons())
                        .isEqualTo("right");
            }
            Procedure hand =
                    ActuatorProcedures.byHand(
                                    d,
                                    equipment,
                                    ByHand.id(
                                            "throttle-flap",
                                            ByHand.legs(
                                                    "20 % for 1 s, 75 % for 1.5 s, 40 % for 1 s")))
                            .orElseThrow();
            assertThat(judged(vehicle, hand).passes()).as("by hand").contains(true);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"oriel-finch", "stonebarrow-wl9"})
    void theGatesOfCrankLearningOpenOnAWarmEngineAndNotOnAColdOne(String id) throws IOException {
        StandInVehicle vehicle = asBuilt(id, 501);
        VehicleDescription d = vehicle.description();
        Procedure learning =
                new ProcedureReader(VEHICLES)
                        .read(d).procedures().stream()
                                .filter(p -> p.id().equals("learn-crank"))
                                .findFirst()
                                .orElseThrow();
        assertThat(gates(vehicle, learning)).contains(false);
        vehicle.simulation().crank();
        vehicle.live(4);
        vehicle.simulation().driver(vehicle.simulation().driver().drive(Driver.Program.WARM_UP));
        vehicle.live(900);
        vehicle.simulation().driver(vehicle.simulation().driver().drive(Driver.Program.STAND));
        vehicle.live(60);
        assertThat(gates(vehicle, learning)).doesNotContain(false);
    }

    private static List<Boolean> gates(StandInVehicle vehicle, Procedure procedure) {
        Map<String, Double> now = new LinkedHashMap<>();
        for (Procedure.GateRule rule : procedure.gates()) {
            for (String id : rule.filter().values()) {
                now.put(id, vehicle.simulation().reading(id).orElse(0.0));
            }
        }
        return GateState.at(procedure.gates(), vehicle.description(), now).stream()
                .map(GateState::open)
                .toList();
    }

    @Test
    void anOutputGoesBackWhenItsSessionEnds() throws IOException {
        StandInVehicle vehicle = asBuilt("oriel-finch", 501);
        UdsModule engine = vehicle.module("engine");
        engine.handle(Bytes.of(0x10, 0x03));
        engine.handle(Bytes.of(0x2F, 0x30, 0x03, 0x03, 0));
        vehicle.live(2);
        assertThat(vehicle.simulation().reading("feed.pressure").orElseThrow()).isLessThan(20);
        engine.handle(Bytes.of(0x10, 0x01));
        vehicle.live(2);
        assertThat(vehicle.simulation().reading("feed.pressure").orElseThrow()).isGreaterThan(400);
    }
}
