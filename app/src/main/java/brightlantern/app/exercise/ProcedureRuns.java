package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import jakarta.annotation.PreDestroy;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;

/**
 * Carries procedures out. The run itself is a value of the core; here is what it needs from
 * outside: values, commands, time, somebody at the page. Whatever happens, outputs are given back
 * and routines stopped before the worker ends.
 */
@Component
class ProcedureRuns {
    /** What is longer than this is read on the run's own page. */
    private static final int MOST_FIGURES = 400;

    /** Failed since the last clear, pending or confirmed: the code is there. */
    static final int STORED = 0x2C;

    private final KeptRuns kept;
    private final Findings findings;
    private final VehicleLinks links;
    private final ProcedureWorker.Tools tools;
    private final Map<Long, LiveRun> live = new ConcurrentHashMap<>();
    private final ExecutorService workers =
            Executors.newCachedThreadPool(
                    r -> {
                        Thread thread = new Thread(r, "procedure");
                        thread.setDaemon(true);
                        return thread;
                    });

    ProcedureRuns(
            KeptRuns kept, Findings findings, CommandLog log, VehicleLinks links, Writes writes) {
        this.tools = new ProcedureWorker.Tools(findings, log, writes);
        this.kept = kept;
        this.findings = findings;
        this.links = links;
    }

    /** The page is there. */
    void ping(long runId) {
        Optional.ofNullable(live.get(runId)).ifPresent(LiveRun::ping);
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
        LiveRun its = new LiveRun(id, context, who, ProcedureRun.begin(procedure), 0);
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
                .forEach(l -> stop(l, who + " signed out."));
    }

    private void admit(JobPages.Context context, Procedure procedure, String who) {
        if (!procedure.commands()) {
            return;
        }
        context.description().modules().stream()
                .filter(m -> context.link().isLeftAlone(m.address()))
                .findFirst()
                .ifPresent(
                        m -> {
                            throw new IllegalStateException(
                                    m.name()
                                            + " has not confirmed that everything went back. It is asked"
                                            + " nothing for some seconds, so that its session ends by"
                                            + " itself; try again then.");
                        });
        live.values().stream()
                .filter(l -> l.context.link() == context.link())
                .filter(l -> l.working() && l.run().procedure().commands())
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
    Optional<LiveRun> view(JobPages.Context context, long runId) {
        LiveRun there = live.get(runId);
        if (there != null) {
            String why = there.stillUnwritten();
            if (!why.isEmpty()) {
                writeEnd(there, why);
            }
            return Optional.of(there);
        }
        return kept.byId(runId)
                .filter(k -> k.jobId() == context.job().id())
                .flatMap(k -> procedure(context, k.procedure()).map(p -> loaded(context, k, p)));
    }

    private void writeEnd(LiveRun its, String why) {
        try {
            tell(its, new Event.Stopped(its.run().at(), why));
        } catch (DataAccessException again) {
            its.brokeOff(why);
            throw again;
        }
    }

    private Optional<Procedure> procedure(JobPages.Context context, String id) {
        return links.procedure(context.job(), id);
    }

    /** A run of an earlier life of the program: what it held was given back by the module. */
    private LiveRun loaded(JobPages.Context context, KeptRuns.Kept k, Procedure procedure) {
        List<KeptRuns.Logged> events = kept.log(k.id());
        ProcedureRun run =
                ProcedureRun.replay(
                        procedure, events.stream().map(KeptRuns.Logged::event).toList());
        LiveRun its = new LiveRun(k.id(), context, k.who(), run, events.size());
        if (!run.running()) {
            return its;
        }
        LiveRun before = live.putIfAbsent(k.id(), its);
        if (before != null) {
            return before;
        }
        if (run.step().act().automatic() || !run.holding().isEmpty()) {
            tell(
                    its,
                    new Event.Stopped(
                            run.at(),
                            "The program was ended meanwhile. A module ends by itself what it was told when it hears nothing for some seconds; look whether it has."));
        }
        return its;
    }

    /** Something that a person did at the page. */
    void told(LiveRun its, Event event) {
        tell(its, event);
        goOn(its);
    }

    void stop(LiveRun its, String why) {
        if (its.working()) {
            its.end(why);
        } else if (its.run().running()) {
            tell(its, new Event.Stopped(its.run().at(), why));
        }
    }

    /**
     * Goes on with a run that was broken off.
     *
     * @throws IllegalStateException as {@link #begin}
     */
    synchronized void resume(LiveRun its, String who) {
        admit(its.context, its.run().procedure(), who);
        its.end("");
        its.who = who;
        live.put(its.id, its);
        told(its, new Event.Resumed(its.run().at()));
    }

    private void tell(LiveRun its, Event event) {
        tell(its, event, Optional.empty());
    }

    /**
     * @param more evidence beside the outcome
     */
    private void tell(LiveRun its, Event event, Optional<Evidence> more) {
        List<ProcedureRun.Verdict> news = its.tell(event, kept);
        if (!its.run().running()) {
            // what has ended is read from its log from now on
            live.remove(its.id);
        }
        news.forEach(v -> found(its, v, more));
    }

    /** A verdict is evidence at once. */
    private void found(LiveRun its, ProcedureRun.Verdict v, Optional<Evidence> more) {
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
                    v.reasons(),
                    "");
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
                name + ": " + v.says() + figures(v),
                v.passes(),
                tells.stream().findFirst().map(Evidence.class::cast),
                v.reasons(),
                "procedure " + its.run().procedure().id());
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

    /** The figures behind a verdict belong into the finding, so that reports tell them. */
    private static String figures(ProcedureRun.Verdict v) {
        String all =
                v.reasons().stream()
                        .map(r -> r.replaceAll("[.]$", ""))
                        .collect(Collectors.joining("; "));
        return all.isEmpty() || all.length() > MOST_FIGURES ? "" : " (" + all + ")";
    }

    private void goOn(LiveRun its) {
        if (its.takeOn()) {
            workers.execute(
                    () -> {
                        new ProcedureWorker(
                                        its,
                                        tools,
                                        workers,
                                        (event, more) -> tell(its, event, more))
                                .work();
                        // an answer that came while the worker was on its way out
                        goOn(its);
                    });
        }
    }

    @PreDestroy
    void close() {
        live.values().stream()
                .filter(LiveRun::working)
                .forEach(l -> l.end("The program is being ended."));
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
