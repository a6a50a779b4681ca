package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.link.LiveFeed;
import brightlantern.app.link.OwnTurns;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.PageEvents;
import brightlantern.core.filter.Filter;
import brightlantern.core.take.Take;
import jakarta.annotation.PreDestroy;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.NestedExceptionUtils;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Records live values, one take a job at a time; four times a second what came in goes to the
 * database. A take may wait for a condition, with the time before it, and may end by one.
 */
@Component
class TakeRecorder {
    private static final Logger LOG = LoggerFactory.getLogger(TakeRecorder.class);

    /** So many small chunks become one. */
    private static final int COMPACT_EVERY = 240;

    /** What a condition may look back, s. */
    private static final double LOOK_BACK = 30;

    /** What cannot be kept (a full disk) waits in memory, up to so many samples. */
    private static final int MOST_WAITING = 4_000_000;

    private final Takes takes;
    private final PageEvents events;
    private final OwnTurns<Long> turns = new OwnTurns<>("take-keeper");
    private final TakeJudge judge;
    private final Map<Long, Recording> recordings = new ConcurrentHashMap<>();

    TakeRecorder(Takes takes, PageEvents events, TakeJudge judge) {
        this.takes = takes;
        this.events = events;
        this.judge = judge;
    }

    /**
     * When a take starts and ends.
     *
     * @param start waits for this; starts at once without
     * @param stop ends by this; by hand without
     * @param before seconds that are kept from before the start
     */
    record Trigger(Optional<Filter> start, Optional<Filter> stop, double before, String told) {
        static Trigger byHand() {
            return new Trigger(Optional.empty(), Optional.empty(), 0, "");
        }
    }

    /** What a job's recording does now. */
    record Status(Optional<Long> takeId, boolean waiting, String told, String trouble) {
        /** What the page says of it. */
        public String words() {
            return waiting
                    ? "Waits: " + told
                    : "Recording; what was recorded is kept from second to second."
                            + (told.isEmpty() ? "" : " It " + told + ".");
        }
    }

    private static final class Recording {
        final JobPages.Context context;
        final String who;
        final String name;
        final String circumstance;
        final Trigger trigger;
        final Map<String, List<double[]>> pending = new LinkedHashMap<>();
        final Deque<LiveFeed.Samples> recent = new ArrayDeque<>();

        /** Held while its pieces are written; readings may come in meanwhile. */
        final Object writing = new Object();

        LiveFeed.Subscription subscription;
        volatile long takeId = -1;
        double start = Double.NaN;
        int chunk;
        int compacted;
        int waitingSamples;
        boolean startedOnce;
        volatile String trouble = "";

        Recording(
                JobPages.Context context,
                String who,
                String name,
                String circumstance,
                Trigger trigger) {
            this.context = context;
            this.who = who;
            this.name = name;
            this.circumstance = circumstance;
            this.trigger = trigger;
        }

        synchronized void add(LiveFeed.Samples samples) {
            recent.addLast(samples);
            double oldest = samples.epochSeconds() - Math.max(LOOK_BACK, trigger.before()) - 1;
            while (!recent.isEmpty() && recent.peekFirst().epochSeconds() < oldest) {
                recent.removeFirst();
            }
            if (takeId >= 0) {
                put(samples);
            }
        }

        void put(LiveFeed.Samples samples) {
            double seconds = samples.epochSeconds() - start;
            if (seconds >= 0 && waitingSamples < MOST_WAITING) {
                samples.values()
                        .forEach(
                                (id, value) ->
                                        pending.computeIfAbsent(id, i -> new ArrayList<>())
                                                .add(new double[] {seconds, value}));
                waitingSamples += samples.values().size();
            }
        }

        synchronized boolean full() {
            return waitingSamples >= MOST_WAITING;
        }

        /** Begins; samples from before belong to it as far back as was asked for. */
        synchronized void begin(long id, double from) {
            start = from;
            takeId = id;
            recent.forEach(this::put);
        }

