package awlsmith.server.clips;

import awlsmith.server.problem.Refusal;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Clips over HTTP. */
@RestController
@RequestMapping("/api/clips")
class ClipController {
    private final Clips clips;

    ClipController(Clips clips) {
        this.clips = clips;
    }

    record Rename(String title) {}

    /** @param clip null for no reference; @param known the last one again */
    record Reference(@Nullable UUID clip, @Nullable Boolean known) {}

    @GetMapping
    List<ClipView> clips() {
        return clips.all();
    }

    @GetMapping("/{id}")
    ClipView clip(@PathVariable UUID id) {
        return clips.view(id);
    }

    /** The file itself is the request's body. */
    @Hidden
    @PostMapping(consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    ClipView takeIn(@RequestParam String name, HttpServletRequest request) throws IOException {
        return clips.takeIn(name, request.getContentLengthLong(), request.getInputStream());
    }

    @PatchMapping("/{id}")
    ClipView rename(@PathVariable UUID id, @RequestBody Rename rename) {
        return clips.rename(id, rename.title());
    }

    /** The clip that shows the same scene clean, to compare with. */
    @PutMapping("/{id}/reference")
    ClipView refer(@PathVariable UUID id, @RequestBody Reference reference) {
        return Boolean.TRUE.equals(reference.known()) ? clips.referAgain(id) : clips.refer(id, reference.clip());
    }

    /** A copy in a sound container, as a clip of its own. */
    @PostMapping("/{id}/repair")
    @ResponseStatus(HttpStatus.CREATED)
    ClipView repair(@PathVariable UUID id, @RequestParam(defaultValue = "false") boolean fill) {
        return clips.repair(id, fill);
    }

    /** @param clips in their order; @param title of the new one, null for the first one's */
    record Join(List<UUID> clips, @Nullable String title) {}

    /** Several one behind another as they are, as a clip of its own. */
    @PostMapping("/join")
    @ResponseStatus(HttpStatus.CREATED)
    ClipView join(@RequestBody Join join) {
        return clips.join(join.clips(), join.title());
    }

    /** Those that were put aside and can be taken back. */
    @GetMapping("/aside")
    List<ClipView> aside() {
        return clips.aside();
    }

    @PostMapping("/{id}/aside")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putAside(@PathVariable UUID id) {
        clips.putAside(id);
    }

    @PostMapping("/{id}/back")
    ClipView takeBack(@PathVariable UUID id) {
        return clips.takeBack(id);
    }

    /** For good. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        clips.remove(id);
    }

    @Hidden
    @GetMapping(path = "/{id}/thumbs/{number}", produces = MediaType.IMAGE_PNG_VALUE)
    ResponseEntity<byte[]> thumb(@PathVariable UUID id, @PathVariable int number) throws IOException {
        Path file = clips.thumb(id, number);
        if (number < 0 || number >= TakeIn.THUMBS || !Files.exists(file)) {
            throw Refusal.unknown("this thumbnail");
        }
        return ResponseEntity.ok()
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
                .body(Files.readAllBytes(file));
    }
}
