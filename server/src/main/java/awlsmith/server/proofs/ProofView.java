package awlsmith.server.proofs;

import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A moving proof.
 *
 * @param recipe that made it, in its open form
 * @param fromFrame first source frame; @param endFrame behind the last
 * @param x left edge, y top edge, width and height of what it shows, in pixels of the treated picture; its file is twice as
 *     high: source above, treated below
 * @param frames it will hold, output frames; @param framesDone those it holds
 * @param rate output frames a second
 * @param sound whether its file has sound
 * @param against what stands in the place of the source, where that is another proof's treated picture
 * @param comparison a moving comparison made of it, if one was asked for
 * @param framesASecond while it is being made; @param secondsLeft likewise
 */
public record ProofView(
        UUID id,
        UUID clipId,
        @Nullable UUID takeId,
        String takeName,
        Map<String, Object> recipe,
        int fromFrame,
        int endFrame,
        int x,
        int y,
        int width,
        int height,
        State state,
        int frames,
        int framesDone,
        double rate,
        boolean sound,
        @Nullable String problem,
        @Nullable BesideView against,
        @Nullable ComparisonView comparison,
        @Nullable Double framesASecond,
        @Nullable Double secondsLeft,
        Instant madeAt) {
    /** A stopped proof keeps what was made. */
    public enum State {
        WAITING,
        RUNNING,
        DONE,
        STOPPED,
        FAILED
    }

    /**
     * @param treated proof whose treated picture is below; @param proof whose treated picture is above
     * @param takeName of that one; @param recipe of that one
     */
    public record BesideView(UUID treated, UUID proof, String takeName, Map<String, Object> recipe) {}

    /** @param look wipe or pair; @param framesDone of the proof's; @param problem why there is none, in a sentence */
    public record ComparisonView(
            String look,
            int framesDone,
            boolean ready,
            @Nullable String problem) {}

    boolean isOpen() {
        return state == State.WAITING || state == State.RUNNING;
    }

    ProofView with(int done, double perSecond) {
        return with(done, comparison, perSecond, perSecond > 0 ? (frames - done) / perSecond : null);
    }

    ProofView with(@Nullable ComparisonView made) {
        return with(framesDone, made, framesASecond, secondsLeft);
    }

    private ProofView with(int done, @Nullable ComparisonView made, @Nullable Double perSecond, @Nullable Double left) {
        return new ProofView(
                id, clipId, takeId, takeName, recipe, fromFrame, endFrame, x, y, width, height, state, frames, done,
                rate, sound, problem, against, made, perSecond, left, madeAt);
    }
}
