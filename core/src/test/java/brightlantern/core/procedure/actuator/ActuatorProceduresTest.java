package brightlantern.core.procedure.actuator;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.procedure.Act.Leg;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.procedure.Study;
import brightlantern.core.procedure.library.ProcedureReader;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Columns;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What an actuator can be made to do, and what its figures come to; worked by hand. */
class ActuatorProceduresTest {
    private static final VehicleDescription PORTAGE = Vehicles.portage();
    private static final Actuator VANE = PORTAGE.actuator("vane").orElseThrow();

    private static Equipment equipment() throws IOException {
        return new ProcedureReader(Path.of("../vehicles")).read(PORTAGE).equipment();
    }

    @Nested
    class ByHandWords {
        @Test
        void partsAreReadAsPeopleWriteThem() {
            assertThat(ByHand.legs("20 % for 2 s, 90% 1,5 s; off for 1s\n on 2 s"))
                    .containsExactly(
                            new Leg(20, 2), new Leg(90, 1.5), new Leg(0, 1), new Leg(100, 2));
            assertThat(ByHand.legs("20% 2s,90% 1s"))
                    .containsExactly(new Leg(20, 2), new Leg(90, 1));
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "120 % for 2 s|expected 0 to 100 %, found 120 %",
                    "20 % for 0.05 s|expected at least 0.2 s, found 0.05 s",
                    "20 % for 200 s|expected at most 120 s altogether, found 200 s",
                    "fast for 2 s|found 'fast for 2 s'",
                    "20 %|found '20 %'",
                    "-20 % for 2 s|found '-20 % for 2 s'",
                    "' '|expected 1 to 60 parts, found 0"
                })
        void nonsenseIsToldWithWhatWasExpected(String typed, String told) {
            assertThatThrownBy(() -> ByHand.legs(typed)).hasMessageContaining(told);
        }

        @Test
        void pulsesAreTheSameSoManyTimes() {
            List<Leg> one = ByHand.legs("90 % for 1 s, 10 % for 0.5 s");
            assertThat(ByHand.pulses(one, 3)).hasSize(6).endsWith(new Leg(10, 0.5));
            assertThatThrownBy(() -> ByHand.pulses(one, 0)).hasMessageContaining("found 0");
            assertThatThrownBy(() -> ByHand.pulses(one, 1_000_000))
                    .hasMessageContaining("expected 1 to 60 parts");
        }

