package brightlantern.app.sweep;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.code.StandardCodes;
import brightlantern.core.network.ControlModule;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.DtcAnswers;
import jakarta.annotation.PreDestroy;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * After a clear and a key cycle: asks all modules for their codes over and over, and notes which
 * came back in which order. What comes back first is the lead.
 */
@Component
class ComeBack {
    private static final int STATUS_MASK = 0x2F;
    private static final long PERIOD_MILLIS = 1500;

    /** Who looks away for so long has left. */
    private static final long ALONE_NANOS = 120_000_000_000L;

    private final CommandLog log;
    private final Findings findings;
    private final Map<Long, Watch> watches = new ConcurrentHashMap<>();

    ComeBack(CommandLog log, Findings findings) {
        this.log = log;
        this.findings = findings;
    }

    /** Where one stands. */
    enum Step {
        CLEAR,
        KEY_OFF_AND_ON,
        LISTEN,
        LISTENING
    }

    /**
     * A code that came back.
     *
     * @param seconds after the listening began
     */
    record Back(String module, String code, String name, double seconds) {}

    /** Listening under way or ended. */
    static final class Watch {
        private final long start = System.nanoTime();
        private final Instant since = Instant.now();
        private final List<Back> back = new ArrayList<>();
        private final Set<String> seen = ConcurrentHashMap.newKeySet();
        private final ScheduledExecutorService clock;
        private volatile long lookedAt = System.nanoTime();
        private volatile boolean running = true;

        Watch(int modules) {
            clock =
                    Executors.newScheduledThreadPool(
                            modules,
                            r -> {
                                Thread thread = new Thread(r, "come-back");
                                thread.setDaemon(true);
                                return thread;
                            });
        }

        boolean running() {
            return running;
        }

        double seconds() {
            return (System.nanoTime() - start) / 1e9;
        }

        synchronized List<Back> back() {
            return List.copyOf(back);
        }

        private synchronized void add(Back code) {
            back.add(code);
        }

        private void stop() {
            running = false;
            clock.shutdownNow();
        }
    }

    Optional<Watch> of(long jobId) {
        Optional<Watch> watch = Optional.ofNullable(watches.get(jobId));
        watch.ifPresent(w -> w.lookedAt = System.nanoTime());
        return watch;
    }

    /** The next thing to do, from what the log has seen. */
    Step step(long jobId) {
        Optional<Instant> clear = newest(log.times(jobId, CommandLog.CLEAR));
        Optional<Instant> key = newest(log.times(jobId, CommandLog.KEY));
        Watch watch = watches.get(jobId);
        if (watch != null
                && watch.running
                && clear.map(c -> c.isBefore(watch.since)).orElse(false)) {
            return Step.LISTENING;
        }
        if (clear.isEmpty()) {
            return Step.CLEAR;
        }
        return key.map(k -> k.isAfter(clear.get())).orElse(false)
                ? Step.LISTEN
                : Step.KEY_OFF_AND_ON;
    }

    private static Optional<Instant> newest(List<Instant> times) {
        return times.stream().max(Instant::compareTo);
    }

    synchronized void start(JobPages.Context context, Set<String> fitted) {
        long jobId = context.job().id();
        Optional.ofNullable(watches.get(jobId)).ifPresent(Watch::stop);
        List<ControlModule> modules =
                context.description().modules().stream()
                        .filter(m -> fitted.contains(m.id()))
                        .toList();
        Watch watch = new Watch(Math.max(1, modules.size()));
        for (ControlModule module : modules) {
            watch.clock.scheduleWithFixedDelay(
                    () -> ask(context, watch, module), 0, PERIOD_MILLIS, TimeUnit.MILLISECONDS);
        }
        watches.put(jobId, watch);
    }

    private static void ask(JobPages.Context context, Watch watch, ControlModule module) {
        if (System.nanoTime() - watch.lookedAt > ALONE_NANOS) {
            watch.stop();
            return;
        }
        try {
            List<DtcAnswers.Entry> codes =
                    context.link().module(module.address()).codes(STATUS_MASK);
            for (DtcAnswers.Entry entry : codes) {
                Dtc dtc = new Dtc(entry.dtc());
                if (watch.seen.add(module.id() + " " + dtc)) {
                    watch.add(
                            new Back(
                                    module.name(),
                                    dtc.toString(),
                                    context.description()
                                            .code(module.id(), dtc.toString())
                                            .map(Code::name)
                                            .orElseGet(() -> StandardCodes.meaning(dtc)),
                                    watch.seconds()));
                }
            }
        } catch (WireException silent) {
            // whoever does not answer now is asked again in a moment
        }
    }

    /** Ends it and keeps the order as a finding. */
    void stop(JobPages.Context context, String who) {
        Watch watch = watches.get(context.job().id());
        if (watch == null || !watch.running) {
            return;
        }
        watch.stop();
        List<Back> back = watch.back();
        String text =
                back.isEmpty()
                        ? String.format(
                                Locale.ROOT,
                                "Cleared, key off and on, listened for %.0f s: nothing came back.",
                                watch.seconds())
                        : "Came back after the clear, in this order: "
                                + String.join(
                                        ", ",
                                        back.stream()
                                                .limit(8)
                                                .map(
                                                        b ->
                                                                String.format(
                                                                        Locale.ROOT,
                                                                        "%s (%s, %.0f s)",
                                                                        b.code(),
                                                                        b.module(),
                                                                        b.seconds()))
                                                .toList())
                                + (back.size() > 8 ? " and " + (back.size() - 8) + " more." : ".");
        findings.add(
                context.job().id(),
                "sweep",
                who,
                text,
                Optional.of(back.isEmpty()),
                Optional.empty(),
                back);
    }

    @PreDestroy
    void close() {
        watches.values().forEach(Watch::stop);
    }
}
