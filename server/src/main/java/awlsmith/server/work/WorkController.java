package awlsmith.server.work;

import awlsmith.core.model.NetForm;
import awlsmith.render.Engine;
import awlsmith.render.SharedWork;
import awlsmith.server.clips.Clips;
import awlsmith.server.problem.Refusal;
import awlsmith.server.storage.MediaFolder;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/**
 * Parts of the render that runs, for other machines: asked for, told of now and then, brought. Each request carries the machine's token
 * ({@code Authorization: Bearer}, RFC 6750).
 */
@Hidden
@RestController
@RequestMapping("/api/work")
class WorkController {
    private static final String BEARER = "Bearer ";

    private final Workers workers;
    private final SharedRenders shared;
    private final MediaFolder media;
    private final Clips clips;

    WorkController(Workers workers, SharedRenders shared, MediaFolder media, Clips clips) {
        this.workers = workers;
        this.shared = shared;
        this.media = media;
        this.clips = clips;
    }

    /**
     * @param engine what the machine has; see {@link Engine#fingerprint}
     * @param forms of nets that it runs; not told for all
     */
    record Asking(String engine, @Nullable Set<NetForm> forms) {}

    /**
     * @param clip whose file it is of; @param bytes of that file
     * @param url where it can be fetched without this server, if it can
     * @param name of it within the media folder, or where it lies when it was linked
     * @param orders descriptions of the part, one for each file
     */
    record Lent(
            String lease,
            int number,
            UUID clip,
            long bytes,
            String name,
            @Nullable String url,
            List<String> orders) {}

    @PostMapping("/ask")
    ResponseEntity<Lent> ask(@RequestHeader("Authorization") String token, @RequestBody Asking asking)
            throws IOException {
        Workers.Worker worker = signedIn(token);
        if (!Engine.fingerprint().equals(asking.engine())) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    "this machine has other versions than the server, whose pixels or packets would not fit: the server has "
                            + Engine.fingerprint() + ", it has " + asking.engine()
                            + ". Install the same Awlsmith and the same FFmpeg");
        }
        Optional<SharedRenders.Now> running = shared.running();
        Optional<NetForm> form = running.flatMap(now -> now.work().form());
        if (asking.forms() != null && form.isPresent() && !asking.forms().contains(form.get())) {
            return ResponseEntity.noContent()
                    .header(
                            SharedWork.WHY,
                            "the render that runs wants nets in " + form.get().words()
                                    + ", which this machine does not run; it waits for another")
                    .build();
        }
        Optional<SharedWork.Offer> offer = running.flatMap(now -> now.work().lend(worker.name()));
        if (offer.isEmpty()) {
            return ResponseEntity.noContent().build();
        }
        SharedRenders.Now now = running.get();
        return ResponseEntity.ok(new Lent(
                offer.get().lease(),
                offer.get().number(),
                now.clip(),
                Files.size(now.source()),
                media.nameOf(now.source()),
                shared.address(now).map(URI::toString).orElse(null),
                offer.get().orders().stream().map(order -> order.toJson()).toList()));
    }

    /** The source's file, whole or a range of it. */
    @GetMapping("/sources/{clip}")
    ResponseEntity<Resource> source(@RequestHeader("Authorization") String token, @PathVariable UUID clip) {
        signedIn(token);
        Path file = shared.running()
                .filter(now -> now.clip().equals(clip))
                .orElseThrow(WorkController::over)
                .source();
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .body(new FileSystemResource(file));
    }

    /** When its frames are shown, and what each decodes to. */
    @GetMapping("/sources/{clip}/frames")
    ResponseEntity<Resource> frames(@RequestHeader("Authorization") String token, @PathVariable UUID clip) {
        signedIn(token);
        if (shared.running().filter(now -> now.clip().equals(clip)).isEmpty()) {
            throw over();
        }
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .body(new FileSystemResource(clips.index(clip)));
    }

    @PostMapping("/{lease}/beat")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void beat(@RequestHeader("Authorization") String token, @PathVariable String lease) {
        signedIn(token);
        if (!work().hear(lease)) {
            throw over();
        }
    }

    /** @param output number of the file among those of the treatment */
    @PutMapping(path = "/{lease}/{output}", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bring(
            @RequestHeader("Authorization") String token,
            @PathVariable String lease,
            @PathVariable int output,
            HttpServletRequest request)
            throws IOException {
        signedIn(token);
        long length = request.getContentLengthLong();
        if (length < 0) {
            throw new Refusal(Refusal.Kind.INVALID, "a part's length must be told before it is sent");
        }
        media.demandSpace(length);
        Path place = work().place(lease, output).orElseThrow(WorkController::over);
        try {
            long got = Files.copy(request.getInputStream(), place, StandardCopyOption.REPLACE_EXISTING);
            if (got != length || !work().arrived(lease, output, place)) {
                Files.deleteIfExists(place);
                throw over();
            }
        } catch (IOException e) {
            Files.deleteIfExists(place);
            throw e;
        }
    }

    @PostMapping("/{lease}/done")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void done(@RequestHeader("Authorization") String token, @PathVariable String lease) throws IOException {
        Workers.Worker worker = signedIn(token);
        if (!work().take(lease)) {
            throw over();
        }
        workers.brought(worker.id());
    }

    /** It cannot be made there. */
    @PostMapping("/{lease}/back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void back(@RequestHeader("Authorization") String token, @PathVariable String lease) {
        signedIn(token);
        shared.running().ifPresent(now -> now.work().giveBack(lease));
    }

    private SharedWork work() {
        return shared.running().orElseThrow(WorkController::over).work();
    }

    private static Refusal over() {
        return new Refusal(
                Refusal.Kind.CONFLICT, "this part is not wanted any more: the render has ended, or another has it");
    }

    private Workers.Worker signedIn(String header) {
        return (header.startsWith(BEARER)
                        ? workers.signedIn(header.substring(BEARER.length()).strip())
                        : Optional.<Workers.Worker>empty())
                .orElseThrow(() -> new Refusal(
                        Refusal.Kind.NOT_ALLOWED,
                        "the token is not one of this server's, or was taken back; make another on the page Dispatch"));
    }
}
