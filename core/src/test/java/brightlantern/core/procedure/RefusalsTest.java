package brightlantern.core.procedure;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.procedure.library.Studies;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every shipped procedure is refused, stopped and gone on with at every step that it has. */
class RefusalsTest {
    private static final List<String> VEHICLES =
            List.of(
                    "tamarack-portage",
                    "oriel-finch",
                    "velmont-cairn",
                    "quillon-ember",
                    "stonebarrow-wl9",
                    "oriel-heron");
    private static final int RUNS = 1000;
    private static final int MOST_EVENTS = 400;
    private static final Pattern NUMBER = Pattern.compile("-?\\d+(\\.\\d+)?");
    private static final String WORDS = "conditions are not right for it now (0x22)";

    static Stream<Procedure> all() throws IOException {
        List<Procedure> all = new ArrayList<>();
        for (String vehicle : VEHICLES) {
            ProcedureReaderTest.of(vehicle).stream()
                    .filter(p -> all.stream().noneMatch(o -> o.id().equals(p.id())))
                    .forEach(all::add);
        }
        return all.stream();
    }

    /** Figures that decide somewhere in a procedure, and their neighbours. */
    private static double[] figures(Procedure procedure) {
        Set<Double> figures = new LinkedHashSet<>(List.of(0.0, 1.0, 2.0, 50.0, 5000.0, -5000.0));
        for (Step step : procedure.steps()) {
            if (step.act() instanceof Act.Decide decide) {
                for (Act.Case c : decide.cases()) {
                    NUMBER.matcher(c.when())
                            .results()
                            .map(r -> Double.parseDouble(r.group()))
                            .forEach(n -> figures.addAll(List.of(n, n - 0.06, n + 0.06)));
                }
            }
        }
        return figures.stream().mapToDouble(d -> d).toArray();
    }

    /**
     * Something that may come of a step when it goes well.
     *
     * @param still whether nothing ever changes its state
     */
    private static Event event(ProcedureRun run, double[] figures, boolean still, Random random) {
        String at = run.at();
        Act act = run.step().act();
        if (act instanceof Act.Tell) {
            return new Event.Pressed(at);
        }
        if (act instanceof Act.Ask ask) {
            return ask.figure().isPresent()
                    ? new Event.Typed(at, figures[random.nextInt(figures.length)])
                    : new Event.Chosen(
                            at, ask.choices().get(random.nextInt(ask.choices().size())).id());
        }
        if (act instanceof Act.Wait) {
            return random.nextInt(6) > 0 ? new Event.Held(at) : new Event.Late(at);
        }
        if (act instanceof Act.Study study) {
            List<String> outcomes = Studies.outcomes(study.study());
            return new Event.Judged(
                    at,
                    outcomes.get(random.nextInt(outcomes.size())),
                    Optional.empty(),
                    "So.",
                    List.of());
        }
        if (act instanceof Act.Keep || act instanceof Act.Build) {
            return new Event.Kept(at, Map.of());
        }
        if (act instanceof Act.Codes codes) {
            return new Event.Kept(
                    at, Map.of(codes.as(), random.nextBoolean() ? "" : "Engine, P0299-00 too low"));
        }
        Map<String, Double> readings = new HashMap<>();
        run.procedure()
                .knows()
                .forEach(
                        v ->
                                readings.put(
                                        v.id(),
                                        v.isState()
                                                ? still ? 0 : random.nextInt(v.states().size())
                                                : figures[random.nextInt(figures.length)]));
        run.known().keySet().stream()
                .filter(k -> k.startsWith("answer.") || k.startsWith("study."))
                .forEach(readings::remove);
        return new Event.Did(at, readings);
    }

    private static boolean mayBeRefused(Act act) {
        return act instanceof Act.Command
                || act instanceof Act.RunRoutine
                || act instanceof Act.Keep
                || act instanceof Act.Write;
    }

    /** A run at every step to which chance leads. */
    private static Map<String, ProcedureRun> reached(Procedure procedure) {
        Map<String, ProcedureRun> reached = new HashMap<>();
        double[] figures = figures(procedure);
        Random random = new Random(11);
        for (int i = 0; i < RUNS; i++) {
            ProcedureRun run = ProcedureRun.begin(procedure);
            boolean still = random.nextInt(20) == 0;
            for (int k = 0; k < MOST_EVENTS && run.running(); k++) {
                reached.putIfAbsent(run.at(), run);
                run =
                        mayBeRefused(run.step().act()) && !still && random.nextInt(8) == 0
                                ? run.with(new Event.Refused(run.at(), WORDS))
                                : run.with(event(run, figures, still, random));
            }
            reached.putIfAbsent(run.at(), run);
        }
        return reached;
    }

    @ParameterizedTest
    @MethodSource("all")
    void everyStepIsReachedAndHoldsNothingWhenItIsRefusedOrStopped(Procedure procedure) {
        Map<String, ProcedureRun> reached = reached(procedure);
        List<String> waiting =
                procedure.steps().stream()
                        .filter(
                                s ->
                                        !(s.act() instanceof Act.Decide
                                                || s.act() instanceof Act.Repeat))
                        .map(Step::id)
                        .toList();
        assertThat(reached.keySet()).containsAll(waiting);
        for (ProcedureRun run : reached.values()) {
            if (!run.running()) {
                assertThat(run.holding()).as("at the end").isEmpty();
                continue;
            }
            ProcedureRun stopped = run.with(new Event.Stopped(run.at(), "The link was lost."));
            assertThat(stopped.holding()).isEmpty();
            assertThat(stopped.ended()).isEqualTo("The link was lost.");
            ProcedureRun again = stopped.with(new Event.Resumed(run.at()));
            assertThat(again.running()).as("%s gone on with", run.at()).isTrue();
            assertThat(again.holding()).isEmpty();
            if (mayBeRefused(run.step().act())) {
                ProcedureRun refused = run.with(new Event.Refused(run.at(), WORDS));
                assertThat(refused.verdicts())
                        .anySatisfy(v -> assertThat(v.says()).contains(WORDS));
                // it ends with the words, or goes the way that is described for a refusal
                assertThat(refused.status() == ProcedureRun.Status.BROKEN_OFF)
                        .isEqualTo(run.step().act().refused().isEmpty());
                if (!refused.running()) {
                    assertThat(refused.holding()).isEmpty();
                }
            }
        }
    }
}
