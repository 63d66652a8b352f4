package awlsmith.server.demo;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Tells how far the demo footage is. */
@RestController
class DemoController {
    private final DemoArchive archive;

    DemoController(DemoArchive archive) {
        this.archive = archive;
    }

    @GetMapping("/api/demo")
    DemoArchive.Making making() {
        return archive.making();
    }
}
