package awlsmith.server.dispatch;

import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import io.swagger.v3.oas.annotations.Hidden;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Renders over HTTP. */
@RestController
class RenderController {
    private final Dispatch dispatch;

    RenderController(Dispatch dispatch) {
        this.dispatch = dispatch;
    }

    /** @param settings of the codec, as its description has them; what is not given is its own choice */
    record DeliverableChoice(String codec, Map<String, Object> settings, boolean sound) {
        Deliverable deliverable() {
            return Deliverable.of(codec, settings, sound);
        }
    }

    record PlanRequest(
            Map<String, Object> recipe,
            DeliverableChoice deliverable,
            @Nullable Integer inFrame,
            @Nullable Integer outFrame) {}

    /** @param wholeClip sends everything even when a span is marked */
    record Order(UUID takeId, DeliverableChoice deliverable, boolean wholeClip) {}

    @PostMapping("/api/clips/{clip}/plan")
    Dispatch.PlanView plan(@PathVariable UUID clip, @RequestBody PlanRequest request) {
        return dispatch.plan(
                clip,
                Recipe.fromTree(request.recipe()),
                request.deliverable().deliverable(),
                request.inFrame(),
                request.outFrame());
    }

    /** @param later output frames behind the first one made of the source's frame */
    record PlaceRequest(Map<String, Object> recipe, int frame, int later) {}

    /** Where the source's picture lies in one treated frame, for recipes in which it moves. */
    @PostMapping("/api/clips/{clip}/placement")
    Dispatch.PlacementView placement(@PathVariable UUID clip, @RequestBody PlaceRequest request) {
        return dispatch.placement(clip, Recipe.fromTree(request.recipe()), request.frame(), request.later());
    }

    @GetMapping("/api/renders")
    List<RenderView> renders() {
        return dispatch.all();
    }

    @PostMapping("/api/renders")
    @ResponseStatus(HttpStatus.CREATED)
    RenderView order(@RequestBody Order order) {
        return dispatch.order(order.takeId(), order.deliverable().deliverable(), order.wholeClip());
    }

    @PostMapping("/api/renders/{id}/cancel")
    RenderView cancel(@PathVariable UUID id) {
        return dispatch.cancel(id);
    }

    @PostMapping("/api/renders/{id}/retry")
    RenderView retry(@PathVariable UUID id) {
        return dispatch.retry(id);
    }

    /** Lets one that waits change places with the one before it. */
    @PostMapping("/api/renders/{id}/earlier")
    RenderView earlier(@PathVariable UUID id) {
        return dispatch.earlier(id);
    }

    /** @param fileName with or without its ending */
    record FileName(String fileName) {}

    @PostMapping("/api/renders/{id}/name")
    RenderView rename(@PathVariable UUID id, @RequestBody FileName name) {
        return dispatch.rename(id, name.fileName());
    }

    @DeleteMapping("/api/renders/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        dispatch.remove(id);
    }

    @Hidden
    @GetMapping("/api/renders/{id}/file")
    ResponseEntity<Resource> file(@PathVariable UUID id) {
        var name = ContentDisposition.attachment()
                .filename(dispatch.view(id).fileName(), StandardCharsets.UTF_8)
                .build();
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, name.toString())
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .body(new FileSystemResource(dispatch.file(id)));
    }
}
