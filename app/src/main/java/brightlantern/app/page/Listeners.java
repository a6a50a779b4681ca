package brightlantern.app.page;

import brightlantern.app.account.Accounts;
import java.io.IOException;
import java.security.Principal;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** All pages that listen, by the account under which they do; with its sign-in they end. */
@Component
public class Listeners {
    private final Map<String, Set<Listener>> open = new ConcurrentHashMap<>();

    /**
     * A stream to a page.
     *
     * @param ready is given the listener, which may be told things from then on
     * @param end is run when the page is gone, perhaps more than once
     */
    public SseEmitter open(Principal who, Consumer<Listener> ready, Consumer<Listener> end) {
        SseEmitter emitter = new SseEmitter(0L);
        Set<Listener> its = open.computeIfAbsent(who.getName(), n -> ConcurrentHashMap.newKeySet());
        Listener page =
                new Listener(
                        new Listener.Way() {
                            @Override
                            public void send(String name, Object data) throws IOException {
                                emitter.send(SseEmitter.event().name(name).data(data));
                            }

                            @Override
                            public void close() {
                                emitter.complete();
                            }
                        },
                        self -> {
                            its.remove(self);
                            end.accept(self);
                        });
        its.add(page);
        emitter.onCompletion(page::gone);
        emitter.onTimeout(page::gone);
        emitter.onError(e -> page.gone());
        ready.accept(page);
        if (page.isGone()) {
            end.accept(page);
        }
        return emitter;
    }

    @EventListener
    void ended(Accounts.SignInsEnded event) {
        open.getOrDefault(event.name(), Set.of()).forEach(Listener::end);
    }
}
