package brightlantern.app.watch;

import brightlantern.app.link.LiveFeed;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Listener;
import brightlantern.app.page.Listeners;
import brightlantern.core.signal.RangeDwell;
import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.StudyNeeds;
import java.security.Principal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The live values of a page, sent as they come. */
@Controller
@RequestMapping("/jobs/{id}/watch")
class LiveStreamController {
    private static final long SEND_MILLIS = 80;

    private final JobPages pages;
    private final Listeners listeners;
    private final ScheduledExecutorService clock =
            Executors.newScheduledThreadPool(
                    2,
                    r -> {
                        Thread thread = new Thread(r, "watch-stream");
                        thread.setDaemon(true);
                        return thread;
                    });

    LiveStreamController(JobPages pages, Listeners listeners) {
        this.pages = pages;
        this.listeners = listeners;
    }

    /**
     * One value at one moment, in the unit in which it is shown.
     *
     * @param text ready to be read
     * @param verdict in, out, or empty when no range applies now
     */
    record Point(String id, double t, double v, String text, String verdict) {}

    /**
     * What came since the last one.
     *
     * @param now seconds since 1970
     * @param troubles in words
     */
    record Frame(List<Point> points, double now, List<String> troubles) {}

    @GetMapping(path = "/stream", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter stream(
            @PathVariable("id") long id, @RequestParam("v") List<String> ids, Principal who) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        ConcurrentLinkedQueue<LiveFeed.Samples> queue = new ConcurrentLinkedQueue<>();
        Map<String, Value> shown = new LinkedHashMap<>();
        ids.forEach(v -> d.value(v).ifPresent(value -> shown.put(v, value)));
        Set<String> wanted = StudyNeeds.withRanges(d, shown.keySet());
        LiveFeed.Subscription subscription = context.link().feed().subscribe(d, wanted, queue::add);
        Map<String, Double> newest = new HashMap<>();
        Map<String, RangeDwell> dwells = new HashMap<>();
        AtomicReference<ScheduledFuture<?>> ticking = new AtomicReference<>();
        Consumer<Listener> send =
                page -> {
                    List<Point> points = new ArrayList<>();
                    for (LiveFeed.Samples s = queue.poll(); s != null; s = queue.poll()) {
                        newest.putAll(s.values());
                        for (Map.Entry<String, Double> e : s.values().entrySet()) {
                            Value value = shown.get(e.getKey());
                            if (value != null) {
                                double t = s.epochSeconds();
                                points.add(point(value, t, e.getValue(), newest, dwells));
                            }
                        }
                    }
                    page.tell(new Object(), "values", frame(context, points));
                };
        return listeners.open(
                who,
                page -> ticking.set(every(() -> send.accept(page))),
                page -> {
                    subscription.close();
                    Optional.ofNullable(ticking.get()).ifPresent(t -> t.cancel(false));
                });
    }

    private ScheduledFuture<?> every(Runnable tick) {
        return clock.scheduleWithFixedDelay(tick, SEND_MILLIS, SEND_MILLIS, TimeUnit.MILLISECONDS);
    }

    private static Frame frame(JobPages.Context context, List<Point> points) {
        return new Frame(
                points,
                LiveFeed.now(),
                context.link().feed().troubles().values().stream()
                        .map(context.description()::named)
                        .toList());
    }

    private static Point point(
            Value value,
            double t,
            double raw,
            Map<String, Double> now,
            Map<String, RangeDwell> dwells) {
        RangeDwell.Told verdict =
                RangeVerdict.of(value, now)
                        .map(r -> r.inside() ? RangeDwell.Told.IN : RangeDwell.Told.OUT)
                        .orElse(RangeDwell.Told.NOT_JUDGED);
        return new Point(
                value.id(),
                t,
                Scaling.shown(value, raw),
                Scaling.show(value, raw),
                told(
                        value.ranges().isEmpty()
                                ? RangeDwell.Told.NOT_JUDGED
                                : dwells.computeIfAbsent(value.id(), v -> new RangeDwell())
                                        .after(verdict, t)));
    }

    /** The word of the page for it. */
    private static String told(RangeDwell.Told told) {
        return switch (told) {
            case IN -> "in";
            case OUT -> "out";
            case NOT_JUDGED -> "";
        };
    }
}
