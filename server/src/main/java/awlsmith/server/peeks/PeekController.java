package awlsmith.server.peeks;

import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.time.Duration;
import java.util.UUID;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Small pictures over HTTP. */
@RestController
@RequestMapping("/api/clips/{clip}/peeks")
class PeekController {
    private final PeekPictures peeks;

    PeekController(PeekPictures peeks) {
        this.peeks = peeks;
    }

    /** Which there are; where there are none yet, they are made. */
    @GetMapping
    PeeksView peeks(@PathVariable UUID clip) {
        return peeks.view(clip);
    }

    @Hidden
    @GetMapping(path = "/{number}", produces = MediaType.IMAGE_JPEG_VALUE)
    ResponseEntity<byte[]> picture(@PathVariable UUID clip, @PathVariable int number) throws IOException {
        return ResponseEntity.ok()
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
                .body(peeks.picture(clip, number));
    }
}
