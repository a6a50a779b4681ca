package brightlantern.app.sweep;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.FoundModules;
import brightlantern.app.job.Job;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.PageEvents;
import brightlantern.core.network.ControlModule;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.vehicle.UnknownVehicle;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import jakarta.annotation.PreDestroy;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/** Runs sweeps in the background: modules in parallel, each kept as soon as it is known. */
@Component
class SweepRunner {
    /** So many modules are asked without waiting for a thread: starting one takes about 1 ms. */
    private static final int AT_ONCE = 160;

    private static final int MOST_AT_ONCE = 4 * AT_ONCE;

    private static final long KEEP_NANOS = 300_000_000L;

    /** Keeping may take one part in so many of the time. */
    private static final long KEEPING_SHARE = 20;

    /** How often the silent ones are asked once more at the end. */
    private static final int SILENT_AGAIN = 2;

    private final Sweeps sweeps;
    private final Findings findings;
    private final PageEvents events;
    private final SweepFindings told;
    private final CommandLog log;
    private final Map<Long, Running> running = new ConcurrentHashMap<>();
    private final ExecutorService workers = Executors.newCachedThreadPool(SweepRunner::thread);

    private final ThreadPoolExecutor askers =
            new ThreadPoolExecutor(
                    AT_ONCE,
                    MOST_AT_ONCE,
                    1,
                    TimeUnit.MINUTES,
                    new SynchronousQueue<>(),
                    SweepRunner::thread,
                    new ThreadPoolExecutor.CallerRunsPolicy());
    private final FoundModules foundModules;

    SweepRunner(
            Sweeps sweeps,
            Findings findings,
            PageEvents events,
            SweepFindings told,
            CommandLog log,
            FoundModules foundModules) {
        this.log = log;
        this.foundModules = foundModules;
        workers.execute(askers::prestartAllCoreThreads);
        this.told = told;
        this.sweeps = sweeps;
        this.findings = findings;
        this.events = events;
    }

    private static Thread thread(Runnable work) {
        Thread thread = new Thread(work, "sweep");
        thread.setDaemon(true);
        return thread;
    }

    /** A sweep under way. */
    private static final class Running {
        final long sweepId;
        final String who;
        final Set<String> asking = ConcurrentHashMap.newKeySet();
        final boolean cleared;
        volatile boolean stopped;
        volatile AddressSearch search;
        long kept = System.nanoTime();
        long keeping;
        Sweep sweep;

        Running(long sweepId, String who, Sweep sweep, boolean cleared) {
            this.cleared = cleared;
            this.sweepId = sweepId;
            this.who = who;
            this.sweep = sweep;
        }
    }

    boolean isRunning(long jobId) {
        return running.containsKey(jobId);
    }

    /** How far the search for modules of a vehicle without description has come. */
    Optional<String> searching(long jobId) {
        return Optional.ofNullable(running.get(jobId))
                .flatMap(r -> Optional.ofNullable(r.search))
                .map(AddressSearch::progress);
    }

    /** Modules that are being asked at this moment. */
    Set<String> asking(long jobId) {
        Running now = running.get(jobId);
        return now == null ? Set.of() : Set.copyOf(now.asking);
    }

    /**
     * Starts a sweep, or goes on with the newest one if it was left halfway and {@code resume} is
     * wanted.
     *
     * @param search whether to look for modules anew, where no description tells of them
     */
    synchronized void start(JobPages.Context context, String who, boolean resume, boolean search) {
        Job job = context.job();
        if (running.containsKey(job.id())) {
            return;
        }
        Optional<Sweeps.Kept> newest = sweeps.newest(job.id());
        boolean cleared = !log.times(job.id(), CommandLog.CLEAR).isEmpty();
        Running now;
        // what is not read as a whole cannot be gone on with without losing the rest of it
        if (resume && newest.filter(k -> k.leftOut() == 0).isPresent()) {
            List<ModuleResult> again =
                    newest.get().sweep().modules().stream()
                            .map(
                                    m ->
                                            m.answer() == Answer.ANSWERED
                                                    ? m
                                                    : ModuleResult.notAsked(
                                                            m.moduleId(), m.name(), m.bus()))
                            .toList();
            now =
                    new Running(
                            newest.get().id(),
                            who,
                            new Sweep(newest.get().sweep().started(), Optional.empty(), again),
                            cleared);
        } else {
            Sweep sweep =
                    new Sweep(Instant.now(), Optional.empty(), notAsked(context.description()));
            now = new Running(sweeps.add(job.id(), sweep), who, sweep, cleared);
            if (!context.description().isKnown()
                    && (search || context.description().modules().isEmpty())) {
                now.search = new AddressSearch();
            }
        }
        running.put(job.id(), now);
        workers.execute(() -> run(search(context, now), now));
    }

