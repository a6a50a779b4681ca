package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.link.LiveFeed;
import brightlantern.app.page.JobPages;
import brightlantern.core.take.Take;
import jakarta.annotation.PreDestroy;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Records live values, one take a job at a time; four times a second what came in goes to the
 * database.
 */
@Component
class TakeRecorder {
    private static final Logger LOG = LoggerFactory.getLogger(TakeRecorder.class);

    private final Takes takes;
    private final Map<Long, Recording> recordings = new ConcurrentHashMap<>();

    TakeRecorder(Takes takes) {
        this.takes = takes;
    }

    private static final class Recording {
        final long takeId;
        final double start;
        final Map<String, List<double[]>> pending = new LinkedHashMap<>();
        LiveFeed.Subscription subscription;
        int chunk;

        Recording(long takeId, double start) {
            this.takeId = takeId;
            this.start = start;
        }

        synchronized void add(LiveFeed.Samples samples) {
            double seconds = samples.epochSeconds() - start;
            if (seconds >= 0) {
                samples.values()
                        .forEach(
                                (id, value) ->
                                        pending.computeIfAbsent(id, i -> new ArrayList<>())
                                                .add(new double[] {seconds, value}));
            }
        }

        synchronized Map<String, Take.Column> drain() {
            Map<String, Take.Column> columns = new LinkedHashMap<>();
            pending.forEach(
                    (id, rows) ->
                            columns.put(
                                    id,
                                    new Take.Column(
                                            rows.stream().mapToDouble(r -> r[0]).toArray(),
                                            rows.stream().mapToDouble(r -> r[1]).toArray())));
            pending.clear();
            return columns;
        }
    }

    /** The take that is being recorded, if any. */
    Optional<Long> current(long jobId) {
        return Optional.ofNullable(recordings.get(jobId)).map(r -> r.takeId);
    }

    double secondsSoFar(long jobId) {
        Recording recording = recordings.get(jobId);
        return recording == null ? 0 : System.currentTimeMillis() / 1000.0 - recording.start;
    }

    synchronized void start(
            JobPages.Context context, Set<String> ids, String name, String circumstance) {
        long jobId = context.job().id();
        if (recordings.containsKey(jobId)) {
            return;
        }
        Instant now = Instant.now();
        Recording recording =
                new Recording(
                        takes.start(jobId, name, now, circumstance), now.toEpochMilli() / 1000.0);
        recording.subscription =
                context.link().feed().subscribe(context.description(), ids, recording::add);
        recordings.put(jobId, recording);
    }

    void mark(long jobId, String text) {
        Recording recording = recordings.get(jobId);
        if (recording != null) {
            takes.mark(recording.takeId, Math.round(secondsSoFar(jobId) * 1000) / 1000.0, text);
        }
    }

    /** Ends the take; its id, if one was running. */
    synchronized Optional<Long> stop(long jobId) {
        Recording recording = recordings.remove(jobId);
        if (recording == null) {
            return Optional.empty();
        }
        recording.subscription.close();
        flush(recording);
        takes.end(recording.takeId, Instant.now());
        return Optional.of(recording.takeId);
    }

    @Scheduled(fixedDelay = 250)
    void flushAll() {
        recordings
                .values()
                .forEach(
                        recording -> {
                            try {
                                flush(recording);
                            } catch (RuntimeException failed) {
                                LOG.warn(
                                        "A piece of take {} could not be kept: {}",
                                        recording.takeId,
                                        failed.getMessage());
                            }
                        });
    }

    private void flush(Recording recording) {
        synchronized (recording) {
            Map<String, Take.Column> columns = recording.drain();
            if (!columns.isEmpty()) {
                takes.append(recording.takeId, recording.chunk++, columns);
            }
        }
    }

    @PreDestroy
    void close() {
        List.copyOf(recordings.keySet()).forEach(this::stop);
    }
}
