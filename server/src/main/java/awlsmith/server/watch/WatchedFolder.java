package awlsmith.server.watch;

import awlsmith.core.plan.Deliverable;
import awlsmith.server.takes.Way;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A folder whose files are taken in, treated and sent out.
 *
 * @param way what each clip is treated with
 * @param deliverables what is sent out of each
 * @param pattern of the files' names; null for the usual one
 * @param problem why it cannot be looked into; null when it can
 */
record WatchedFolder(
        UUID id,
        Path path,
        Way way,
        List<Deliverable> deliverables,
        @Nullable String pattern,
        boolean active,
        @Nullable String problem) {
    /** How far one of its files is. */
    enum State {
        /** It may still grow. */
        ARRIVING,
        /** It is on the shelf. */
        TAKEN,
        /** What is to be made of it was ordered. */
        SENT,
        FAILED
    }

    /**
     * A file in it.
     *
     * @param bytes of it, @param changedAt by the file's own word
     * @param seenAt since when it has been so
     * @param clip once it is taken in
     */
    record Item(
            UUID folder,
            String name,
            long bytes,
            Instant changedAt,
            Instant seenAt,
            State state,
            @Nullable UUID clip,
            @Nullable String problem) {
        boolean isAs(long otherBytes, Instant otherChange) {
            return bytes == otherBytes && changedAt.equals(otherChange);
        }
    }
}
