package awlsmith.server.events;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Sends what changes to every open page as server-sent events. Events carry whole states, so a page that missed some
 * (a lost connection, a restart) only has to read the lists once when it is connected again: the first event of every
 * connection, {@code hello}, tells it to.
 */
@Component
public class EventHub {
    private final List<SseEmitter> pages = new CopyOnWriteArrayList<>();

    SseEmitter connect() {
        var page = new SseEmitter(0L);
        page.onCompletion(() -> pages.remove(page));
        page.onError(gone -> pages.remove(page));
        pages.add(page);
        send(page, SseEmitter.event().name("hello").data("{}").reconnectTime(1000));
        return page;
    }

    /** @param name of the event; @param state written as JSON */
    public void publish(String name, Object state) {
        for (SseEmitter page : pages) {
            send(page, SseEmitter.event().name(name).data(state));
        }
    }

    /** Finds out about pages that went without a word, and keeps proxies from closing quiet connections. */
    @Scheduled(fixedRate = 15_000)
    void keepAlive() {
        for (SseEmitter page : pages) {
            send(page, SseEmitter.event().comment("still here"));
        }
    }

    private void send(SseEmitter page, SseEmitter.SseEventBuilder event) {
        try {
            page.send(event);
        } catch (IOException | IllegalStateException e) {
            pages.remove(page);
        }
    }
}
