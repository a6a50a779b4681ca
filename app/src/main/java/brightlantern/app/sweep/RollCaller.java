package brightlantern.app.sweep;

import brightlantern.app.page.JobPages;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.RollCall;
import brightlantern.wire.WireException;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * Asks every module again and again whether it is there, each a little more than twice a second, as
 * long as a page looks on.
 */
@Component
class RollCaller {
    private static final long PERIOD_MILLIS = 420;

    /** A module that is there answers in a few hundredths of a second. */
    private static final Duration WITHIN = Duration.ofMillis(350);

    /** Answers that count as "now", for the flickering. */
    private static final int RECENT = 20;

    /** A page asks once a second; when none has for so long, the calling ends. */
    private static final long ALONE_NANOS = 15_000_000_000L;

    private static final double STEADY = 0.97;

    private final Map<Long, Call> calls = new ConcurrentHashMap<>();

    /** What is known of one module. */
    static final class Heard {
        private int asked;
        private int answered;
        private int askedRunning;
        private int answeredRunning;
        private double millis;
        private final Deque<Boolean> recent = new ArrayDeque<>();
        private String before = "";
        private int changes;

        synchronized void add(boolean there, double took, boolean engineRuns) {
            asked++;
            answered += there ? 1 : 0;
            askedRunning += engineRuns ? 1 : 0;
            answeredRunning += engineRuns && there ? 1 : 0;
            if (there) {
                millis = millis == 0 ? took : 0.8 * millis + 0.2 * took;
            }
            recent.addLast(there);
            if (recent.size() > RECENT) {
                recent.removeFirst();
            }
            String now = there ? "there" : "away";
            if (!before.isEmpty() && !before.equals(now)) {
                changes++;
            }
            before = now;
        }

        synchronized RollCall.Tally tally() {
            return new RollCall.Tally(asked, answered);
        }

        /** Only those calls that fell into the time in which the engine ran. */
        synchronized RollCall.Tally running() {
            return new RollCall.Tally(askedRunning, answeredRunning);
        }

        /** Share of the last answers; NaN before the first. */
        synchronized double rateNow() {
            return recent.isEmpty()
                    ? Double.NaN
                    : (double) recent.stream().filter(b -> b).count() / recent.size();
        }

        synchronized double millis() {
            return answered == 0 ? Double.NaN : millis;
        }

        /** How often it came or went, for the sound. */
        synchronized int changes() {
            return changes;
        }

        synchronized String state() {
            double rate = rateNow();
            return Double.isNaN(rate)
                    ? "waiting"
                    : rate >= STEADY ? "answered" : rate <= 1 - STEADY ? "silent" : "flickering";
        }
    }

    /** A roll call under way or ended. */
    static final class Call {
        final String who;
        private final Map<String, Heard> heard = new LinkedHashMap<>();
        private final ScheduledExecutorService clock;
        private volatile long lookedAt = System.nanoTime();
        private volatile boolean running = true;

        Call(String who, int modules) {
            this.who = who;
            this.clock =
                    Executors.newScheduledThreadPool(
                            modules,
                            r -> {
                                Thread thread = new Thread(r, "roll-call");
                                thread.setDaemon(true);
                                return thread;
                            });
        }

        boolean running() {
            return running;
        }

        Map<String, Heard> heard() {
            return heard;
        }

        Map<String, RollCall.Tally> tallies() {
            Map<String, RollCall.Tally> tallies = new LinkedHashMap<>();
            heard.forEach((m, h) -> tallies.put(m, h.tally()));
            return tallies;
        }

        void stop() {
            running = false;
            clock.shutdownNow();
        }
    }

    Optional<Call> of(long jobId) {
        Call call = calls.get(jobId);
        if (call != null) {
            call.lookedAt = System.nanoTime();
        }
        return Optional.ofNullable(call);
    }

    /** Begins anew; what was heard before is forgotten, unless it was kept. */
    synchronized void start(JobPages.Context context, Set<String> fitted, String who) {
        stop(context.job().id());
        List<ControlModule> modules =
                context.description().modules().stream()
                        .filter(m -> fitted.contains(m.id()))
                        .filter(m -> !m.id().equals(Network.GATEWAY))
                        .toList();
        Call call = new Call(who, modules.size());
        long offset = 0;
        for (ControlModule module : modules) {
            call.heard.put(module.id(), new Heard());
            // spread over the period, so that a bus is never asked all at once
            call.clock.scheduleAtFixedRate(
                    () -> ask(context, call, module), offset, PERIOD_MILLIS, TimeUnit.MILLISECONDS);
            offset = (offset + PERIOD_MILLIS / 7) % PERIOD_MILLIS;
        }
        calls.put(context.job().id(), call);
    }

    private static void ask(JobPages.Context context, Call call, ControlModule module) {
        if (System.nanoTime() - call.lookedAt > ALONE_NANOS) {
            call.stop();
            return;
        }
        long start = System.nanoTime();
        boolean there;
        try {
            context.link().module(module.address()).present(WITHIN);
            there = true;
        } catch (WireException away) {
            there = false;
        } catch (RuntimeException unexpected) {
            // a thread of the clock that throws would never ask again
            there = false;
        }
        if (call.running) {
            call.heard
                    .get(module.id())
                    .add(
                            there,
                            (System.nanoTime() - start) / 1e6,
                            context.link().status().engineRuns());
        }
    }

    void stop(long jobId) {
        Optional.ofNullable(calls.get(jobId)).ifPresent(Call::stop);
    }

    @PreDestroy
    void close() {
        calls.values().forEach(Call::stop);
    }
}
