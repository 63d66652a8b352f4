package awlsmith.server.clips;

import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Sweeps what lies in the media folder and no row knows of: folders of clips and renders whose removal was broken off, files that never
 * arrived whole. Folders are put aside and go for good a week later, as it may be the database that forgot them.
 */
@Component
class Orphans {
    private static final Logger LOG = LoggerFactory.getLogger(Orphans.class);
    private static final Duration KEPT = Duration.ofDays(7);
    /** What is this young may belong to something that is being written into the database just now. */
    private static final Duration YOUNG = Duration.ofMinutes(10);

    private final ClipRepository clips;
    private final MediaFolder media;
    private final Clock clock;

    Orphans(ClipRepository clips, MediaFolder media, Clock clock) {
        this.clips = clips;
        this.media = media;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    void sweep() {
        try {
            for (Path passing : media.passing()) {
                if (isOld(passing, YOUNG)) {
                    MediaFolder.remove(passing);
                }
            }
            Set<String> known = clips.folders();
            if (known.isEmpty()) {
                // an empty database beside a full folder is a mistake, not a reason to clear the folder
                return;
            }
            for (String kind : new String[] {"clips", "renders"}) {
                for (Path folder : media.folders(kind)) {
                    if (!known.contains(folder.getFileName().toString()) && isOld(folder, YOUNG)) {
                        putAside(kind, folder);
                    }
                }
            }
            forget();
        } catch (IOException | UncheckedIOException e) {
            LOG.warn("the media folder could not be swept: {}", e.getMessage());
        }
    }

    private boolean isOld(Path file, Duration age) throws IOException {
        return Files.getLastModifiedTime(file)
                .toInstant()
                .isBefore(clock.instant().minus(age));
    }

    private void putAside(String kind, Path folder) throws IOException {
        Path to = media.lost().resolve(kind + "-" + folder.getFileName());
        Files.createDirectories(media.lost());
        Files.move(folder, to, StandardCopyOption.REPLACE_EXISTING);
        Files.setLastModifiedTime(to, FileTime.from(Instant.now(clock)));
        LOG.info("{} belongs to nothing any more; it lies in {} for {} days", folder.getFileName(), to, KEPT.toDays());
    }

    private void forget() throws IOException {
        if (!Files.isDirectory(media.lost())) {
            return;
        }
        try (var lost = Files.list(media.lost())) {
            for (Path one : lost.toList()) {
                if (isOld(one, KEPT)) {
                    MediaFolder.remove(one);
                }
            }
        }
    }
}