        /** Whether a condition holds at the newest moment. */
        synchronized boolean holds(Filter filter) {
            if (recent.isEmpty()) {
                return false;
            }
            double zero = recent.peekFirst().epochSeconds();
            Map<String, List<double[]>> rows = new LinkedHashMap<>();
            Set<String> needed = new LinkedHashSet<>(filter.values());
            for (LiveFeed.Samples s : recent) {
                s.values()
                        .forEach(
                                (id, v) -> {
                                    if (needed.contains(id)) {
                                        rows.computeIfAbsent(id, i -> new ArrayList<>())
                                                .add(new double[] {s.epochSeconds() - zero, v});
                                    }
                                });
            }
            Take take = new Take(columns(rows), List.of());
            // looked at whenever any of its values came in, the last time now
            double[] times =
                    rows.values().stream()
                            .flatMap(List::stream)
                            .mapToDouble(r -> r[0])
                            .sorted()
                            .distinct()
                            .toArray();
            if (times.length == 0) {
                return false;
            }
            Filter.State[] states = filter.over(take, times);
            return states[states.length - 1] == Filter.State.HOLDS;
        }

        /** What came in since the last time; it waits on when it cannot be kept. */
        synchronized Map<String, Take.Column> waiting() {
            return columns(pending);
        }

        synchronized void kept(Map<String, Take.Column> columns) {
            columns.forEach(
                    (id, column) -> {
                        List<double[]> rows = pending.get(id);
                        rows.subList(0, column.size()).clear();
                        waitingSamples -= column.size();
                    });
            pending.values().removeIf(List::isEmpty);
        }
    }

    private static Map<String, Take.Column> columns(Map<String, List<double[]>> rows) {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        rows.forEach(
                (id, list) ->
                        columns.put(
                                id,
                                new Take.Column(
                                        list.stream().mapToDouble(r -> r[0]).toArray(),
                                        list.stream().mapToDouble(r -> r[1]).toArray())));
        return columns;
    }

    /** The take that is being recorded, if any. */
    Optional<Long> current(long jobId) {
        return Optional.ofNullable(recordings.get(jobId))
                .filter(r -> r.takeId >= 0)
                .map(r -> r.takeId);
    }

    Status status(long jobId) {
        Recording r = recordings.get(jobId);
        return r == null
                ? new Status(Optional.empty(), false, "", "")
                : new Status(current(jobId), r.takeId < 0, r.trigger.told(), r.trouble);
    }

    double secondsSoFar(long jobId) {
        Recording recording = recordings.get(jobId);
        return recording == null || recording.takeId < 0 ? 0 : LiveFeed.now() - recording.start;
    }

    /** Begins a take, or to wait for what begins it. */
    synchronized void start(
            JobPages.Context context,
            Set<String> ids,
            String who,
            String name,
            String circumstance,
            Trigger trigger) {
        long jobId = context.job().id();
        if (recordings.containsKey(jobId)) {
            return;
        }
        Set<String> all = new LinkedHashSet<>(ids);
        trigger.start().ifPresent(f -> all.addAll(f.values()));
        trigger.stop().ifPresent(f -> all.addAll(f.values()));
        Recording recording = new Recording(context, who, name, circumstance, trigger);
        if (trigger.start().isEmpty()) {
            begin(jobId, recording, 0);
        }
        recording.subscription =
                context.link().feed().subscribe(context.description(), all, recording::add);
        recordings.put(jobId, recording);
    }

    /**
     * @param before seconds before now that belong to it
     */
    private void begin(long jobId, Recording recording, double before) {
        Instant at = Instant.now().minusMillis(Math.round(before * 1000));
        recording.begin(
                takes.start(jobId, recording.name, at, recording.circumstance),
                LiveFeed.now() - before);
        takes.runs(jobId, true);
    }

