package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.link.OutputSession;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.Format;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.Dtc;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.core.filter.Filter;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.Studies;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Value;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.DtcAnswers;
import brightlantern.wire.uds.NegativeResponseException;
import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * Carries procedures out. The run itself is a value of the core; here is what it needs from
 * outside: values, commands, time, somebody at the page. Whatever happens, outputs are given back
 * and routines stopped before the worker ends.
 */
@Component
class ProcedureRuns {
    private static final long TICK_MILLIS = 60;

    /** Between two readings while an output moves. */
    private static final long FAST_MILLIS = 4;

    /** While an output moves, gates are looked at this often, s. */
    private static final double LOOK_SECONDS = 0.15;

    /** Failed since the last clear, pending or confirmed: the code is there. */
    static final int STORED = 0x2C;

    private static final int FAILS_NOW = 0x01;

    /** The page calls once a second; when it has been silent for so long, it is gone. */
    private static final double DEAD_MAN_SECONDS = 5;

    private static final double KEEP_ALIVE_SECONDS = 1.5;

    /** So often a run is looked at while a module takes its time. */
    private static final long ASIDE_MILLIS = 150;

    private final KeptRuns kept;
    private final Findings findings;
    private final CommandLog log;
    private final VehicleLinks links;
    private final Writes writes;
    private final Map<Long, Live> live = new ConcurrentHashMap<>();
    private final ExecutorService workers =
            Executors.newCachedThreadPool(
                    r -> {
                        Thread thread = new Thread(r, "procedure");
                        thread.setDaemon(true);
                        return thread;
                    });

    ProcedureRuns(
            KeptRuns kept, Findings findings, CommandLog log, VehicleLinks links, Writes writes) {
        this.writes = writes;
        this.kept = kept;
        this.findings = findings;
        this.log = log;
        this.links = links;
    }

    /** A run whose job is open here. */
    static final class Live {
        final long id;
        final JobPages.Context context;
        private volatile String who;
        private final long start = System.nanoTime();
        private final Map<String, List<double[]>> samples = new LinkedHashMap<>();
        private final List<Studies.Stay> stays = new ArrayList<>();
        private ProcedureRun run;
        private int events;
        private double entered;
        private volatile long lastPing = System.nanoTime();
        private volatile String stopBecause = "";
        private volatile boolean working;
        private volatile List<GateState> gates = List.of();

        /** Values of the last measurement. */
        private Set<String> followed = Set.of();

        Live(long id, JobPages.Context context, String who, ProcedureRun run, int events) {
            this.id = id;
            this.context = context;
            this.who = who;
            this.run = run;
            this.events = events;
        }

        /** Whoever began it, or went on with it. */
        String who() {
            return who;
        }

        double seconds() {
            return (System.nanoTime() - start) / 1e9;
        }

        synchronized ProcedureRun run() {
            return run;
        }

        synchronized void sample(double t, Map<String, Double> values) {
            values.forEach(
                    (id, v) ->
                            samples.computeIfAbsent(id, i -> new ArrayList<>())
                                    .add(new double[] {t, v}));
        }

        synchronized Take take() {
            return Take.of(samples);
        }

        synchronized List<Studies.Stay> stays() {
            return List.copyOf(stays);
        }

        List<GateState> gates() {
            return gates;
        }

        /** How long the present step has lasted. */
        synchronized double inStep() {
            return seconds() - entered;
        }

        boolean working() {
            return working;
        }
    }

    /** The page is there. */
    void ping(long runId) {
        Optional.ofNullable(live.get(runId)).ifPresent(l -> l.lastPing = System.nanoTime());
    }

    /** Gates of a procedure that is not running. */
    static List<GateState> gates(JobPages.Context context, Procedure procedure) {
        return new GateKeeper(context, procedure.gates()).look();
    }

    /**
     * Begins a procedure.
     *
     * @param then ids of those that follow when it has come to its end
     * @return its number
     * @throws IllegalStateException when a gate is shut, or somebody else commands the vehicle, or
     *     another one that commands is under way
     */
    synchronized long begin(
            JobPages.Context context, Procedure procedure, String who, List<String> then) {
        admit(context, procedure, who);
        long id = kept.begin(context.job().id(), procedure.id(), who, then);
        Live its = new Live(id, context, who, ProcedureRun.begin(procedure), 0);
        live.put(id, its);
        goOn(its);
        return id;
    }

