package brightlantern.app.page;

import brightlantern.app.job.Findings;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Server-sent events for a job's pages: the top bar every second, and word that something changed.
 */
@Controller
public class PageEvents {
    private final Map<Long, List<Listener>> open = new ConcurrentHashMap<>();
    private final JobPages pages;
    private final Listeners listeners;

    PageEvents(JobPages pages, Listeners listeners) {
        this.pages = pages;
        this.listeners = listeners;
    }

    @GetMapping(path = "/jobs/{id}/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(@PathVariable("id") long id, Principal who) {
        pages.job(id);
        List<Listener> its = open.computeIfAbsent(id, i -> new CopyOnWriteArrayList<>());
        return listeners.open(who, its::add, its::remove);
    }

    /** Tells all pages of a job that a part of it changed: rail, sweep or run; or sweep-done. */
    public void changed(long jobId, String part) {
        tell(jobId, "changed " + part, "changed", part);
    }

    @EventListener
    void found(Findings.Found found) {
        changed(found.jobId(), "rail");
    }

    @Scheduled(fixedDelay = 1000)
    void heads() {
        open.forEach(
                (id, its) -> {
                    if (!its.isEmpty()) {
                        tell(id, "head", "head", pages.head(pages.context(id)));
                    }
                });
    }

    private void tell(long jobId, Object key, String name, Object data) {
        open.getOrDefault(jobId, List.of()).forEach(l -> l.tell(key, name, data));
    }

    @GetMapping("/jobs/{id}/rail")
    String rail(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        model.addAttribute("rail", pages.rail(context));
        return "frame :: rail";
    }
}
