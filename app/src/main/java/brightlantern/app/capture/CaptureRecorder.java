package brightlantern.app.capture;

import brightlantern.app.job.Instruments;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.OwnTurns;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.HeldValue;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneDelay;
import brightlantern.wire.WireException;
import brightlantern.wire.scpi.CommandProfile;
import brightlantern.wire.scpi.Oscilloscope;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
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

    /** What is not needed, and was not told for so long, is left out, s. */
    private static final double GOES_WITHOUT_SECONDS = 1.5;

    /** While live values are asked as well it is looked more often. */
    private static final long ASK_MILLIS = 100;

    /** Instruments that were started together begin so far apart at most, s. */
    private static final double MOST_DELAY = 0.1;

    /** Nobody comes to turn the key any more. */
    private static final double LONGEST_WAIT_SECONDS = 180;

    private final Captures captures;
    private final CaptureJudge judge;
    private final Jobs jobs;
    private final VehicleLinks links;
    private final Instruments instruments;
    private final CommandProfile profile =
            CommandProfile.standard(CommandProfile.Kind.OSCILLOSCOPE);
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
     * @param seconds that were recorded
     */
    record Status(String state, String words, Optional<Long> captureId, double seconds) {
        public boolean goesOn() {
            return state.equals("waiting") || state.equals("recording");
        }
    }

    private static final class Going {
        private volatile Status status =
                new Status("waiting", "Setting the instrument up …", Optional.empty(), 0);
        private volatile boolean stop;

        private volatile Lasted lasted = new Lasted(0, System.nanoTime());
    }

    /**
     * How far the instrument had come when it was looked at last, by its own clock: one that begins
     * late, or runs by another clock, would put a mark beside what it belongs to.
     *
     * @param seconds it had taken samples of
     * @param at when it said so, by the system's nanoseconds
     */
    private record Lasted(double seconds, long at) {
        /** What it has come to since; it stands where none was taken yet. */
        double now() {
            return seconds == 0 ? 0 : seconds + (System.nanoTime() - at) / 1e9;
        }
    }

    /** Seconds of the newest recording that are over, by the instrument's own clock. */
    double seconds(long jobId) {
        return going.get(jobId).lasted.now();
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
    synchronized void start(long jobId, CapturePlan plan, List<InetSocketAddress> at, String who) {
        if (status(jobId).filter(Status::goesOn).isPresent()) {
            throw new IllegalStateException(
                    "A capture of this job is being recorded. Stop it first.");
        }
        Going mine = new Going();
        going.put(jobId, mine);
        turns.turn(jobId, () -> record(jobId, plan, at, who, mine));
    }

    private void record(
            long jobId, CapturePlan plan, List<InetSocketAddress> at, String who, Going mine) {
        Recording recording = new Recording(jobId, plan, who, mine);
        try (JoinedScopes scopes = new JoinedScopes(plan, at, WAIT, profile)) {
            recording.prepare(scopes);
            recording.fetch(scopes);
            name(jobId, scopes);
            recording.ended("");
        } catch (WireException lost) {
            recording.ended(lost.getMessage() + ".");
        } catch (RuntimeException broken) {
            recording.ended("The program itself broke off: " + broken.getMessage());
            throw broken;
        }
    }

    private void name(long jobId, JoinedScopes scopes) {
        try {
            scopes.identities().forEach(i -> instruments.used(jobId, "Oscilloscope", i));
        } catch (WireException nameless) {
            // what was recorded stays, whatever it calls itself
            LOG.info("An oscilloscope of job {} does not say its name", jobId, nameless);
        }
    }

    /** A live value that is asked meanwhile. */
    private record Following(CapturePlan.Followed of, HeldValue held) {
        Following(CapturePlan.Followed of) {
            this(of, new HeldValue(of.step()));
        }

        Captures.LaneHead head() {
            return new Captures.LaneHead(
                    of.name(),
                    of.role(),
                    of.role().unit(),
                    "live value of its module",
                    of.step(),
                    0);
        }
    }

    /** One recording from set-up to verdict. */
    private final class Recording {
        private final long jobId;
        private final CapturePlan plan;
        private final String who;
        private final Going mine;
        private JoinedScopes joined;
        private Optional<Long> id = Optional.empty();
        private final List<Following> followed = new ArrayList<>();
        private long began;
        private int fetched;
        private int parts;

        Recording(long jobId, CapturePlan plan, String who, Going mine) {
            this.jobId = jobId;
            this.plan = plan;
            this.who = who;
            this.mine = mine;
            plan.follows().forEach(f -> followed.add(new Following(f)));
        }

        /**
         * Asks the modules for what is followed beside the lanes.
         *
         * @throws WireException when one of them has been silent for too long
         */
        private void ask() throws WireException {
            if (followed.isEmpty()) {
                return;
            }
            Job job = jobs.byId(jobId).orElseThrow();
            List<String> ids = followed.stream().map(f -> f.of().value()).toList();
            Map<String, Double> now = links.link(job).read(links.description(job), ids);
            double seconds = (System.nanoTime() - began) / 1e9;
            for (Following f : followed) {
                f.held().answered(seconds, now.getOrDefault(f.of().value(), Double.NaN));
                if (f.of().needed() && f.held().silentSince(seconds) > SILENT_SECONDS) {
                    throw new WireException(
                            "Its module does not tell '%s' (no answer for %.0f s); what was recorded before is kept"
                                    .formatted(f.of().name(), SILENT_SECONDS));
                }
            }
            if (id.isEmpty() && seconds > GOES_WITHOUT_SECONDS) {
                followed.removeIf(f -> !f.of().needed() && !f.held().isKnown());
            }
        }

        void prepare(JoinedScopes scopes) throws WireException {
            joined = scopes;
            scopes.begin();
            began = System.nanoTime();
        }

        void fetch(JoinedScopes scopes) throws WireException {
            Oscilloscope.State state = scopes.state();
            while (state != Oscilloscope.State.DONE || fetched < scopes.acquired()) {
                if (mine.stop) {
                    scopes.stop();
                    take(scopes);
                    return;
                }
                if (state == Oscilloscope.State.WAITING) {
                    waits((System.nanoTime() - began) / 1e9);
                } else {
                    ask();
                    if (followed.stream().allMatch(f -> f.held().isKnown())) {
                        take(scopes);
                    }
                }
                pause(followed.isEmpty() ? LOOK_MILLIS : ASK_MILLIS);
                state = scopes.state();
            }
        }

        private void waits(double seconds) throws WireException {
            mine.status =
                    new Status("waiting", "The instrument waits: crank now.", Optional.empty(), 0);
            if (seconds > LONGEST_WAIT_SECONDS) {
                throw new WireException(
                        "Nothing happened in %.0f s: the lane that starts it never rose to its level"
                                .formatted(LONGEST_WAIT_SECONDS));
            }
        }

        private void take(JoinedScopes scopes) throws WireException {
            int there = scopes.acquired();
            mine.lasted = new Lasted(there * plan.interval(), System.nanoTime());
            if (id.isEmpty() && there > 0) {
                List<Captures.LaneHead> heads = new ArrayList<>();
                for (JoinedScopes.Connected lane : scopes.lanes()) {
                    CapturePlan.Probe probe = lane.probe();
                    Oscilloscope.Preamble steps = scopes.preamble(lane);
                    heads.add(
                            new Captures.LaneHead(
                                    lane.name(),
                                    probe.role(),
                                    probe.role().unit(),
                                    probe.told(),
                                    steps.scale(),
                                    steps.offset()));
                }
                followed.forEach(f -> heads.add(f.head()));
                id =
                        Optional.of(
                                captures.record(
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
                for (JoinedScopes.Connected lane : scopes.lanes()) {
                    lanes.add(scopes.fetch(lane, fetched, count));
                }
                for (Following f : followed) {
                    lanes.add(f.held().steps(plan.interval(), fetched, count));
                }
                captures.append(id.orElseThrow(), parts++, lanes);
                fetched += count;
                mine.status = recording();
            }
            mine.status = recording();
        }

        private Status recording() {
            double seconds = fetched * plan.interval();
            return new Status(
                    "recording",
                    String.format(
                            Locale.ROOT, "Recording: %.1f of %.0f s.", seconds, plan.seconds()),
                    id,
                    seconds);
        }

        /** Moves lanes of further instruments by what they began later; what is told of it. */
        private String aligned(Captures.Head head) {
            Optional<Capture> capture = captures.open(head).map(Captures.Opened::capture);
            if (joined == null || joined.instruments() < 2 || capture.isEmpty()) {
                return "";
            }
            List<Double> late = new ArrayList<>(Collections.nCopies(head.lanes().size(), 0.0));
            StringBuilder told = new StringBuilder();
            for (int scope = 1; scope < joined.instruments(); scope++) {
                List<Lane> lanes = capture.get().lanes();
                Optional<Integer> by =
                        LaneDelay.of(
                                lanes.get(joined.shared()),
                                lanes.get(joined.sharedOf(scope)),
                                (int) (MOST_DELAY / plan.interval()));
                double seconds = by.map(b -> b * plan.interval()).orElse(Double.NaN);
                for (int i = 0; i < joined.lanes().size(); i++) {
                    late.set(i, joined.lanes().get(i).scope() == scope ? seconds : late.get(i));
                }
                told.append(
                        by.isPresent()
                                ? String.format(
                                        Locale.ROOT,
                                        "Instrument %d began %+.2f ms against the first; its lanes are moved by that. ",
                                        scope + 1,
                                        1000 * seconds)
                                : String.format(
                                        Locale.ROOT,
                                        "By how much instrument %d began later cannot be told: what both see is not alike, or repeats itself; enter it below the capture. ",
                                        scope + 1));
            }
            captures.late(head, late);
            return told.toString();
        }

        /**
         * What was kept stays, and is judged, however it ended. Who looks at it sees it as ended
         * once what was found is filed.
         */
        void ended(String trouble) {
            try {
                judged(trouble);
            } finally {
                id.ifPresent(captures::settled);
            }
        }

        private void judged(String trouble) {
            id.ifPresent(i -> captures.end(i, trouble));
            String delays = id.flatMap(i -> captures.head(jobId, i)).map(this::aligned).orElse("");
            String found =
                    delays
                            + id.flatMap(i -> captures.head(jobId, i))
                                    .map(h -> judge.file(h, who))
                                    .orElse("");
            mine.status =
                    trouble.isEmpty()
                            ? new Status(
                                    "done",
                                    id.isPresent()
                                            ? "Recorded. " + found
                                            : "Stopped before anything was recorded.",
                                    id,
                                    fetched * plan.interval())
                            : new Status("failed", trouble, id, fetched * plan.interval());
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