    /**
     * Begins what follows a run; each follows once.
     *
     * @return the number of the next run; empty when nothing follows
     * @throws IllegalStateException as {@link #begin}; it can be tried again then
     */
    synchronized Optional<Long> following(JobPages.Context context, long runId, String who) {
        List<String> then = kept.byId(runId).map(KeptRuns.Kept::following).orElse(List.of());
        if (then.isEmpty()) {
            return Optional.empty();
        }
        Optional<Procedure> next = procedure(context, then.get(0));
        Optional<Long> begun = next.map(p -> begin(context, p, who, then.subList(1, then.size())));
        kept.nothingFollows(runId);
        return begun;
    }

    /** Whoever signs out commands nothing any more. */
    void signedOut(String who) {
        live.values().stream()
                .filter(l -> l.who.equals(who) && l.run().procedure().commands())
                .forEach(l -> stop(l, who + " signed out; all that was held was given back."));
    }

    private void admit(JobPages.Context context, Procedure procedure, String who) {
        if (!procedure.commands()) {
            return;
        }
        live.values().stream()
                .filter(l -> l.context.link() == context.link())
                .filter(l -> l.working && l.run().procedure().commands())
                .findFirst()
                .ifPresent(
                        other -> {
                            throw new IllegalStateException(
                                    "%s is under way, begun by %s. End it first."
                                            .formatted(other.run().procedure().name(), other.who));
                        });
        Optional<String> shut = GateState.whyShut(gates(context, procedure));
        if (shut.isPresent()) {
            throw new IllegalStateException(shut.get());
        }
        context.link().lease().claim(who);
        context.link().lease().release(who);
    }

    /** The run as it stands; empty when there is none with this number. */
    Optional<Live> view(JobPages.Context context, long runId) {
        Live there = live.get(runId);
        if (there != null) {
            return Optional.of(there);
        }
        return kept.byId(runId)
                .filter(k -> k.jobId() == context.job().id())
                .flatMap(k -> procedure(context, k.procedure()).map(p -> loaded(context, k, p)));
    }

    private Optional<Procedure> procedure(JobPages.Context context, String id) {
        return links.procedure(context.job(), id);
    }

    /** A run of an earlier life of the program: what it held was given back by the module. */
    private Live loaded(JobPages.Context context, KeptRuns.Kept k, Procedure procedure) {
        List<KeptRuns.Logged> events = kept.log(k.id());
        ProcedureRun run =
                ProcedureRun.replay(
                        procedure, events.stream().map(KeptRuns.Logged::event).toList());
        Live its = new Live(k.id(), context, k.who(), run, events.size());
        if (!run.running()) {
            return its;
        }
        Live before = live.putIfAbsent(k.id(), its);
        if (before != null) {
            return before;
        }
        if (run.step().act().automatic() || !run.holding().isEmpty()) {
            tell(
                    its,
                    new Event.Stopped(
                            run.at(),
                            "The program was ended meanwhile; the vehicle took its outputs back."));
        }
        return its;
    }

    /** Something that a person did at the page. */
    void told(Live its, Event event) {
        tell(its, event);
        goOn(its);
    }

    void stop(Live its, String why) {
        if (its.working) {
            its.stopBecause = why;
        } else if (its.run().running()) {
            tell(its, new Event.Stopped(its.run().at(), why));
        }
    }

    /**
     * Goes on with a run that was broken off.
     *
     * @throws IllegalStateException as {@link #begin}
     */
    synchronized void resume(Live its, String who) {
        admit(its.context, its.run().procedure(), who);
        its.stopBecause = "";
        its.who = who;
        live.put(its.id, its);
        told(its, new Event.Resumed(its.run().at()));
    }

    private void tell(Live its, Event event) {
        tell(its, event, Optional.empty());
    }