    void mark(long jobId, String text) {
        Recording recording = recordings.get(jobId);
        if (recording != null && recording.takeId >= 0) {
            takes.mark(recording.takeId, Math.round(secondsSoFar(jobId) * 1000) / 1000.0, text);
        }
    }

    /**
     * Ends the take; its id, if one was running.
     *
     * @throws RuntimeException when its last piece cannot be kept; it waits, and may be stopped
     *     again
     */
    Optional<Long> stop(long jobId) {
        Recording recording = recordings.remove(jobId);
        if (recording == null) {
            return Optional.empty();
        }
        recording.subscription.close();
        synchronized (recording.writing) {
            if (recording.takeId < 0) {
                return Optional.empty();
            }
            try {
                flush(recording);
            } catch (RuntimeException full) {
                recordings.putIfAbsent(jobId, recording);
                throw new IllegalStateException(notKept(full), full);
            }
            compact(recording);
            takes.end(recording.takeId, Instant.now());
            takes.runs(jobId, false);
            return Optional.of(recording.takeId);
        }
    }

    @Scheduled(fixedDelay = 250)
    void flushAll() {
        recordings.forEach((job, recording) -> turns.turn(job, () -> flushOne(job, recording)));
    }

    private void flushOne(long jobId, Recording recording) {
        try {
            synchronized (recording.writing) {
                // whoever stopped it meanwhile has written all of it
                if (recordings.get(jobId) == recording) {
                    step(jobId, recording);
                }
            }
            recording.trouble = "";
        } catch (RuntimeException failed) {
            if (recording.trouble.isEmpty()) {
                LOG.warn(
                        "A piece of take {} could not be kept: {}",
                        recording.takeId,
                        failed.getMessage());
            }
            recording.trouble =
                    notKept(failed)
                            + (recording.full()
                                    ? " The memory for it is full as well: what comes in now is lost."
                                    : "");
        }
    }

    private static String notKept(Throwable failed) {
        return "What is recorded cannot be kept at present ("
                + NestedExceptionUtils.getMostSpecificCause(failed).getMessage()
                + "); it waits in memory and is tried again. Make room on the disk.";
    }

    private void step(long jobId, Recording recording) {
        if (recording.takeId < 0) {
            if (recording.holds(recording.trigger.start().orElseThrow())) {
                begin(jobId, recording, recording.trigger.before());
                takes.mark(
                        recording.takeId, recording.trigger.before(), "started by its condition");
                events.changed(jobId, "recording");
            }
            return;
        }
        flush(recording);
        if (recording.trigger.stop().isPresent()) {
            boolean holds = recording.holds(recording.trigger.stop().orElseThrow());
            // what holds from the beginning has to fail first, or the take would end as it starts
            if (!holds) {
                recording.startedOnce = true;
            } else if (recording.startedOnce) {
                mark(jobId, "stopped by its condition");
                stop(jobId).ifPresent(id -> judge.judge(recording.context, id, recording.who));
                events.changed(jobId, "recording");
            }
        }
    }

    private void flush(Recording recording) {
        Map<String, Take.Column> columns = recording.waiting();
        if (!columns.isEmpty()) {
            takes.append(
                    recording.takeId,
                    recording.chunk,
                    columns,
                    recording.context.description()::value);
            recording.chunk++;
            recording.kept(columns);
        }
        if (recording.chunk - recording.compacted >= COMPACT_EVERY) {
            compact(recording);
        }
    }

    private void compact(Recording recording) {
        takes.compact(
                recording.takeId,
                recording.compacted,
                recording.chunk - 1,
                recording.context.description()::value);
        recording.compacted = recording.chunk;
    }

    @PreDestroy
    void close() {
        turns.close();
        for (long jobId : List.copyOf(recordings.keySet())) {
            try {
                stop(jobId);
            } catch (IllegalStateException lost) {
                // the others must still be ended
                LOG.error("Take of job {}: {}", jobId, lost.getMessage());
            }
        }
    }
}
