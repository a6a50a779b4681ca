package brightlantern.app.capture;

import brightlantern.app.job.Instruments;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.OwnTurns;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.HeldValue;
import brightlantern.wire.WireException;
import brightlantern.wire.scpi.Oscilloscope;
import brightlantern.wire.scpi.ScopeProfile;
import brightlantern.wire.scpi.ScpiClient;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Records captures: sets the instrument up as a plan says, waits for its trigger, and fetches what
 * is there while it goes on, so that nothing older than a second can be lost.
 */
@Component
class CaptureRecorder implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(CaptureRecorder.class);

    private static final Duration WAIT = Duration.ofSeconds(4);
    private static final long LOOK_MILLIS = 250;

    /** A module that is silent for longer would leave a gap that looks like a steady value, s. */
    private static final double SILENT_SECONDS = 4;

    /** While live values are asked as well it is looked more often. */
    private static final long ASK_MILLIS = 100;

    /** Nobody comes to turn the key any more. */
    private static final double LONGEST_WAIT_SECONDS = 180;

    private final Captures captures;
    private final CaptureJudge judge;
    private final Jobs jobs;
    private final VehicleLinks links;
    private final Instruments instruments;
    private final ScopeProfile profile = ScopeProfile.standard();
    private final OwnTurns<Long> turns = new OwnTurns<>("capture");
    private final Map<Long, Going> going = new ConcurrentHashMap<>();

    CaptureRecorder(
            Captures captures,
            CaptureJudge judge,
            Jobs jobs,
            VehicleLinks links,
            Instruments instruments) {
        this.instruments = instruments;
        this.captures = captures;
        this.judge = judge;
        this.jobs = jobs;
        this.links = links;
    }

    /**
     * How a recording stands.
     *
     * @param state waiting, recording, done, or failed
     * @param captureId empty before something was recorded
     */
    record Status(String state, String words, Optional<Long> captureId) {
        public boolean goesOn() {
            return state.equals("waiting") || state.equals("recording");
        }
    }

    private static final class Going {
        private volatile Status status =
                new Status("waiting", "Setting the instrument up …", Optional.empty());
        private volatile boolean stop;
    }

    /** How the newest recording of a job stands; empty when there was none since the start. */
    Optional<Status> status(long jobId) {
        return Optional.ofNullable(going.get(jobId)).map(g -> g.status);
    }

    void stop(long jobId) {
        Optional.ofNullable(going.get(jobId)).ifPresent(g -> g.stop = true);
    }

    /**
     * Begins to record.
     *
     * @throws IllegalStateException when a recording of this job goes on
     */
    synchronized void start(
            long jobId, CapturePlan plan, InetSocketAddress instrument, String who) {
        if (status(jobId).filter(Status::goesOn).isPresent()) {
            throw new IllegalStateException(
                    "A capture of this job is being recorded. Stop it first.");
        }
        Going mine = new Going();
        going.put(jobId, mine);
        turns.turn(jobId, () -> record(jobId, plan, instrument, who, mine));
    }

    private void record(
            long jobId, CapturePlan plan, InetSocketAddress at, String who, Going mine) {
        Recording recording = new Recording(jobId, plan, who, mine);
        try (Oscilloscope scope = new Oscilloscope(new ScpiClient(at, WAIT), profile)) {
            recording.prepare(scope);
            recording.fetch(scope);
            name(jobId, scope);
            recording.ended("");
        } catch (WireException lost) {
            recording.ended(lost.getMessage() + ".");
        } catch (RuntimeException broken) {
            recording.ended("The program itself broke off: " + broken.getMessage());
            throw broken;
        }
    }

    private void name(long jobId, Oscilloscope scope) {
        try {
            instruments.used(jobId, "Oscilloscope", scope.identity());
        } catch (WireException nameless) {
            // what was recorded stays, whatever it calls itself
            LOG.info("An oscilloscope of job {} does not say its name", jobId, nameless);
        }
    }

    /** One recording from set-up to verdict. */
    private final class Recording {
        private final long jobId;
        private final CapturePlan plan;
        private final String who;
        private final Going mine;
        private Optional<Long> id = Optional.empty();
        private final List<HeldValue> held = new ArrayList<>();
        private long began;
        private int fetched;
        private int parts;

        Recording(long jobId, CapturePlan plan, String who, Going mine) {
            this.jobId = jobId;
            this.plan = plan;
            this.who = who;
            this.mine = mine;
            plan.follows().forEach(f -> held.add(new HeldValue()));
        }

        /**
         * Asks the modules for what is followed beside the lanes.
         *
         * @throws WireException when one of them has been silent for too long
         */
        private void ask() throws WireException {
            if (plan.follows().isEmpty()) {
                return;
            }
            Job job = jobs.byId(jobId).orElseThrow();
            List<String> ids = plan.follows().stream().map(CapturePlan.Followed::value).toList();
            Map<String, Double> now = links.link(job).read(links.description(job), ids);
            double seconds = (System.nanoTime() - began) / 1e9;
            for (int i = 0; i < held.size(); i++) {
                held.get(i).answered(seconds, now.getOrDefault(ids.get(i), Double.NaN));
                if (held.get(i).silentSince(seconds) > SILENT_SECONDS) {
                    throw new WireException(
                            "Its module does not tell '%s' (no answer for %.0f s); what was recorded before is kept"
                                    .formatted(plan.follows().get(i).name(), SILENT_SECONDS));
                }
            }
        }

        void prepare(Oscilloscope scope) throws WireException {
            scope.reset();
            for (int i = 0; i < plan.lanes().size(); i++) {
                CapturePlan.Probe probe = plan.lanes().get(i);
                scope.connect(i + 1, probe.place(), probe.range());
            }
            scope.prepare(plan.interval(), plan.points(), (int) (plan.before() * plan.points()));
            if (plan.trigger().isPresent()) {
                scope.startAt(plan.trigger().get().lane(), plan.trigger().get().level());
            } else {
                scope.start();
            }
            began = System.nanoTime();
        }

        void fetch(Oscilloscope scope) throws WireException {
            Oscilloscope.State state = scope.state();
            while (state != Oscilloscope.State.DONE || fetched < scope.acquired()) {
                if (mine.stop) {
                    scope.stop();
                    take(scope);
                    return;
                }
                if (state == Oscilloscope.State.WAITING) {
                    waits((System.nanoTime() - began) / 1e9);
                } else {
                    ask();
                    if (held.stream().allMatch(HeldValue::isKnown)) {
                        take(scope);
                    }
                }
                pause(plan.follows().isEmpty() ? LOOK_MILLIS : ASK_MILLIS);
                state = scope.state();
            }
        }

        private void waits(double seconds) throws WireException {
            mine.status =
                    new Status("waiting", "The instrument waits: crank now.", Optional.empty());
            if (seconds > LONGEST_WAIT_SECONDS) {
                throw new WireException(
                        "Nothing happened in %.0f s: the lane that starts it never rose to its level"
                                .formatted(LONGEST_WAIT_SECONDS));
            }
        }

        private void take(Oscilloscope scope) throws WireException {
            int there = scope.acquired();
            if (id.isEmpty() && there > 0) {
                List<Captures.LaneHead> heads = new ArrayList<>();
                for (int i = 0; i < plan.lanes().size(); i++) {
                    CapturePlan.Probe probe = plan.lanes().get(i);
                    Oscilloscope.Preamble steps = scope.preamble(i + 1);
                    heads.add(
                            new Captures.LaneHead(
                                    probe.name(),
                                    probe.role(),
                                    probe.role().unit(),
                                    probe.told(),
                                    steps.scale(),
                                    steps.offset()));
                }
                plan.follows()
                        .forEach(
                                f ->
                                        heads.add(
                                                new Captures.LaneHead(
                                                        f.name(),
                                                        f.role(),
                                                        f.role().unit(),
                                                        "live value of its module",
                                                        1,
                                                        0)));
                id =
                        Optional.of(
                                captures.begin(
                                        jobId,
                                        plan.id(),
                                        plan.name(),
                                        who,
                                        plan.interval(),
                                        heads));
            }
            while (fetched < there) {
                int count = Math.min(Oscilloscope.MOST, there - fetched);
                List<short[]> lanes = new ArrayList<>();
                for (int i = 0; i < plan.lanes().size(); i++) {
                    lanes.add(scope.fetch(i + 1, fetched, count));
                }
                for (HeldValue value : held) {
                    lanes.add(value.steps(plan.interval(), fetched, count));
                }
                captures.append(id.orElseThrow(), parts++, lanes);
                fetched += count;
            }
            mine.status =
                    new Status(
                            "recording",
                            String.format(
                                    Locale.ROOT,
                                    "Recording: %.1f of %.0f s.",
                                    fetched * plan.interval(),
                                    plan.seconds()),
                            id);
        }

        /** What was kept stays, and is judged, however it ended. */
        void ended(String trouble) {
            id.ifPresent(i -> captures.end(i, trouble));
            String found =
                    id.flatMap(i -> captures.head(jobId, i))
                            .map(h -> judge.file(h, who))
                            .orElse("");
            mine.status =
                    trouble.isEmpty()
                            ? new Status(
                                    "done",
                                    id.isPresent()
                                            ? "Recorded. " + found
                                            : "Stopped before anything was recorded.",
                                    id)
                            : new Status("failed", trouble, id);
        }
    }

    private static void pause(long millis) throws WireException {
        try {
            TimeUnit.MILLISECONDS.sleep(millis);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new WireException("The recording was cancelled");
        }
    }

    @Override
    public void close() {
        going.values().forEach(g -> g.stop = true);
        turns.close();
    }
}
