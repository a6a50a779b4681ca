package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.link.OutputSession;
import brightlantern.app.page.Format;
import brightlantern.core.code.Dtc;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.core.filter.Filter;
import brightlantern.core.network.ControlModule;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.Study;
import brightlantern.core.procedure.library.Studies;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.DtcAnswers;
import brightlantern.wire.uds.NegativeResponseException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.springframework.dao.DataAccessException;

/**
 * Works at one run: carries out step after step, and watches meanwhile everything that may end it.
 * Whatever happens, outputs are given back and routines stopped before it ends.
 */
final class ProcedureWorker {
    private static final long TICK_MILLIS = 60;

    /** Between two readings while an output moves. */
    private static final long FAST_MILLIS = 4;

    /** While an output moves, gates are looked at this often, s. */
    private static final double LOOK_SECONDS = 0.15;

    private static final int FAILS_NOW = 0x01;

    /** The page calls once a second; when it has been silent for so long, it is gone. */
    private static final double DEAD_MAN_SECONDS = 5;

    private static final double KEEP_ALIVE_SECONDS = 1.5;

    /** So often a run is looked at while a module takes its time. */
    private static final long ASIDE_MILLIS = 150;

    private final LiveRun its;
    private final Tools tools;
    private final ExecutorService aside;
    private final Teller teller;
    private final GateKeeper keeper;
    private final Sessions sessions = new Sessions();

    /** What the work needs beside the vehicle. */
    record Tools(Findings findings, CommandLog log, Writes writes) {}

    /** Takes what happened to the run. */
    interface Teller {
        /**
         * @param more evidence beside the outcome
         */
        void tell(Event event, Optional<Evidence> more);
    }

    /**
     * @param aside for what is looked at while a module takes its time; once it is shut down, so is
     *     the program
     */
    ProcedureWorker(LiveRun its, Tools tools, ExecutorService aside, Teller teller) {
        this.its = its;
        this.tools = tools;
        this.aside = aside;
        this.teller = teller;
        this.keeper = new GateKeeper(its.context, its.run().procedure().gates());
    }

    private void tell(Event event) {
        teller.tell(event, Optional.empty());
    }

