package awlsmith.server.stills;

import awlsmith.core.picture.Region;
import awlsmith.core.recipe.Recipe;
import awlsmith.render.Jpeg;
import io.swagger.v3.oas.annotations.Hidden;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Stills over HTTP, as PNG; or as JPEG for a first look over a slow line. */
@RestController
@RequestMapping("/api/clips/{id}/stills")
class StillController {
    private final Stills stills;

    StillController(Stills stills) {
        this.stills = stills;
    }

    /**
     * @param frame of the source; @param later output frames after the first one made of it
     * @param recipe in its open form; none shows the source
     * @param part of the treated picture in its own pixels; none shows all of it
     * @param viewer a name the page makes up for each side it shows
     * @param reference shows the clip's reference instead of the clip
     * @param marked paints what lies beyond black and white in colours of its own
     * @param held how many of the recipe's first steps are not being changed: what they make is kept for the next question
     * @param quick with loss, in a tenth of the bytes; the exact one is then at hand to be asked for
     */
    record Request(
            long frame,
            @Nullable Integer later,
            @Nullable Map<String, Object> recipe,
            @Nullable Part part,
            int reduce,
            String viewer,
            @Nullable Boolean reference,
            @Nullable Boolean marked,
            @Nullable Integer held,
            @Nullable Boolean quick) {}

    record Part(int x, int y, int width, int height) {}

    @Hidden
    @PostMapping(produces = {MediaType.IMAGE_PNG_VALUE, MediaType.IMAGE_JPEG_VALUE})
    ResponseEntity<byte[]> still(@PathVariable UUID id, @RequestBody Request request, PageId page) {
        Part part = request.part();
        byte[] png = stills.still(
                id,
                request.recipe() == null ? Recipe.EMPTY : Recipe.fromTree(request.recipe()),
                request.frame(),
                request.later() == null ? 0 : Math.max(0, request.later()),
                part == null ? null : new Region(part.x(), part.y(), part.width(), part.height()),
                Math.clamp(request.reduce(), 1, 64),
                page + "/" + request.viewer(),
                Boolean.TRUE.equals(request.reference()),
                Boolean.TRUE.equals(request.marked()),
                request.held() == null ? 0 : Math.max(0, request.held()));
        boolean quick = Boolean.TRUE.equals(request.quick());
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .contentType(quick ? MediaType.IMAGE_JPEG : MediaType.IMAGE_PNG)
                .body(quick ? Jpeg.ofPng(png) : png);
    }
}
