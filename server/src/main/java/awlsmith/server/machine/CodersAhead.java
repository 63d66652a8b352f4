package awlsmith.server.machine;

import awlsmith.media.HardwareCoders;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Finds out what codes on this machine before somebody asks: each trial takes FFmpeg a moment. */
@Component
class CodersAhead {
    @EventListener(ApplicationReadyEvent.class)
    void look() {
        Thread.ofVirtual().name("coders-ahead").start(HardwareCoders::words);
    }
}