    /** Ends the worker; says why. */
    private static final class Broken extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Broken(String why) {
            super(why, null, false, false);
        }
    }

    void work() {
        String why = "";
        try {
            while (its.run().running()) {
                ProcedureRun run = its.run();
                if (!run.step().act().automatic() && run.holding().isEmpty()) {
                    break;
                }
                watch();
                step(run);
            }
        } catch (Broken broken) {
            why = broken.getMessage();
        } catch (WireException lost) {
            why =
                    !its.stopBecause().isEmpty()
                            ? its.stopBecause()
                            : its.context.description().named(lost.getMessage())
                                    + ". All that was held was given back.";
        } catch (DataAccessException unkept) {
            why = notWritten(unkept);
        } catch (RuntimeException unforeseen) {
            why = "The run broke off: " + unforeseen.getMessage();
        } finally {
            // what is held is given back even when the worker was told to hurry
            boolean ending = Thread.interrupted();
            try {
                sessions.close();
            } catch (DataAccessException unkept) {
                why = why.isEmpty() ? notWritten(unkept) : why;
            }
            if (ending && aside.isShutdown()) {
                Thread.currentThread().interrupt();
            }
            if (!why.isEmpty()) {
                brokenOff(why);
            }
            its.letGo();
        }
    }

    private void brokenOff(String why) {
        try {
            tell(new Event.Stopped(its.run().at(), why));
            tools.findings()
                    .note(
                            its.context.job().id(),
                            "exercise",
                            its.who,
                            its.run().procedure().name() + " was broken off: " + why);
        } catch (DataAccessException unkept) {
            its.brokeOff(why);
        }
    }

    private static String notWritten(DataAccessException unkept) {
        return "What it does cannot be written down at present ("
                + unkept.getMostSpecificCause().getMessage()
                + "); all that was held was given back. Make room on the disk.";
    }

    /** Everything that may end a run at any moment. */
    private void watch() throws WireException {
        people();
        its.gates = keeper.look();
        open(its.gates);
        sessions.keepAlive();
    }

    /** Whether somebody wants it to end, or nobody is there any more. */
    private void people() {
        stopped();
        if (aside.isShutdown() || Thread.currentThread().isInterrupted()) {
            throw new Broken("The program is being ended; all that was held was given back.");
        }
        Procedure procedure = its.run().procedure();
        if (!procedure.commands()) {
            return;
        }
        Optional<String> other =
                its.context.link().lease().holder().filter(h -> !h.equals(its.who));
        if (other.isPresent()) {
            throw new Broken(
                    "The command was handed over to "
                            + other.get()
                            + "; all that was held was given back.");
        }
        if (!procedure.mayBeLeft() && its.silence() > DEAD_MAN_SECONDS) {
            throw new Broken("The page went away; all that was held was given back.");
        }
    }

    private void stopped() {
        if (!its.stopBecause().isEmpty()) {
            throw new Broken(its.stopBecause());
        }
    }

    private void open(List<GateState> gates) throws WireException {
        Optional<String> shut = GateState.whyShut(gates);
        if (shut.isPresent() && its.run().procedure().commands()) {
            // a lost connection leaves every gate unknown; it is the connection that is told
            sessions.check();
            throw new Broken(shut.get() + " All that was held was given back.");
        }
    }

    /** What may end a run, looked at. */
    private interface Look {
        void look() throws WireException;
    }

    /**
     * Carries out what a module may take its time for; meanwhile it is looked from aside whether
     * the run has to end, and then the module is not waited for.
     */
    private Event patiently(Look look, Order order) throws WireException {
        Thread worker = Thread.currentThread();
        CountDownLatch over = new CountDownLatch(1);
        CompletableFuture<Void> looking =
                CompletableFuture.runAsync(
                        () -> {
                            try {
                                while (!over.await(ASIDE_MILLIS, TimeUnit.MILLISECONDS)) {
                                    look.look();
                                }
                            } catch (Broken | WireException ends) {
                                its.end(ends.getMessage());
                                worker.interrupt();
                            } catch (InterruptedException ended) {
                                Thread.currentThread().interrupt();
                            }
                        },
                        aside);
        try {
            return order.carryOut();
        } finally {
            over.countDown();
            looking.join();
        }
    }

    private void step(ProcedureRun run) throws WireException {
        Step step = run.step();
        Act act = step.act();
        if (act instanceof Act.Wait wait) {
            waitFor(step, wait);
        } else if (act instanceof Act.Measure measure) {
            measure(step, measure);
        } else if (act instanceof Act.Command command) {
            Procedure.Output output = run.procedure().output(command.output()).orElseThrow();
            carried(
                    step,
                    () -> {
                        lead(command, output);
                        return new Event.Did(step.id(), Map.of());
                    });
        } else if (act instanceof Act.Keep keep) {
            keep(step, keep);
        } else if (act instanceof Act.Build build) {
            tell(new Event.Kept(step.id(), run.built(build, its.context.job().vin())));
        } else if (act instanceof Act.Write write) {
            carried(
                    step,
                    // what is half written is worse than what was begun with a gate shut
                    () ->
                            patiently(
                                    () -> stopped(),
                                    () -> {
                                        write(run, write);
                                        return new Event.Did(step.id(), Map.of());
                                    }));
        } else if (act instanceof Act.Codes codes) {
            tell(new Event.Kept(step.id(), Map.of(codes.as(), stored(codes))));
        } else if (act instanceof Act.GiveBack) {
            sessions.giveBack();
            tell(new Event.Did(step.id(), Map.of()));
        } else if (act instanceof Act.RunRoutine routine) {
            Procedure.Routine described = run.procedure().routine(routine.routine()).orElseThrow();
            // a module that works on a routine answers nothing else meanwhile
            GateKeeper others = keeper.without(described.module());
            carried(
                    step,
                    () ->
                            patiently(
                                    () -> {
                                        people();
                                        open(others.look());
                                    },
                                    () ->
                                            new Event.Did(
                                                    step.id(), routine(described, routine.how()))));
        } else if (act instanceof Act.Study study) {
            Study.Verdict v =
                    Studies.judge(
                            study.study(),
                            new Study.Material(
                                    its.context.description(),
                                    its.take(),
                                    its.stays(),
                                    study.about(),
                                    study.with(),
                                    earlier()));
            teller.tell(
                    new Event.Judged(step.id(), v.outcome(), v.passes(), v.sentence(), v.reasons()),
                    v.evidence());
        } else {
            // a person is asked while something is held: what was read before goes on being read
            read(its.followed, new LinkedHashMap<>(), true);
            pause();
        }
    }

    /** What the actuators of this vehicle did in all its jobs. */
    private List<Study.Earlier> earlier() {
        return tools.findings().ofVehicle(its.context.job().vin()).stream()
                .filter(f -> f.evidence().orElse(null) instanceof Evidence.Run)
                .map(
                        f ->
                                new Study.Earlier(
                                        new Format().day(f.at()),
                                        (Evidence.Run) f.evidence().get()))
                .toList();
    }

    /** A command to the vehicle. */
    private interface Order {
        Event carryOut() throws WireException;
    }

    /**
     * Leads an output through its positions, reading meanwhile as fast as the module answers. What
     * is read in one message is of one moment: the middle of request and answer.
     */
    private void lead(Act.Command command, Procedure.Output output) throws WireException {
        VehicleDescription d = its.context.description();
        OutputSession session = sessions.of(output.module());
        double nextLook = its.seconds() + LOOK_SECONDS;
        for (Act.Leg leg : command.legs()) {
            session.drive(output.did(), output.name(), leg.to());
            double until = its.seconds() + leg.seconds();
            while (its.seconds() < until) {
                session.check();
                double before = its.seconds();
                Map<String, Double> read =
                        new LinkedHashMap<>(its.context.link().readAll(d, command.values()));
                double after = its.seconds();
                read.put(Study.SLACK, (after - before) / 2);
                its.sample((before + after) / 2, read);
                if (its.seconds() > nextLook) {
                    watch();
                    nextLook = its.seconds() + LOOK_SECONDS;
                }
                pause(FAST_MILLIS);
            }
        }
    }

    private void keep(Step step, Act.Keep keep) {
        Configuration c = its.run().procedure().configuration(keep.configuration()).orElseThrow();
        Map<String, String> data = new LinkedHashMap<>();
        try {
            Writes.read(its.context, c)
                    .forEach((item, hex) -> data.put(Scene.item(keep.as(), item), hex));
            tell(new Event.Kept(step.id(), data));
        } catch (WireException silent) {
            tell(
                    new Event.Refused(
                            step.id(), its.context.description().named(silent.getMessage())));
        }
    }

    private void write(ProcedureRun run, Act.Write write) throws WireException {
        Configuration c = run.procedure().configuration(write.configuration()).orElseThrow();
        Map<String, String> wanted = new LinkedHashMap<>();
        for (Item item : c.items()) {
            Optional.ofNullable(run.data().get(Scene.item(Scene.WANTED, item.id())))
                    .filter(hex -> !item.blank(hex))
                    .ifPresent(hex -> wanted.put(item.id(), hex));
        }
        if (wanted.isEmpty()) {
            throw new Broken("Nothing is known that " + c.name() + " could be told.");
        }
        tools.writes().write(its.context, sessions.of(c.module()), c, wanted, its.who);
    }

    /** The stored codes of some modules, a line each. */
    private String stored(Act.Codes codes) {
        VehicleDescription d = its.context.description();
        List<String> lines = new ArrayList<>();
        for (String module : codes.modules()) {
            ControlModule m = d.module(module).orElseThrow();
            try {
                for (DtcAnswers.Entry e :
                        its.context.link().module(m.address()).codes(ProcedureRuns.STORED)) {
                    String code = new Dtc(e.dtc()).toString();
                    lines.add(
                            m.name()
                                    + ", "
                                    + code
                                    + d.codes().stream()
                                            .filter(
                                                    known ->
                                                            known.code().equals(code)
                                                                    && known.module()
                                                                            .equals(module))
                                            .findFirst()
                                            .map(known -> " " + known.name())
                                            .orElse("")
                                    + ((e.status() & FAILS_NOW) != 0 ? Act.Codes.NOW : ""));
                }
            } catch (WireException silent) {
                lines.add(m.name() + " did not tell its codes: " + d.named(silent.getMessage()));
            }
        }
        return String.join("\n", lines);
    }

    private void carried(Step step, Order order) throws WireException {
        try {
            tell(order.carryOut());
        } catch (NegativeResponseException refused) {
            boolean gates = its.gates.stream().allMatch(GateState::open);
            tell(
                    new Event.Refused(
                            step.id(),
                            its.context.description().named(refused.getMessage())
                                    + (gates && !its.gates.isEmpty()
                                            ? ". Every gate that is described is open, so the module"
                                                    + " has a reason of its own; sweep it for codes."
                                            : "")));
        }
    }

    private Map<String, Double> routine(Procedure.Routine routine, Act.How how)
            throws WireException {
        OutputSession session = sessions.of(routine.module());
        int kind =
                switch (how) {
                    case START -> OutputSession.START;
                    case STOP -> OutputSession.STOP;
                    case RESULT -> OutputSession.ASK;
                };
        Bytes bytes = session.routine(kind, routine.rid(), routine.name());
        Map<String, Double> readings = new LinkedHashMap<>();
        if (how != Act.How.RESULT) {
            return readings;
        }
        int at = 0;
        for (Procedure.Result result : routine.results()) {
            if (at + result.bytes() > bytes.size()) {
                throw new Broken(
                        "%s: its result ends after %s; %s was expected there."
                                .formatted(
                                        routine.name(),
                                        Words.count(bytes.size(), "byte"),
                                        result.name()));
            }
            int raw = 0;
            for (int i = 0; i < result.bytes(); i++) {
                raw = raw << 8 | bytes.at(at + i);
            }
            if (!result.states().isEmpty() && !result.states().containsKey(raw)) {
                throw new Broken(
                        "%s: %s is %d, which is not described."
                                .formatted(routine.name(), result.name(), raw));
            }
            readings.put(Scene.result(routine.id(), result.id()), raw * result.scale());
            at += result.bytes();
        }
        return readings;
    }

    private void waitFor(Step step, Act.Wait wait) throws WireException {
        Map<String, List<double[]>> window = new LinkedHashMap<>();
        List<Procedure.GateRule> wanted =
                List.of(new Procedure.GateRule(wait.when(), wait.until(), wait.when(), ""));
        while (its.inStep() < wait.seconds()) {
            Map<String, Double> now = read(wait.until().values(), window, false);
            its.awaits(GateState.at(wanted, its.context.description(), now).get(0).present());
            if (holds(wait.until(), window)) {
                tell(new Event.Held(step.id()));
                return;
            }
            watch();
            pause();
        }
        tell(new Event.Late(step.id()));
    }

    private static boolean holds(Filter filter, Map<String, List<double[]>> window) {
        double[] times =
                window.values().stream()
                        .flatMapToDouble(s -> s.stream().mapToDouble(p -> p[0]))
                        .distinct()
                        .sorted()
                        .toArray();
        return times.length > 0
                && filter.over(Take.of(window), times)[times.length - 1] == Filter.State.HOLDS;
    }

    private void measure(Step step, Act.Measure measure) throws WireException {
        Map<String, List<double[]>> window = new LinkedHashMap<>();
        Set<String> ids =
                measure.until()
                        .map(
                                f ->
                                        java.util.stream.Stream.concat(
                                                        measure.values().stream(),
                                                        f.values().stream())
                                                .collect(Collectors.toSet()))
                        .orElse(Set.copyOf(measure.values()));
        its.followed = Set.copyOf(measure.values());
        do {
            read(ids, window, true);
            if (measure.until().isPresent() && holds(measure.until().get(), window)) {
                break;
            }
            watch();
            pause();
        } while (its.inStep() < measure.seconds());
        Map<String, Double> readings = new LinkedHashMap<>();
        for (String id : measure.values()) {
            List<double[]> s = window.getOrDefault(id, List.of());
            if (s.isEmpty()) {
                throw new Broken(
                        "%s: no module answered with %s."
                                .formatted(
                                        step.says().isEmpty() ? step.id() : step.says(),
                                        its.context
                                                .description()
                                                .value(id)
                                                .map(Value::name)
                                                .orElse(id)));
            }
            String as = Scene.reading(measure.as(), id);
            var stats = s.stream().mapToDouble(p -> p[1]).summaryStatistics();
            double mean = stats.getAverage();
            readings.put(as, mean);
            readings.put(as + ".least", stats.getMin());
            readings.put(as + ".most", stats.getMax());
            readings.put(
                    as + ".spread",
                    Math.sqrt(
                            s.stream()
                                    .mapToDouble(p -> (p[1] - mean) * (p[1] - mean))
                                    .average()
                                    .orElse(0)));
        }
        tell(new Event.Did(step.id(), readings));
    }

    private Map<String, Double> read(
            Collection<String> ids, Map<String, List<double[]>> window, boolean keep) {
        Map<String, Double> now = its.context.link().read(its.context.description(), ids);
        double t = its.seconds();
        now.forEach(
                (id, v) -> {
                    if (Double.isFinite(v)) {
                        window.computeIfAbsent(id, i -> new ArrayList<>()).add(new double[] {t, v});
                    }
                });
        if (keep) {
            its.sample(t, now);
        }
        return now;
    }

    private static void pause() {
        pause(TICK_MILLIS);
    }

    private static void pause(long millis) {
        try {
            TimeUnit.MILLISECONDS.sleep(millis);
        } catch (InterruptedException ended) {
            Thread.currentThread().interrupt();
        }
    }

    /** The modules that a run commands, each with its session. */
    private final class Sessions implements AutoCloseable {
        private final Map<String, OutputSession> open = new LinkedHashMap<>();
        private double alive;

        OutputSession of(String module) throws WireException {
            OutputSession there = open.get(module);
            if (there == null) {
                there =
                        new OutputSession(
                                its.context.link(),
                                tools.log(),
                                its.context.job(),
                                its.who,
                                its.run().procedure().name(),
                                its.context.description().module(module).orElseThrow().address());
                open.put(module, there);
            }
            return there;
        }

        void giveBack() throws WireException {
            for (OutputSession session : open.values()) {
                session.giveBack();
            }
            // nothing is held any more: no session is kept, and others may command
            close();
            open.clear();
        }

        void check() throws WireException {
            for (OutputSession session : open.values()) {
                session.check();
            }
        }

        void keepAlive() throws WireException {
            if (!open.isEmpty() && its.seconds() - alive > KEEP_ALIVE_SECONDS) {
                alive = its.seconds();
                its.context.link().lease().claim(its.who);
                for (OutputSession session : open.values()) {
                    session.keepAlive();
                }
            }
        }

        /**
         * @throws DataAccessException of the first that could not write its log; all are closed
         */
        @Override
        public void close() {
            DataAccessException first = null;
            for (OutputSession session : open.values()) {
                try {
                    session.close();
                } catch (DataAccessException unkept) {
                    first = first == null ? unkept : first;
                }
            }
            if (first != null) {
                throw first;
            }
        }
    }
}
