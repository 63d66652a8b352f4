package awlsmith.server.dispatch;

import awlsmith.core.recipe.Recipe;
import awlsmith.server.clips.ClipView;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.PageId;
import io.swagger.v3.oas.annotations.Hidden;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
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
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;

/** Renders over HTTP. */
@RestController
class RenderController {
    private final Dispatch dispatch;
    private final JsonMapper json;

    RenderController(Dispatch dispatch, JsonMapper json) {
        this.dispatch = dispatch;
        this.json = json;
    }

    record PlanRequest(
            Map<String, Object> recipe,
            DeliverableChoice deliverable,
            @Nullable Integer inFrame,
            @Nullable Integer outFrame) {}

    /** See {@link Dispatch.Target}. */
    record TargetRequest(
            UUID takeId, boolean wholeClip, @Nullable Integer handles) {
        Dispatch.Target target() {
            return new Dispatch.Target(takeId, wholeClip, handles == null ? 0 : handles);
        }
    }

    /** See {@link Dispatch.Order}. */
    record Order(
            List<TargetRequest> takes,
            List<DeliverableChoice> deliverables,
            @Nullable String pattern,
            @Nullable Instant notBefore,
            @Nullable String name) {}

    @PostMapping("/api/clips/{clip}/plan")
    Dispatch.PlanView plan(@PathVariable UUID clip, @RequestBody PlanRequest request) {
        return dispatch.plan(
                clip,
                Recipe.fromTree(request.recipe()),
                request.deliverable().deliverable(),
                request.inFrame(),
                request.outFrame());
    }

    /** How long it takes and how large it is, found by making a little of it: some seconds. */
    @PostMapping("/api/clips/{clip}/trial")
    Dispatch.TrialView trial(@PathVariable UUID clip, @RequestBody PlanRequest request, PageId page) {
        return dispatch.trial(
                clip,
                Recipe.fromTree(request.recipe()),
                request.deliverable().deliverable(),
                request.inFrame(),
                request.outFrame(),
                page.toString());
    }

    /** See {@link #curve}. */
    record CurveRequest(
            Map<String, Object> recipe,
            DeliverableChoice deliverable,
            @Nullable Integer inFrame,
            @Nullable Integer outFrame,
            int quality) {}

    /** Size and likeness at one rate factor, found by making a little of it; the first of several takes longest. */
    @PostMapping("/api/clips/{clip}/curve")
    Dispatch.CurvePoint curve(@PathVariable UUID clip, @RequestBody CurveRequest request, PageId page) {
        return dispatch.curve(
                clip,
                Recipe.fromTree(request.recipe()),
                request.deliverable().deliverable(),
                request.inFrame(),
                request.outFrame(),
                request.quality(),
                page.toString());
    }

    /** No more points are waited for. */
    @DeleteMapping("/api/curves")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void enough(PageId page) {
        dispatch.enoughOfCurve(page.toString());
    }

    /** Where most is lost, at its own pixels. @param quality that it is coded at; without it, what was treated */
    @Hidden
    @GetMapping(path = "/api/curves/{id}/picture", produces = MediaType.IMAGE_PNG_VALUE)
    byte[] picture(@PathVariable UUID id, @RequestParam @Nullable Integer quality) {
        return dispatch.curvePicture(id, quality);
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

    /** One file of one take. */
    record One(UUID takeId, DeliverableChoice deliverable, boolean wholeClip) {}

    @PostMapping("/api/renders")
    @ResponseStatus(HttpStatus.CREATED)
    RenderView order(@RequestBody One one) {
        return dispatch.order(new Dispatch.Order(
                        List.of(new Dispatch.Target(one.takeId(), one.wholeClip(), 0)),
                        List.of(one.deliverable().deliverable()),
                        null,
                        null,
                        null))
                .getFirst();
    }

    /** Several takes, several files of each, or one that is to begin later. */
    @PostMapping("/api/batches")
    @ResponseStatus(HttpStatus.CREATED)
    List<RenderView> order(@RequestBody Order order) {
        return dispatch.order(new Dispatch.Order(
                order.takes().stream().map(TargetRequest::target).toList(),
                order.deliverables().stream()
                        .map(DeliverableChoice::deliverable)
                        .toList(),
                order.pattern(),
                order.notBefore(),
                order.name()));
    }

    /** What a name comes to. @param fileName that comes of it */
    record NameView(String fileName) {}

    record NameRequest(UUID takeId, DeliverableChoice deliverable, boolean wholeClip, String pattern) {}

    @PostMapping("/api/renders/name")
    NameView named(@RequestBody NameRequest request) {
        return new NameView(dispatch.named(
                new Dispatch.Target(request.takeId(), request.wholeClip(), 0),
                request.deliverable().deliverable(),
                request.pattern()));
    }

    @PostMapping("/api/renders/{id}/pause")
    RenderView pause(@PathVariable UUID id) {
        return dispatch.pause(id);
    }

    @PostMapping("/api/renders/{id}/resume")
    RenderView resume(@PathVariable UUID id) {
        return dispatch.resume(id);
    }

    @PostMapping("/api/renders/{id}/again")
    @ResponseStatus(HttpStatus.CREATED)
    RenderView again(@PathVariable UUID id) {
        return dispatch.again(id);
    }

    /** Puts the finished file on the shelf. */
    @PostMapping("/api/renders/{id}/clip")
    @ResponseStatus(HttpStatus.CREATED)
    ClipView shelve(@PathVariable UUID id) {
        return dispatch.shelve(id);
    }

    /** Takes the finished file off the disk; its row and its report stay. */
    @PostMapping("/api/renders/{id}/clear")
    RenderView clear(@PathVariable UUID id) {
        return dispatch.clear(id);
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

    /** Lets one that waits go before all others that wait. */
    @PostMapping("/api/renders/{id}/first")
    RenderView first(@PathVariable UUID id) {
        return dispatch.first(id);
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

    /** The newest frame of one that runs, as a JPEG of at most 320 pixels. */
    @Hidden
    @GetMapping(path = "/api/renders/{id}/picture", produces = MediaType.IMAGE_JPEG_VALUE)
    ResponseEntity<byte[]> picture(@PathVariable UUID id) {
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(dispatch.picture(id));
    }

    @GetMapping("/api/renders/{id}/report")
    Report report(@PathVariable UUID id) {
        return dispatch.report(id);
    }

    /** The same to read. */
    @Hidden
    @GetMapping(path = "/api/renders/{id}/report.html", produces = MediaType.TEXT_HTML_VALUE)
    String readable(@PathVariable UUID id) {
        return dispatch.report(id).html(json);
    }

    /** As checksum programs write it: the sum, two spaces, the name. */
    @Hidden
    @GetMapping(path = "/api/renders/{id}/sha256", produces = MediaType.TEXT_PLAIN_VALUE)
    ResponseEntity<String> checksum(@PathVariable UUID id) {
        Report report = dispatch.report(id);
        if (report.sha256() == null) {
            throw new Refusal(Refusal.Kind.CONFLICT, "no checksum was kept of this file; send it out again");
        }
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(report.file() + ".sha256", StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(report.sha256() + "  " + report.file() + "\n");
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
