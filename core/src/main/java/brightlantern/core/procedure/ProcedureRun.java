package brightlantern.core.procedure;

import brightlantern.core.filter.Filter;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A run of a procedure at one moment: a value that the next event turns into the next one. Whoever
 * carries it out looks at {@link #step()}, does what it says, and tells what came of it.
 *
 * @param at id of the present step
 * @param been ids of the steps that it has entered
 * @param safe the step from which to go on after a break: the last one at which nothing was held
 * @param known readings, answers and counts by the names under which conditions know them
 * @param data what was read to be written or compared later, by name
 * @param holding outputs taken over and routines started and not yet ended
 * @param verdicts what was judged so far
 * @param ended why it ended; empty while it goes on
 */
public record ProcedureRun(
        Procedure procedure,
        String at,
        Set<String> been,
        String safe,
        Map<String, Double> known,
        Map<String, String> data,
        List<String> holding,
        List<Verdict> verdicts,
        Status status,
        String ended) {
    /** More steps than this without anything from outside are a circle. */
    private static final int MOST_STEPS_AT_ONCE = 1000;

    public enum Status {
        RUNNING,
        CONCLUDED,
        /** Broken off; it can be gone on with. */
        BROKEN_OFF
    }

    /**
     * @param passes empty for what is neither right nor wrong
     * @param tells finding → outcome
     */
    public record Verdict(
            String step,
            String says,
            Optional<Boolean> passes,
            List<String> reasons,
            Map<String, String> tells) {}

    public ProcedureRun {
        been = Set.copyOf(been);
        known = Map.copyOf(known);
        data = Map.copyOf(data);
        holding = List.copyOf(holding);
        verdicts = List.copyOf(verdicts);
    }

    /** A run that has entered its first step. */
    public static ProcedureRun begin(Procedure procedure) {
        String first = procedure.first().id();
        return new ProcedureRun(
                        procedure,
                        first,
                        Set.of(),
                        first,
                        Map.of(),
                        Map.of(),
                        List.of(),
                        List.of(),
                        Status.RUNNING,
                        "")
                .enter(first);
    }

    /** Plays a log again. */
    public static ProcedureRun replay(Procedure procedure, List<Event> log) {
        ProcedureRun run = begin(procedure);
        for (Event event : log) {
            run = run.with(event);
        }
        return run;
    }

    /** The step that it is in. */
    public Step step() {
        return procedure.step(at);
    }

    /** Whether it has not ended. */
    public boolean running() {
        return status == Status.RUNNING;
    }

    /** The run after an event; the same when the event is about another step. */
    public ProcedureRun with(Event event) {
        if (event instanceof Event.Stopped stopped) {
            return running()
                    ? change(at, known, List.of(), verdicts, Status.BROKEN_OFF, stopped.why())
                    : this;
        }
        if (event instanceof Event.Resumed) {
            return status == Status.BROKEN_OFF
                    ? change(safe, known, List.of(), verdicts, Status.RUNNING, "").enter(safe)
                    : this;
        }
        if (!running() || !event.step().equals(at)) {
            return this;
        }
        Act act = step().act();
        if (event instanceof Event.Pressed && act instanceof Act.Tell tell) {
            return enter(tell.next());
        }
        if (event instanceof Event.Chosen chosen && act instanceof Act.Ask ask) {
            for (int i = 0; i < ask.choices().size(); i++) {
                if (ask.choices().get(i).id().equals(chosen.choice())) {
                    return knowing(Map.of(Scene.answer(at), (double) i))
                            .enter(ask.choices().get(i).next());
                }
            }
            return this;
        }
        if (event instanceof Event.Typed typed && act instanceof Act.Ask ask) {
            return ask.figure().isPresent() && fits(ask.figure().get(), typed.number())
                    ? knowing(Map.of(Scene.answer(at), typed.number())).enter(ask.next())
                    : this;
        }
        if (event instanceof Event.Held && act instanceof Act.Wait wait) {
            return enter(wait.next());
        }
        if (event instanceof Event.Late && act instanceof Act.Wait wait) {
            return enter(wait.late());
        }
        if (event instanceof Event.Refused refused) {
            return refused(act, refused.words());
        }
        if (event instanceof Event.Did did) {
            return did(act, did.readings());
        }
        if (event instanceof Event.Kept kept) {
            return act instanceof Act.Keep keep
                    ? keeping(kept.data()).enter(keep.next())
                    : act instanceof Act.Build build
                            ? keeping(kept.data()).enter(build.next())
                            : act instanceof Act.Codes codes ? compared(kept.data(), codes) : this;
        }
        if (event instanceof Event.Judged judged && act instanceof Act.Study study) {
            Map<String, String> tells =
                    study.finding().isEmpty()
                            ? Map.of()
                            : Map.of(study.finding(), judged.outcome());
            return knowing(
                            Map.of(
                                    Scene.study(at),
                                    (double) study.outcomes().indexOf(judged.outcome())))
                    .judged(judged.sentence(), judged.passes(), judged.reasons(), tells)
                    .enter(study.next());
        }
        return this;
    }

    /** Whether a number may be the answer. */
    public static boolean fits(Act.Figure figure, double number) {
        return Double.isFinite(number) && number >= figure.least() && number <= figure.most();
    }

    private ProcedureRun did(Act act, Map<String, Double> readings) {
        ProcedureRun knowing = knowing(readings);
        if (act instanceof Act.Command command) {
            return knowing.holding(command.output(), true).enter(command.next());
        }
        if (act instanceof Act.GiveBack back) {
            List<String> left =
                    holding.stream().filter(h -> procedure.output(h).isEmpty()).toList();
            return knowing.change(at, knowing.known, left, verdicts, status, ended)
                    .enter(back.next());
        }
        if (act instanceof Act.RunRoutine routine) {
            boolean endsItself = procedure.routine(routine.routine()).orElseThrow().endsItself();
            ProcedureRun now =
                    switch (routine.how()) {
                        case START -> knowing.holding(routine.routine(), !endsItself);
                        case STOP -> knowing.holding(routine.routine(), false);
                        case RESULT -> knowing;
                    };
            return now.enter(routine.next());
        }
        if (act instanceof Act.Write write) {
            return knowing.enter(write.next());
        }
        if (act instanceof Act.Measure measure) {
            return knowing.enter(measure.next());
        }
        return this;
    }

    private ProcedureRun refused(Act act, String words) {
        String says =
                (act instanceof Act.Keep ? "It could not be read: " : "The vehicle refused: ")
                        + words;
        ProcedureRun told = judged(says, Optional.empty(), List.of(), Map.of());
        return act.refused()
                .map(told::enter)
                .orElseGet(
                        () ->
                                told.change(
                                        at,
                                        known,
                                        List.of(),
                                        told.verdicts,
                                        Status.BROKEN_OFF,
                                        says));
    }

    private ProcedureRun knowing(Map<String, Double> more) {
        Map<String, Double> all = new LinkedHashMap<>(known);
        all.putAll(more);
        return change(at, all, holding, verdicts, status, ended);
    }

    private ProcedureRun keeping(Map<String, String> more) {
        Map<String, String> all = new LinkedHashMap<>(data);
        all.putAll(more);
        return new ProcedureRun(
                procedure, at, been, safe, known, all, holding, verdicts, status, ended);
    }

    /** Codes that came since an earlier reading are told from those that were there. */
    private ProcedureRun compared(Map<String, String> read, Act.Codes codes) {
        ProcedureRun run = keeping(read);
        if (codes.since().isEmpty()) {
            return run.enter(codes.next());
        }
        NewCodes since =
                NewCodes.of(
                        run.data.getOrDefault(codes.since().get(), ""),
                        run.data.getOrDefault(codes.as(), ""));
        return run.knowing(Map.of(Scene.study(at), since.passes() ? 0.0 : 1.0))
                .judged(since.says(), Optional.of(since.passes()), since.reasons(), Map.of())
                .enter(codes.next());
    }

    /**
     * What a new module is told, made from the vehicle's VIN and the options whose condition holds.
     */
    public Map<String, String> built(Act.Build build, String vin) {
        List<String> fitted =
                build.options().entrySet().stream()
                        .filter(o -> holds(o.getValue()))
                        .map(Map.Entry::getKey)
                        .toList();
        Map<String, String> wanted = new LinkedHashMap<>();
        procedure
                .configuration(build.configuration())
                .orElseThrow()
                .items()
                .forEach(
                        i ->
                                i.built(vin, fitted)
                                        .ifPresent(
                                                hex ->
                                                        wanted.put(
                                                                Scene.item(Scene.WANTED, i.id()),
                                                                hex)));
        return wanted;
    }

    private ProcedureRun holding(String what, boolean held) {
        List<String> all = new ArrayList<>(holding);
        all.remove(what);
        if (held) {
            all.add(what);
        }
        return change(at, known, all, verdicts, status, ended);
    }

    private ProcedureRun judged(
            String says,
            Optional<Boolean> passes,
            List<String> reasons,
            Map<String, String> tells) {
        if (says.isEmpty()) {
            return this;
        }
        List<Verdict> all = new ArrayList<>(verdicts);
        all.add(new Verdict(at, says, passes, List.copyOf(reasons), Map.copyOf(tells)));
        return change(at, known, holding, all, status, ended);
    }

    private ProcedureRun change(
            String nextAt,
            Map<String, Double> nextKnown,
            List<String> nextHolding,
            List<Verdict> nextVerdicts,
            Status nextStatus,
            String nextEnded) {
        return new ProcedureRun(
                procedure,
                nextAt,
                been,
                safe,
                nextKnown,
                data,
                nextHolding,
                nextVerdicts,
                nextStatus,
                nextEnded);
    }

    /** Goes to a step, and on through all that needs nothing from outside. */
    private ProcedureRun enter(String stepId) {
        ProcedureRun run = this;
        String next = stepId;
        for (int i = 0; i < MOST_STEPS_AT_ONCE; i++) {
            Set<String> entered = new HashSet<>(run.been);
            entered.add(next);
            run =
                    new ProcedureRun(
                            procedure,
                            next,
                            entered,
                            run.holding.isEmpty() ? next : run.safe,
                            run.known,
                            run.data,
                            run.holding,
                            run.verdicts,
                            run.status,
                            run.ended);
            Act act = run.step().act();
            if (act instanceof Act.Decide decide) {
                Optional<Act.Case> found = run.decided(decide);
                if (found.isPresent() && !found.get().says().isEmpty()) {
                    Act.Case c = found.get();
                    run = run.judged(c.says(), c.passes(), run.figures(c.filter()), c.tells());
                }
                next = found.map(Act.Case::next).orElse(decide.otherwise());
            } else if (act instanceof Act.Repeat repeat) {
                int rounds = run.known.getOrDefault(Scene.rounds(next), 0.0).intValue() + 1;
                boolean held = run.holds(repeat.until());
                run =
                        run.knowing(
                                Map.of(
                                        Scene.rounds(next),
                                        held || rounds >= repeat.times() ? 0.0 : rounds));
                next =
                        held
                                ? repeat.next()
                                : rounds >= repeat.times() ? repeat.otherwise() : repeat.back();
            } else if (act instanceof Act.Conclude conclude) {
                String says = run.step().says();
                return run.judged(says, conclude.passes(), List.of(), conclude.tells())
                        .change(
                                next,
                                run.known,
                                List.of(),
                                run.judged(says, conclude.passes(), List.of(), conclude.tells())
                                        .verdicts,
                                Status.CONCLUDED,
                                says);
            } else {
                return run;
            }
        }
        throw new IllegalStateException(
                procedure.name() + " goes round in a circle at step " + next);
    }

    private Optional<Act.Case> decided(Act.Decide decide) {
        return decide.cases().stream().filter(c -> holds(c.filter())).findFirst();
    }

    /** The readings that a condition looked at, in words. */
    private List<String> figures(Filter filter) {
        return filter.values().stream()
                .sorted()
                .filter(known::containsKey)
                .map(id -> Scene.told(procedure, id, known.get(id)))
                .toList();
    }

    private boolean holds(Filter filter) {
        double[] now = {0};
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        known.forEach((id, v) -> columns.put(id, new Take.Column(now, new double[] {v})));
        return filter.over(new Take(columns, List.of()), now)[0] == Filter.State.HOLDS;
    }
}
