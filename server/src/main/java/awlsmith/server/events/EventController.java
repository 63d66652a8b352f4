package awlsmith.server.events;

import awlsmith.server.signin.SignedIn;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpSession;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.springframework.session.SessionRepository;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The one stream of events a page listens to. */
@RestController
@EnableScheduling
class EventController {
    private final EventHub hub;
    private final SessionRepository<?> sessions;
    private final SignedIn signedIn;

    EventController(EventHub hub, SessionRepository<?> sessions, SignedIn signedIn) {
        this.signedIn = signedIn;
        this.hub = hub;
        this.sessions = sessions;
    }

    @Hidden
    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(HttpSession session) {
        String id = session.getId();
        Object mark = session.getAttribute(SignedIn.MARK);
        return hub.connect(id, () -> sessions.findById(id) != null && signedIn.isStill(mark));
    }
}
