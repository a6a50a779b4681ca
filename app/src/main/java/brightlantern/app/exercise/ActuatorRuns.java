package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.link.OutputSession;
import brightlantern.app.page.JobPages;
import brightlantern.core.actuator.ActuatorRun;
import brightlantern.core.procedure.Gate;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription.Actuator;
import brightlantern.core.vehicle.VehicleDescription.Condition;
import brightlantern.core.vehicle.VehicleDescription.Value;
import brightlantern.wire.WireException;
import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * Drives an actuator from low to high a few times and judges it, with gates and a dead man's handle
 * watched throughout.
 */
@Component
class ActuatorRuns {
    private static final double LOW_SECONDS = 1.1;
    private static final double HIGH_SECONDS = 1.3;

    /** Strokes go on until the verdict is sure, but not beyond this many. */
    private static final int MOST_STROKES = 7;

    private static final double GATE_SECONDS = 0.4;

    /** The page calls once a second; when it has been silent for so long, it is gone. */
    private static final double DEAD_MAN_SECONDS = 4;

    /** Until its first call the page gets this much more, to be loaded. */
    private static final double LOADING_SECONDS = 1.5;

    private final Findings findings;
    private final CommandLog log;
    private final Map<Long, Run> runs = new ConcurrentHashMap<>();
    private final ExecutorService workers =
            Executors.newCachedThreadPool(
                    r -> {
                        Thread thread = new Thread(r, "actuator-run");
                        thread.setDaemon(true);
                        return thread;
                    });

    ActuatorRuns(Findings findings, CommandLog log) {
        this.findings = findings;
        this.log = log;
    }

    /** One run, under way or done. Read by pages while its thread writes. */
    static final class Run {
        final Actuator actuator;
        final String who;
        private final List<ActuatorRun.Sample> samples = new ArrayList<>();
        private final long start = System.nanoTime();
        private volatile long lastPing = System.nanoTime() + (long) (LOADING_SECONDS * 1e9);
        private volatile String phase = "Checking the gates";
        private volatile String stoppedBy = "";
        private volatile boolean done;
        private volatile ActuatorRun.Verdict verdict;

        Run(Actuator actuator, String who) {
            this.actuator = actuator;
            this.who = who;
        }

        double seconds() {
            return (System.nanoTime() - start) / 1e9;
        }

        synchronized void add(ActuatorRun.Sample sample) {
            samples.add(sample);
        }

        synchronized List<ActuatorRun.Sample> samples() {
            return List.copyOf(samples);
        }
    }

    /** What the page shows of a run. */
    record View(
            String actuatorId,
            String name,
            String phase,
            boolean done,
            String stoppedBy,
            ActuatorRun.Verdict verdict,
            List<ActuatorRun.Sample> samples) {}

    /** The page that shows the run is alive. */
    void ping(long jobId) {
        Optional.ofNullable(runs.get(jobId)).ifPresent(r -> r.lastPing = System.nanoTime());
    }

    Optional<View> view(long jobId) {
        return Optional.ofNullable(runs.get(jobId))
                .map(
                        r -> {
                            return new View(
                                    r.actuator.id(),
                                    r.actuator.name(),
                                    r.phase,
                                    r.done,
                                    r.stoppedBy,
                                    r.verdict,
                                    r.samples());
                        });
    }

    void stop(long jobId, String why) {
        Run run = runs.get(jobId);
        if (run != null && !run.done) {
            run.stoppedBy = why;
        }
    }

    /** Gates of an actuator as they stand now, read from the vehicle. */
    List<Gate> gates(JobPages.Context context, Actuator actuator) {
        List<String> ids = actuator.gates().stream().map(Condition::value).toList();
        return Gate.read(
                actuator.gates(),
                context.description(),
                context.link().read(context.description(), ids));
    }

    /**
     * Starts a run.
     *
     * @throws IllegalStateException when one is under way, or somebody else commands the vehicle
     */
    synchronized void start(JobPages.Context context, Actuator actuator, String who) {
        Run before = runs.get(context.job().id());
        if (before != null && !before.done) {
            throw new IllegalStateException(
                    before.actuator.name() + " is being driven by " + before.who + " now.");
        }
        context.link().lease().claim(who);
        Run run = new Run(actuator, who);
        runs.put(context.job().id(), run);
        workers.execute(() -> run(context, run));
    }

