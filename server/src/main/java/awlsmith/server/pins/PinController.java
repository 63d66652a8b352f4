package awlsmith.server.pins;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Pins over HTTP. */
@RestController
class PinController {
    private final Pins pins;

    PinController(Pins pins) {
        this.pins = pins;
    }

    record Drop(@Nullable String name, int frame, double x, double y, double width, double height) {}

    record Change(
            @Nullable String name,
            @Nullable Integer frame,
            @Nullable Double x,
            @Nullable Double y,
            @Nullable Double width,
            @Nullable Double height) {}

    @GetMapping("/api/clips/{clip}/pins")
    List<PinView> pins(@PathVariable UUID clip) {
        return pins.of(clip);
    }

    @PostMapping("/api/clips/{clip}/pins")
    PinView drop(@PathVariable UUID clip, @RequestBody Drop drop) {
        return pins.add(clip, drop.name(), drop.frame(), drop.x(), drop.y(), drop.width(), drop.height());
    }

    @PatchMapping("/api/pins/{id}")
    PinView change(@PathVariable UUID id, @RequestBody Change change) {
        PinView now = pins.view(id);
        return pins.change(new PinView(
                id,
                now.clipId(),
                change.name() == null ? now.name() : change.name(),
                change.frame() == null ? now.frame() : change.frame(),
                change.x() == null ? now.x() : change.x(),
                change.y() == null ? now.y() : change.y(),
                change.width() == null ? now.width() : change.width(),
                change.height() == null ? now.height() : change.height()));
    }

    @DeleteMapping("/api/pins/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        pins.remove(id);
    }
}
