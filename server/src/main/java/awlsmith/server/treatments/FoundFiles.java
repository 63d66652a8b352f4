package awlsmith.server.treatments;

import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Sha256;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** What analyses found, one JSON file each in the clip's folder, named by what it was found in and by what. */
@Component
class FoundFiles {
    private static final Logger LOG = LoggerFactory.getLogger(FoundFiles.class);

    private final MediaFolder media;
    private final JsonMapper json;

    FoundFiles(MediaFolder media, JsonMapper json) {
        this.media = media;
        this.json = json;
    }

    /** Names an analysis of a clip as it is now: a file that changed is another one. */
    static String hash(Clip clip, String key) {
        String all = key + "|" + clip.index().map(FrameIndex::fingerprint).orElse(0L);
        return Sha256.hex(all);
    }

    Analyses.Store of(UUID id, Clip clip) {
        Path folder = media.clip(id).resolve("found");
        return new Analyses.Store() {
            @Override
            public Optional<Map<?, ?>> find(String key) {
                Path file = folder.resolve(hash(clip, key) + ".json");
                if (!Files.exists(file)) {
                    return Optional.empty();
                }
                try {
                    return Optional.of(json.readValue(Files.readAllBytes(file), Map.class));
                } catch (IOException | JacksonException e) {
                    LOG.warn("what was found in a clip cannot be read any more; it is looked through again: {}", file);
                    return Optional.empty();
                }
            }

            @Override
            public void keep(String key, Map<String, Object> tree) {
                try {
                    Files.createDirectories(folder);
                    Path part = Files.createTempFile(folder, "found", ".part");
                    Files.write(part, json.writeValueAsBytes(tree));
                    Files.move(part, folder.resolve(hash(clip, key) + ".json"), StandardCopyOption.ATOMIC_MOVE);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            }
        };
    }
}
