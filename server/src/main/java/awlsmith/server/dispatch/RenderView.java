package awlsmith.server.dispatch;

import awlsmith.render.Engine;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A file to send out, waiting, being made or made.
 *
 * @param spanSeconds length of what is sent; @param clipSeconds of the whole clip
 * @param wholeClip false when only a marked span is sent
 * @param live figures of a render that runs
 * @param before what a render that runs does before its first frame
 * @param note what was changed on the way, for example about the sound
 * @param result what was read back from the finished file
 * @param deliverable in its open form
 * @param place that it waits in: behind all with a smaller one
 * @param bundle files of one treatment, which are made at once
 * @param batch what was asked for together, and its name
 * @param notBefore when it may begin
 * @param clearedAt when its file was taken off the disk; null while it is there
 */
public record RenderView(
        UUID id,
        UUID clipId,
        String clipTitle,
        String takeName,
        String fileName,
        String codec,
        Map<String, Object> deliverable,
        boolean wholeClip,
        double spanSeconds,
        double clipSeconds,
        int width,
        int height,
        State state,
        int frames,
        int framesDone,
        @Nullable String problem,
        @Nullable String note,
        @Nullable Live live,
        @Nullable Before before,
        @Nullable Result result,
        Instant createdAt,
        long place,
        @Nullable UUID bundle,
        @Nullable UUID batch,
        @Nullable String batchName,
        @Nullable Instant notBefore,
        @Nullable Instant finishedAt,
        @Nullable Instant clearedAt) {
    public enum State {
        WAITING,
        RUNNING,
        DONE,
        FAILED,
        CANCELLED,
        PAUSED
    }

    /**
     * @param framesASecond over the last moments
     * @param secondsLeft at that rate
     * @param decode, treat, encode shares of the busy time, 0..1
     * @param on what it runs on, in a few words; @param elsewhere frames that other machines brought
     */
    public record Live(
            double framesASecond,
            double secondsLeft,
            double decode,
            double treat,
            double encode,
            String on,
            long elsewhere) {}

    /** @param doing what is being done, in a few words; @param frames seen so far */
    public record Before(String doing, int frames) {}

    /** The same as it runs. @param done frames so far */
    RenderView running(int done, @Nullable Live figures, @Nullable Before doing) {
        return new RenderView(
                id,
                clipId,
                clipTitle,
                takeName,
                fileName,
                codec,
                deliverable,
                wholeClip,
                spanSeconds,
                clipSeconds,
                width,
                height,
                state,
                frames,
                done,
                problem,
                note,
                figures,
                doing,
                result,
                createdAt,
                place,
                bundle,
                batch,
                batchName,
                notBefore,
                finishedAt,
                clearedAt);
    }

    /**
     * Read back from the finished file, not from what was asked for. Where there is sound alone all that is of pictures is 0 or empty.
     *
     * @param sha256 of the whole file, in hexadecimal; null of files made before it was kept
     * @param engine version that made it
     * @param seconds it lasts; @param workSeconds that the last go at it took
     * @param on what the last go ran on, in a few words; @param elsewhere frames that other machines brought to it
     */
    public record Result(
            String codec,
            int width,
            int height,
            String rate,
            double ratePerSecond,
            long frames,
            double seconds,
            long bytes,
            int depth,
            String matrix,
            String range,
            String transfer,
            String primaries,
            List<String> sound,
            int errors,
            @Nullable String sha256,
            @Nullable String engine,
            @Nullable Double workSeconds,
            @Nullable String on,
            @Nullable Long elsewhere) {
        /** Of a file without pictures. */
        static Result ofSound(
                List<String> tracks, double seconds, long bytes, String sha256, double workSeconds, String on) {
            return new Result(
                    tracks.getFirst(),
                    0,
                    0,
                    "",
                    0,
                    0,
                    seconds,
                    bytes,
                    0,
                    "",
                    "",
                    "",
                    "",
                    tracks,
                    0,
                    sha256,
                    Engine.VERSION,
                    workSeconds,
                    on,
                    0L);
        }

        /** Whether it holds pictures, not sound alone. */
        boolean hasPictures() {
            return width > 0;
        }
    }
}