    private void run(JobPages.Context context, Run run) {
        Actuator actuator = run.actuator;
        try {
            context.link().requireOpen(context.description(), actuator);
            int module = context.description().module(actuator.module()).orElseThrow().address();
            double supply = supply(context);
            try (OutputSession session =
                    new OutputSession(
                            context.link(),
                            log,
                            context.job(),
                            run.who,
                            "drive " + actuator.name(),
                            module)) {
                for (int stroke = 1; stroke <= MOST_STROKES && !sure(run, supply); stroke++) {
                    run.phase = "Stroke " + stroke + ", low";
                    session.drive(actuator, actuator.low());
                    sample(context, run, session, module, run.seconds() + LOW_SECONDS);
                    run.phase = "Stroke " + stroke + ", high";
                    session.drive(actuator, actuator.high());
                    sample(context, run, session, module, run.seconds() + HIGH_SECONDS);
                }
                run.phase = "Giving the output back";
            }
            judge(context, run, supply);
        } catch (WireException | IllegalStateException trouble) {
            run.stoppedBy = trouble.getMessage();
        } catch (RuntimeException broken) {
            run.stoppedBy = "The run broke off: " + broken.getMessage();
        } finally {
            context.link().lease().release(run.who);
            if (!run.stoppedBy.isEmpty()) {
                findings.note(
                        context.job().id(),
                        "exercise",
                        run.who,
                        actuator.name() + " not judged: " + run.stoppedBy);
            }
            run.phase = run.stoppedBy.isEmpty() ? "Done" : "Stopped";
            run.done = true;
        }
    }

    private static boolean sure(Run run, double supply) {
        return ActuatorRun.judge(run.actuator, run.samples(), supply).sure();
    }

    private static double supply(JobPages.Context context) {
        String id = context.description().live().supply();
        return context.link().read(context.description(), List.of(id)).getOrDefault(id, Double.NaN);
    }

    private void sample(
            JobPages.Context context, Run run, OutputSession session, int module, double until)
            throws WireException {
        List<Value> values =
                List.of(
                        context.description().value(run.actuator.command()).orElseThrow(),
                        context.description().value(run.actuator.feedback()).orElseThrow());
        double nextGate = run.seconds() + GATE_SECONDS;
        while (run.seconds() < until) {
            if (!run.stoppedBy.isEmpty()) {
                throw new IllegalStateException(run.stoppedBy);
            }
            if ((System.nanoTime() - run.lastPing) / 1e9 > DEAD_MAN_SECONDS) {
                throw new IllegalStateException("The page went away; the output was given back.");
            }
            session.check();
            double before = run.seconds();
            Map<String, Double> read = context.link().readModule(module, values);
            double after = run.seconds();
            run.add(
                    new ActuatorRun.Sample(
                            (before + after) / 2,
                            (after - before) / 2,
                            read.get(run.actuator.command()),
                            read.get(run.actuator.feedback())));
            if (run.seconds() > nextGate) {
                context.link().requireOpen(context.description(), run.actuator);
                nextGate = run.seconds() + GATE_SECONDS;
            }
            pause();
        }
    }

    private static void pause() {
        try {
            TimeUnit.MILLISECONDS.sleep(4);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(
                    "The program is being stopped; the output was given back.");
        }
    }

    private void judge(JobPages.Context context, Run run, double supply) {
        ActuatorRun.Verdict verdict = ActuatorRun.judge(run.actuator, run.samples(), supply);
        run.verdict = verdict;
        Optional<Evidence> evidence =
                !verdict.judged() || Double.isNaN(supply)
                        ? Optional.empty()
                        : Optional.of(
                                new Evidence.Run(
                                        run.actuator.id(),
                                        List.of(run.actuator.id()),
                                        Double.isFinite(verdict.moveSeconds())
                                                ? verdict.moveSeconds()
                                                : -1,
                                        verdict.deviation(),
                                        supply,
                                        verdict.passed()));
        String figures =
                Double.isFinite(verdict.moveSeconds())
                        ? String.format(
                                java.util.Locale.ROOT,
                                " %.2f s, right is up to %.2f s.",
                                verdict.moveSeconds(),
                                run.actuator.moveSeconds())
                        : "";
        findings.add(
                context.job().id(),
                "exercise",
                run.who,
                verdict.sentence() + figures,
                verdict.judged() ? Optional.of(verdict.passed()) : Optional.empty(),
                evidence,
                run.samples());
    }

    @PreDestroy
    void close() {
        runs.values().forEach(r -> r.stoppedBy = "The program is being stopped.");
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
