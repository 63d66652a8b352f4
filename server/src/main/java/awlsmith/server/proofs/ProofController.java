package awlsmith.server.proofs;

import awlsmith.core.picture.Region;
import awlsmith.core.recipe.Recipe;
import awlsmith.render.Comparison;
import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
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

/** Proofs over HTTP. */
@RestController
class ProofController {
    /** Sent at once of a file that grows. */
    private static final int MOST_BYTES = 4 << 20;

    private final Proofs proofs;

    ProofController(Proofs proofs) {
        this.proofs = proofs;
    }

    /** @param from first source frame; @param end behind the last; @param x left edge and so on in treated pixels */
    record Order(
            @Nullable UUID takeId,
            String takeName,
            Map<String, Object> recipe,
            int from,
            int end,
            int x,
            int y,
            int width,
            int height) {}

    @GetMapping("/api/clips/{clip}/proofs")
    List<ProofView> proofs(@PathVariable UUID clip) {
        return proofs.of(clip);
    }

    @PostMapping("/api/clips/{clip}/proofs")
    ProofView order(@PathVariable UUID clip, @RequestBody Order order) {
        return proofs.order(
                clip,
                order.takeId(),
                order.takeName(),
                Recipe.fromTree(order.recipe()),
                order.from(),
                order.end(),
                new Region(order.x(), order.y(), Math.max(2, order.width()), Math.max(2, order.height())));
    }

    @PostMapping("/api/proofs/{id}/stop")
    ProofView stop(@PathVariable UUID id) {
        return proofs.stop(id);
    }

    /** @param other proof whose treated picture takes the place of the source */
    record Against(UUID other) {}

    @PostMapping("/api/proofs/{id}/against")
    ProofView against(@PathVariable UUID id, @RequestBody Against against) {
        return proofs.against(id, against.other());
    }

    /** @param look wipe or pair; @param captions a PNG strip in base 64 */
    record Compare(String look, @Nullable String captions) {}

    @PostMapping("/api/proofs/{id}/comparison")
    ProofView compare(@PathVariable UUID id, @RequestBody Compare compare) {
        String captions = compare.captions();
        return proofs.compare(
                id,
                compare.look().equals("pair") ? Comparison.Look.PAIR : Comparison.Look.WIPE,
                captions == null ? null : Base64.getDecoder().decode(captions));
    }

    @Hidden
    @GetMapping(path = "/api/proofs/{id}/comparison", produces = "video/mp4")
    ResponseEntity<Resource> comparison(@PathVariable UUID id) {
        return ResponseEntity.ok(new FileSystemResource(proofs.comparison(id)));
    }

    @DeleteMapping("/api/proofs/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        proofs.remove(id);
    }

    /**
     * The next bytes of a file that may still be growing. Nothing (204) means there are none yet, or none any more when the
     * header {@code Proof-Whole} says so.
     */
    @Hidden
    @GetMapping("/api/proofs/{id}/bytes")
    ResponseEntity<byte[]> bytes(@PathVariable UUID id, @RequestParam long from) throws IOException {
        // asked before the file is read: an end told here is an end of the bytes below
        ProofView proof = proofs.view(id);
        Path file = proofs.file(proof);
        byte[] bytes = Files.exists(file) ? read(file, from) : new byte[0];
        return ResponseEntity.status(bytes.length == 0 ? HttpStatus.NO_CONTENT : HttpStatus.OK)
                .header("Proof-Whole", String.valueOf(!proof.isOpen()))
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .cacheControl(CacheControl.noStore())
                .body(bytes);
    }

    private static byte[] read(Path file, long from) throws IOException {
        try (var in = new RandomAccessFile(file.toFile(), "r")) {
            int count = Math.clamp(in.length() - from, 0, MOST_BYTES);
            byte[] bytes = new byte[count];
            in.seek(Math.max(0, from));
            in.readFully(bytes);
            return bytes;
        }
    }

    /** The whole file, for players of the user's own. */
    @Hidden
    @GetMapping(path = "/api/proofs/{id}/video", produces = "video/mp4")
    ResponseEntity<Resource> video(@PathVariable UUID id) {
        ProofView proof = proofs.view(id);
        return ResponseEntity.ok(new FileSystemResource(proofs.file(proof)));
    }
}
