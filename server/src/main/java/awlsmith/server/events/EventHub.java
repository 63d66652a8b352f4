package awlsmith.server.events;

import awlsmith.server.signin.SignedOut;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BooleanSupplier;
import org.springframework.context.event.EventListener;
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
    private final List<Page> pages = new CopyOnWriteArrayList<>();

    /** @param open whether the session it belongs to is still signed in */
    private record Page(String session, SseEmitter stream, BooleanSupplier open) {}

    /** @param open asked now and then whether the session is still signed in; the stream ends with it */
    SseEmitter connect(String session, BooleanSupplier open) {
        var page = new Page(session, new SseEmitter(0L), open);
        page.stream().onCompletion(() -> pages.remove(page));
        page.stream().onError(gone -> pages.remove(page));
        pages.add(page);
        send(page, SseEmitter.event().name("hello").data("{}").reconnectTime(1000));
        return page.stream();
    }

    @EventListener
    void end(SignedOut event) {
        pages.stream().filter(page -> page.session().equals(event.session())).forEach(this::end);
    }

    private void end(Page page) {
        pages.remove(page);
        page.stream().complete();
    }

    /** @param name of the event; @param state written as JSON */
    public void publish(String name, Object state) {
        for (Page page : pages) {
            send(page, SseEmitter.event().name(name).data(state));
        }
    }

    /** Finds out about pages that went without a word, and keeps proxies from closing quiet connections. */
    @Scheduled(fixedRate = 15_000)
    void keepAlive() {
        for (Page page : pages) {
            if (isOpen(page)) {
                send(page, SseEmitter.event().comment("still here"));
            } else {
                end(page);
            }
        }
    }

    private static boolean isOpen(Page page) {
        try {
            return page.open().getAsBoolean();
        } catch (RuntimeException e) {
            // the database is away: nothing is known against it
            return true;
        }
    }

    private void send(Page page, SseEmitter.SseEventBuilder event) {
        try {
            page.stream().send(event);
        } catch (IOException | IllegalStateException e) {
            pages.remove(page);
        }
    }
}