    /**
     * @param more evidence beside the outcome
     */
    private void tell(Live its, Event event, Optional<Evidence> more) {
        List<ProcedureRun.Verdict> news;
        synchronized (its) {
            ProcedureRun before = its.run;
            ProcedureRun after = before.with(event);
            if (after.equals(before)) {
                return;
            }
            kept.add(its.id, its.events++, event);
            if (!after.at().equals(before.at()) || !after.running()) {
                its.stays.add(new Studies.Stay(before.at(), its.entered, its.seconds()));
                its.entered = its.seconds();
            }
            its.run = after;
            news = after.verdicts().subList(before.verdicts().size(), after.verdicts().size());
            if (!after.running()) {
                kept.measured(its.id, its.samples);
                // what has ended is read from its log from now on
                live.remove(its.id);
            }
        }
        news.forEach(v -> found(its, v, more));
    }

    /** A verdict is evidence at once. */
    private void found(Live its, ProcedureRun.Verdict v, Optional<Evidence> more) {
        String name = its.run().procedure().name();
        VehicleDescription d = its.context.description();
        if (more.orElse(null) instanceof Evidence.Run moved) {
            findings.add(
                    its.context.job().id(),
                    "exercise",
                    its.who,
                    v.says(),
                    v.passes(),
                    more,
                    v.reasons());
            return;
        }
        List<Evidence.Outcome> tells =
                v.tells().entrySet().stream()
                        .filter(
                                e ->
                                        d.finding(e.getKey()).stream()
                                                .flatMap(f -> f.outcomes().stream())
                                                .anyMatch(o -> o.id().equals(e.getValue())))
                        .map(e -> new Evidence.Outcome(e.getKey(), e.getValue()))
                        .toList();
        if (tells.isEmpty() && v.passes().isEmpty() && v.reasons().isEmpty()) {
            return;
        }
        findings.add(
                its.context.job().id(),
                "exercise",
                its.who,
                name + ": " + v.says(),
                v.passes(),
                tells.stream().findFirst().map(Evidence.class::cast),
                v.reasons());
        tells.stream()
                .skip(1)
                .forEach(
                        t ->
                                findings.add(
                                        its.context.job().id(),
                                        "exercise",
                                        its.who,
                                        name + ": " + v.says(),
                                        v.passes(),
                                        t));
    }

    private void goOn(Live its) {
        synchronized (its) {
            ProcedureRun run = its.run;
            boolean needed =
                    run.running() && (run.step().act().automatic() || !run.holding().isEmpty());
            if (!needed || its.working) {
                return;
            }
            its.working = true;
            its.lastPing = System.nanoTime();
        }
        workers.execute(() -> work(its));
    }

