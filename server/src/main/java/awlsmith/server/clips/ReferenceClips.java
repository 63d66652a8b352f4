package awlsmith.server.clips;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.Prober;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Clean files of the same scene, frame for frame, that clips are held against. */
@Component
public class ReferenceClips {
    private final Clips clips;
    private final Map<UUID, Clip> open = new ConcurrentHashMap<>();

    ReferenceClips(Clips clips) {
        this.clips = clips;
    }

    @EventListener
    void gone(Clips.Removing event) {
        open.remove(event.id());
    }

    @EventListener
    void changed(Clips.ReferenceChanged event) {
        open.remove(event.id());
    }

    /** The reference of a clip, opened; empty when it has none. */
    public Optional<Clip> of(UUID id) {
        Optional<Path> file = clips.reference(id);
        if (file.isEmpty()) {
            return Optional.empty();
        }
        if (!Files.exists(file.get())) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT, "the reference file is gone from its place; choose another or none");
        }
        return Optional.of(open.computeIfAbsent(id, clip -> load(clip, file.get())));
    }

    private Clip load(UUID id, Path file) {
        try {
            var info = Prober.probe(file);
            Path kept = clips.referenceIndex(id);
            if (!Files.exists(kept)) {
                Indexer.index(info, done -> {}, new Cancel()).save(kept);
            }
            return new Clip(info, Optional.of(FrameIndex.load(kept)));
        } catch (MediaException e) {
            throw new Refusal(Refusal.Kind.CONFLICT, "the reference cannot be read: " + e.getMessage());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