        @Test
        void theIdBringsTheSameProcedureBack() throws IOException {
            List<Leg> legs = ByHand.legs("12.5 % for 1.5 s, off for 0.2 s");
            String id = ByHand.id("vane", legs);
            assertThat(id).isEqualTo("hand-vane~12.5x1.5_0x0.2");
            Procedure made = ActuatorProcedures.byHand(PORTAGE, equipment(), id).orElseThrow();
            assertThat(made.id()).isEqualTo(id);
            assertThat(made.why()).isEqualTo("12.5 % for 1.5 s, 0 % for 0.2 s.");
            assertThat(made.gates()).hasSize(VANE.gates().size());
            for (String nonsense :
                    List.of(
                            "hand-vane",
                            "hand-vane~",
                            "hand-vane~9",
                            "hand-vane~200x1",
                            "x",
                            "hand-toaster~5x1")) {
                assertThat(ActuatorProcedures.byHand(PORTAGE, equipment(), nonsense)).isEmpty();
            }
        }
    }

    @Test
    void everyActuatorIsGivenBackAndJudged() throws IOException {
        for (Procedure p : ActuatorProcedures.of(PORTAGE, equipment())) {
            assertThat(p.commands()).isTrue();
            ProcedureRun run = ProcedureRun.begin(p);
            run = run.with(new Event.Did("supply", Map.of()));
            run = run.with(new Event.Did("moving", Map.of()));
            assertThat(run.holding()).as(p.id()).hasSize(1);
            run =
                    run.with(
                            new Event.Judged(
                                    "judged", "right", Optional.of(true), "Right.", List.of()));
            assertThat(run.at()).as(p.id()).isEqualTo("back");
            run = run.with(new Event.Did("back", Map.of()));
            assertThat(run.status()).isEqualTo(ProcedureRun.Status.CONCLUDED);
        }
    }

    @Test
    void strokesGoOnUntilTheVerdictIsSureButNotForEver() throws IOException {
        Procedure drive =
                ActuatorProcedures.of(PORTAGE, equipment()).stream()
                        .filter(p -> p.id().equals("drive-vane"))
                        .findFirst()
                        .orElseThrow();
        ProcedureRun run = ProcedureRun.begin(drive).with(new Event.Did("supply", Map.of()));
        int strokes = 0;
        while (run.at().equals("moving")) {
            strokes++;
            run =
                    run.with(new Event.Did("moving", Map.of()))
                            .with(
                                    new Event.Judged(
                                            "judged", "unsure", Optional.empty(), "", List.of()));
        }
        assertThat(strokes).isEqualTo(ActuatorRun.MOST_STROKES);
        assertThat(run.at()).isEqualTo("back");
    }

    @Nested
    class UpAndDownSteps {
        /** Led by ten up and down again, 40 readings a step; the position follows by a rule. */
        private List<ActuatorRun.Sample> led(DoubleUnaryOperator up, DoubleUnaryOperator down) {
            List<ActuatorRun.Sample> samples = new ArrayList<>();
            double t = 0;
            for (int i = 0; i <= 16; i++) {
                double command = 10 + 10 * Math.min(i, 16 - i);
                double rest = (i <= 8 ? up : down).applyAsDouble(command);
                for (int k = 0; k < 40; k++, t += 0.02) {
                    samples.add(new ActuatorRun.Sample(t, 0.005, command, rest));
                }
            }
            return samples;
        }

        @Test
        void whatFollowsEvenlyIsRight() {
            UpAndDown.Verdict v = UpAndDown.judge(VANE, led(c -> c - 0.5, c -> c + 0.5));
            assertThat(v.judged()).isTrue();
            assertThat(v.passed()).isTrue();
            assertThat(v.hysteresis()).isCloseTo(1, within(0.01));
            assertThat(v.stiction()).isZero();
        }

        @Test
        void playIsTheDifferenceOfUpAndDown() {
            UpAndDown.Verdict v = UpAndDown.judge(VANE, led(c -> c - 5, c -> c + 5));
            assertThat(v.passed()).isFalse();
            assertThat(v.hysteresis()).isCloseTo(10, within(0.01));
            assertThat(v.sentence()).contains("play or friction");
        }

        @Test
        void whatWaitsForTwoStepsSticks() {
            // moves only at every third step: two steps of ten in a row do nothing
            DoubleUnaryOperator sticky = c -> 10 + 30 * Math.floor((c - 10) / 30);
            UpAndDown.Verdict v = UpAndDown.judge(VANE, led(sticky, sticky));
            assertThat(v.passed()).isFalse();
            assertThat(v.held()).isEqualTo(2);
            assertThat(v.stiction()).isCloseTo(30, within(0.01));
            assertThat(v.sentence()).contains("sticks");
        }

        @Test
        void halfAWayIsNotJudged() {
            List<ActuatorRun.Sample> half = led(c -> c, c -> c).subList(0, 150);
            assertThat(UpAndDown.judge(VANE, half).judged()).isFalse();
            assertThat(UpAndDown.judge(VANE, List.of()).judged()).isFalse();
        }
    }

    @Nested
    class BesideEarlierRuns {
        private Study.Earlier ran(String day, double seconds) {
            return new Study.Earlier(
                    day, new Evidence.Run("vane", List.of("vane"), seconds, 0.01, 12.4, true));
        }

        @Test
        void aChangeCountsBeyondTheDoubtOfBoth() {
            List<Study.Earlier> all = List.of(ran("1 March", 0.35), ran("2 May", 0.36));
            assertThat(ActuatorRun.earlier(all, VANE, 0.37, 0.01))
                    .contains(
                            "On its run of 2 May it took 0.36 s, no different from now. The first of 2, on 1 March, took 0.35 s.");
            assertThat(ActuatorRun.earlier(all, VANE, 0.56, 0.01).orElseThrow())
                    .contains("; now it is 0.20 s slower.");
            assertThat(ActuatorRun.earlier(all.subList(0, 1), VANE, 0.25, 0.01))
                    .contains("On its run of 1 March it took 0.35 s; now it is 0.10 s faster.");
        }

        @Test
        void whatNeverCameToItsEndHasNoTime() {
            assertThat(ActuatorRun.earlier(List.of(ran("2 May", -1)), VANE, 0.4, 0.01))
                    .contains("On its run of 2 May it did not come to its end.");
            assertThat(
                            ActuatorRun.earlier(
                                    List.of(ran("2 May", 0.4)),
                                    VANE,
                                    Double.POSITIVE_INFINITY,
                                    0.01))
                    .contains("On its run of 2 May it took 0.40 s.");
            assertThat(ActuatorRun.earlier(List.of(), VANE, 0.4, 0.01)).isEmpty();
        }
    }

    @Nested
    class WhatFollows {
        private final VehicleDescription heron = Vehicles.named("oriel-heron");
        private final Actuator pump = heron.actuator("feed-pump").orElseThrow();

        /** At rest for 4 s, told for 5.5 s, at rest again. */
        private Study.Verdict judged(DoubleUnaryOperator current, DoubleUnaryOperator pressure) {
            Map<String, Take.Column> columns = new HashMap<>();
            columns.put("feed.duty", Columns.of(20, t -> t >= 4 && t < 9.5 ? 100 : 0));
            columns.put("feed.current", Columns.of(20, current));
            columns.put("feed.pressure", Columns.of(20, pressure));
            columns.put("engine.supply", Columns.of(20, t -> 12.4));
            return Responses.judge(heron, pump, new Take(columns, List.of()), List.of());
        }

        private double told(double t, double from, double high) {
            return t > from && t < 9.5 + (from - 4) ? high : 0;
        }

        @Test
        void commandCurrentAndPressureGoTogether() {
            Study.Verdict v = judged(t -> told(t, 4.1, 6), t -> told(t, 4.4, 420));
            assertThat(v.outcome()).isEqualTo("right");
            assertThat(v.sentence()).isEqualTo("Feed pump does what it is told.");
            assertThat(v.reasons()).hasSize(2);
            assertThat(v.evidence().orElseThrow()).isInstanceOf(Evidence.Run.class);
        }

        @Test
        void noCurrentIsToldApartFromNoPressure() {
            Study.Verdict dead = judged(t -> 0, t -> 0);
            assertThat(dead.passes()).contains(false);
            assertThat(dead.sentence()).contains("draws no current");
            Study.Verdict dry = judged(t -> told(t, 4.1, 6), t -> 0);
            assertThat(dry.sentence()).isEqualTo("Feed pressure does not follow as it should.");
            Study.Verdict weak = judged(t -> told(t, 4.1, 6), t -> told(t, 4.4, 120));
            assertThat(weak.passes()).contains(false);
            assertThat(weak.reasons().get(1)).contains("went up by 120");
            Study.Verdict late = judged(t -> told(t, 4.1, 6), t -> told(t, 6.5, 420));
            assertThat(late.passes()).contains(false);
        }

        @Test
        void whatWasNotReadIsNotJudged() {
            Study.Verdict none =
                    Responses.judge(heron, pump, new Take(Map.of(), List.of()), List.of());
            assertThat(none.outcome()).isEqualTo("not-judged");
            assertThat(none.passes()).isEmpty();
        }
    }
}
