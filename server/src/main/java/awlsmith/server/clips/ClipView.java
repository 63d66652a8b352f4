package awlsmith.server.clips;

import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A clip as the screens see it.
 *
 * @param progress of reading it in, 0..1
 * @param problem what is wrong with it, in a sentence
 * @param linked whether it is used where it lies on the machine
 * @param facts once it has been read
 * @param takes how many
 * @param sentOut how many files were made from it
 * @param hasReference whether a clean file of the same scene is at hand to compare with
 * @param hadReference whether one is known that may be taken up again
 * @param examination once it has been asked for
 */
public record ClipView(
        UUID id,
        String title,
        String fileName,
        State state,
        double progress,
        @Nullable String problem,
        long bytes,
        boolean linked,
        @Nullable ClipFacts facts,
        @Nullable Integer frames,
        Instant addedAt,
        int takes,
        int sentOut,
        boolean hasReference,
        boolean hadReference,
        @Nullable ExaminationView examination) {
    /** Reading in, ready for work, or not readable. */
    public enum State {
        READING,
        READY,
        FAILED
    }
}