    /** Ends the worker; says why. */
    private static final class Broken extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Broken(String why) {
            super(why, null, false, false);
        }
    }

    private void work(Live its) {
        Sessions sessions = new Sessions(its);
        String why = "";
        try {
            GateKeeper keeper = new GateKeeper(its.context, its.run().procedure().gates());
            while (its.run().running()) {
                ProcedureRun run = its.run();
                if (!run.step().act().automatic() && run.holding().isEmpty()) {
                    break;
                }
                watch(its, keeper, sessions);
                step(its, run, keeper, sessions);
            }
        } catch (Broken broken) {
            why = broken.getMessage();
        } catch (WireException lost) {
            why =
                    !its.stopBecause.isEmpty()
                            ? its.stopBecause
                            : lost.getMessage() + ". All that was held was given back.";
        } catch (RuntimeException unforeseen) {
            why = "The run broke off: " + unforeseen.getMessage();
        } finally {
            // what is held is given back even when the worker was told to hurry
            boolean ending = Thread.interrupted();
            sessions.close();
            if (ending && workers.isShutdown()) {
                Thread.currentThread().interrupt();
            }
            if (!why.isEmpty()) {
                tell(its, new Event.Stopped(its.run().at(), why));
                findings.note(
                        its.context.job().id(),
                        "exercise",
                        its.who,
                        its.run().procedure().name() + " was broken off: " + why);
            }
            its.working = false;
        }
        // an answer that came while the worker was on its way out
        goOn(its);
    }

    /** Everything that may end a run at any moment. */
    private void watch(Live its, GateKeeper keeper, Sessions sessions) throws WireException {
        people(its);
        its.gates = keeper.look();
        open(its, its.gates, sessions);
        sessions.keepAlive();
    }

    /** Whether somebody wants it to end, or nobody is there any more. */
    private void people(Live its) {
        stopped(its);
        if (workers.isShutdown() || Thread.currentThread().isInterrupted()) {
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
        if (!procedure.mayBeLeft() && (System.nanoTime() - its.lastPing) / 1e9 > DEAD_MAN_SECONDS) {
            throw new Broken("The page went away; all that was held was given back.");
        }
    }

    private static void stopped(Live its) {
        if (!its.stopBecause.isEmpty()) {
            throw new Broken(its.stopBecause);
        }
    }

    private static void open(Live its, List<GateState> gates, Sessions sessions)
            throws WireException {
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
    private Event patiently(Live its, Look look, Order order) throws WireException {
        Thread worker = Thread.currentThread();
        CountDownLatch over = new CountDownLatch(1);
        CompletableFuture<Void> aside =
                CompletableFuture.runAsync(
                        () -> {
                            try {
                                while (!over.await(ASIDE_MILLIS, TimeUnit.MILLISECONDS)) {
                                    look.look();
                                }
                            } catch (Broken | WireException ends) {
                                its.stopBecause = ends.getMessage();
                                worker.interrupt();
                            } catch (InterruptedException ended) {
                                Thread.currentThread().interrupt();
                            }
                        },
                        workers);
        try {
            return order.carryOut();
        } finally {
            over.countDown();
            aside.join();
        }
    }

    private void step(Live its, ProcedureRun run, GateKeeper keeper, Sessions sessions)
            throws WireException {
        Step step = run.step();
        Act act = step.act();
        if (act instanceof Act.Wait wait) {
            waitFor(its, step, wait, keeper, sessions);
        } else if (act instanceof Act.Measure measure) {
            measure(its, step, measure, keeper, sessions);
        } else if (act instanceof Act.Command command) {
            Procedure.Output output = run.procedure().output(command.output()).orElseThrow();
            carried(
                    its,
                    step,
                    () -> {
                        lead(its, command, output, keeper, sessions);
                        return new Event.Did(step.id(), Map.of());
                    });
        } else if (act instanceof Act.Keep keep) {
            keep(its, step, keep);
        } else if (act instanceof Act.Build build) {
            tell(its, new Event.Kept(step.id(), run.built(build, its.context.job().vin())));
        } else if (act instanceof Act.Write write) {
            carried(
                    its,
                    step,
                    // what is half written is worse than what was begun with a gate shut
                    () ->
                            patiently(
                                    its,
                                    () -> stopped(its),
                                    () -> {
                                        write(its, run, write, sessions);
                                        return new Event.Did(step.id(), Map.of());
                                    }));
        } else if (act instanceof Act.Codes codes) {
            tell(its, new Event.Kept(step.id(), Map.of(codes.as(), stored(its, codes))));
        } else if (act instanceof Act.GiveBack) {
            sessions.giveBack();
            tell(its, new Event.Did(step.id(), Map.of()));
        } else if (act instanceof Act.RunRoutine routine) {
            Procedure.Routine described = run.procedure().routine(routine.routine()).orElseThrow();
            // a module that works on a routine answers nothing else meanwhile
            GateKeeper aside = keeper.without(described.module());
            carried(
                    its,
                    step,
                    () ->
                            patiently(
                                    its,
                                    () -> {
                                        people(its);
                                        open(its, aside.look(), sessions);
                                    },
                                    () ->
                                            new Event.Did(
                                                    step.id(),
                                                    routine(sessions, described, routine.how()))));
        } else if (act instanceof Act.Study study) {
            Studies.Verdict v =
                    Studies.judge(
                            study.study(),
                            new Studies.Material(
                                    its.context.description(),
                                    its.take(),
                                    its.stays(),
                                    study.about(),
                                    study.with(),
                                    earlier(its)));
            tell(
                    its,
                    new Event.Judged(step.id(), v.outcome(), v.passes(), v.sentence(), v.reasons()),
                    v.evidence());
        } else {
            // a person is asked while something is held: what was read before goes on being read
            read(its, its.followed, new LinkedHashMap<>(), true);
            pause();
        }
    }

    /** What the actuators of this vehicle did in all its jobs. */
    private List<Studies.Earlier> earlier(Live its) {
        return findings.ofVehicle(its.context.job().vin()).stream()
                .filter(f -> f.evidence().orElse(null) instanceof Evidence.Run)
                .map(
                        f ->
                                new Studies.Earlier(
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
    private void lead(
            Live its,
            Act.Command command,
            Procedure.Output output,
            GateKeeper keeper,
            Sessions sessions)
            throws WireException {
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
                read.put(Studies.SLACK, (after - before) / 2);
                its.sample((before + after) / 2, read);
                if (its.seconds() > nextLook) {
                    watch(its, keeper, sessions);
                    nextLook = its.seconds() + LOOK_SECONDS;
                }
                pause(FAST_MILLIS);
            }
        }
    }

    private void keep(Live its, Step step, Act.Keep keep) {
        Configuration c = its.run().procedure().configuration(keep.configuration()).orElseThrow();
        Map<String, String> data = new LinkedHashMap<>();
        try {
            Writes.read(its.context, c)
                    .forEach((item, hex) -> data.put(Scene.item(keep.as(), item), hex));
            tell(its, new Event.Kept(step.id(), data));
        } catch (WireException silent) {
            tell(its, new Event.Refused(step.id(), silent.getMessage()));
        }
    }

    private void write(Live its, ProcedureRun run, Act.Write write, Sessions sessions)
            throws WireException {
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
        writes.write(its.context, sessions.of(c.module()), c, wanted, its.who);
    }

    /** The stored codes of some modules, a line each. */
    private static String stored(Live its, Act.Codes codes) {
        VehicleDescription d = its.context.description();
        List<String> lines = new ArrayList<>();
        for (String module : codes.modules()) {
            VehicleDescription.Module m = d.module(module).orElseThrow();
            try {
                for (DtcAnswers.Entry e : its.context.link().module(m.address()).codes(STORED)) {
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
                lines.add(m.name() + " did not tell its codes: " + silent.getMessage());
            }
        }
        return String.join("\n", lines);
    }

    private void carried(Live its, Step step, Order order) throws WireException {
        try {
            tell(its, order.carryOut());
        } catch (NegativeResponseException refused) {
            boolean gates = its.gates.stream().allMatch(GateState::open);
            tell(
                    its,
                    new Event.Refused(
                            step.id(),
                            refused.getMessage()
                                    + (gates && !its.gates.isEmpty()
                                            ? ". Every gate that is described is open, so the module"
                                                    + " has a reason of its own; sweep it for codes."
                                            : "")));
        }
    }

    private static Map<String, Double> routine(
            Sessions sessions, Procedure.Routine routine, Act.How how) throws WireException {
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
                        "%s: its result ends after %d byte(s); %s was expected there."
                                .formatted(routine.name(), bytes.size(), result.name()));
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

    private void waitFor(Live its, Step step, Act.Wait wait, GateKeeper keeper, Sessions sessions)
            throws WireException {
        Map<String, List<double[]>> window = new LinkedHashMap<>();
        while (its.inStep() < wait.seconds()) {
            read(its, wait.until().values(), window, false);
            if (holds(wait.until(), window)) {
                tell(its, new Event.Held(step.id()));
                return;
            }
            watch(its, keeper, sessions);
            pause();
        }
        tell(its, new Event.Late(step.id()));
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

    private void measure(
            Live its, Step step, Act.Measure measure, GateKeeper keeper, Sessions sessions)
            throws WireException {
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
            read(its, ids, window, true);
            if (measure.until().isPresent() && holds(measure.until().get(), window)) {
                break;
            }
            watch(its, keeper, sessions);
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
        tell(its, new Event.Did(step.id(), readings));
    }

    private static void read(
            Live its, Collection<String> ids, Map<String, List<double[]>> window, boolean keep) {
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
        private final Live its;
        private final Map<String, OutputSession> open = new LinkedHashMap<>();
        private double alive;

        Sessions(Live its) {
            this.its = its;
        }

        OutputSession of(String module) throws WireException {
            OutputSession there = open.get(module);
            if (there == null) {
                there =
                        new OutputSession(
                                its.context.link(),
                                log,
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

        @Override
        public void close() {
            open.values().forEach(OutputSession::close);
        }
    }

    @PreDestroy
    void close() {
        live.values().stream()
                .filter(l -> l.working)
                .forEach(l -> l.stopBecause = "The program is being ended.");
        workers.shutdown();
        try {
            if (!workers.awaitTermination(3, TimeUnit.SECONDS)) {
                workers.shutdownNow();
            }
        } catch (InterruptedException stopped) {
            workers.shutdownNow();
        }
    }
}