    private static List<ModuleResult> notAsked(VehicleDescription description) {
        return description.modules().stream()
                .map(m -> ModuleResult.notAsked(m.id(), m.name(), m.bus()))
                .toList();
    }

    /** The same job with the modules that were found, where none are described. */
    private JobPages.Context search(JobPages.Context context, Running now) {
        if (now.search == null) {
            return context;
        }
        Job job = context.job();
        try {
            now.search.run(context.link().transport(), () -> now.stopped);
        } catch (WireException lost) {
            findings.note(job.id(), "sweep", now.who, lost.getMessage() + ".");
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
        foundModules.add(job.vin(), now.search.found());
        now.search = null;
        JobPages.Context found =
                new JobPages.Context(
                        job, UnknownVehicle.describe(foundModules.of(job.vin())), context.link());
        now.sweep = new Sweep(now.sweep.started(), Optional.empty(), notAsked(found.description()));
        return found;
    }

    void stop(long jobId) {
        Running now = running.get(jobId);
        if (now != null) {
            now.stopped = true;
        }
    }

    private void run(JobPages.Context context, Running now) {
        // every module takes one request at a time, and all of them at once: their buses and answer
        // times set the pace, not this program
        try {
            askAll(context, now, Set.of(Answer.NOT_ASKED), false);
            // a module that flickers may answer the next time, and a connection may be back
            for (int again = 0; again < SILENT_AGAIN; again++) {
                askAll(
                        context,
                        now,
                        Set.of(Answer.SILENT, Answer.FAULTY),
                        again == SILENT_AGAIN - 1);
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        } catch (ExecutionException broken) {
            findings.note(
                    context.job().id(),
                    "sweep",
                    now.who,
                    "The sweep broke off: " + broken.getCause());
        } finally {
            finish(context, now);
        }
    }

    private void askAll(JobPages.Context context, Running now, Set<Answer> which, boolean patient)
            throws InterruptedException, ExecutionException {
        List<Future<?>> asked = new ArrayList<>();
        for (ModuleResult module : now.sweep.modules()) {
            if (which.contains(module.answer())) {
                asked.add(askers.submit(() -> ask(context, now, module, patient)));
            }
        }
        for (Future<?> one : asked) {
            one.get();
        }
    }

    private void ask(JobPages.Context context, Running now, ModuleResult module, boolean patient) {
        if (now.stopped) {
            return;
        }
        now.asking.add(module.moduleId());
        events.changed(context.job().id(), "sweep");
        ControlModule described = context.description().module(module.moduleId()).orElseThrow();
        ModuleResult result =
                ModuleAsker.ask(
                        context.link(), context.description(), described, patient, now.cleared);
        now.asking.remove(module.moduleId());
        synchronized (now) {
            List<ModuleResult> modules =
                    now.sweep.modules().stream()
                            .map(m -> m.moduleId().equals(result.moduleId()) ? result : m)
                            .toList();
            now.sweep = new Sweep(now.sweep.started(), Optional.empty(), modules);
            // a large sweep is long to write: what came in is kept a few times a second
            long begun = System.nanoTime();
            if (begun - now.kept > Math.max(KEEP_NANOS, KEEPING_SHARE * now.keeping)) {
                sweeps.update(now.sweepId, now.sweep);
                now.kept = System.nanoTime();
                now.keeping = now.kept - begun;
            }
        }
        events.changed(context.job().id(), "sweep");
    }

    private void finish(JobPages.Context context, Running now) {
        Job job = context.job();
        synchronized (now) {
            if (now.sweep.whole()) {
                now.sweep =
                        new Sweep(
                                now.sweep.started(),
                                Optional.of(Instant.now()),
                                now.sweep.modules());
            }
            sweeps.update(now.sweepId, now.sweep);
        }
        told.tell(context, now.who, now.sweep, now.cleared);
        running.remove(job.id());
        events.changed(job.id(), "sweep");
        events.changed(job.id(), "sweep-done");
    }

    @PreDestroy
    void close() {
        running.values().forEach(r -> r.stopped = true);
        workers.shutdownNow();
        askers.shutdownNow();
    }
}
