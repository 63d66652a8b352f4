package awlsmith.server.events;

import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The one stream of events a page listens to. */
@RestController
@EnableScheduling
class EventController {
    private final EventHub hub;

    EventController(EventHub hub) {
        this.hub = hub;
    }

    @Hidden
    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events() {
        return hub.connect();
    }
}
