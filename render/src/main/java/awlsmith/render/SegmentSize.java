package awlsmith.render;

import awlsmith.core.picture.Frame;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Taking;
import awlsmith.media.MediaException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * How many frames go into one segment of a render: about ten seconds' work, so that what is broken off loses no more than that. Measured once, on the
 * first frames, and kept with the segments: a render that goes on must cut where it cut before.
 */
public final class SegmentSize {
    private static final double SECONDS = 10;
    /** More key frames than one in so many cost too much of the file's size. */
    private static final int LEAST = 12;
    /** Of whole groups of pictures, at most so many. */
    private static final int MOST_GROUPS = 20;

    private static final int MOST = 960;
    /** Frames that are timed; the one before them opens nets and warms up. */
    private static final int TIMED = 2;

    private SegmentSize() {}

    /**
     * @param request any number of frames to a segment; its scratch folder is where the number is kept
     * @return the number that was kept, or is kept now
     */
    public static int of(RenderRequest request, Machine machine, Cancel cancel) {
        return of(List.of(request), machine, cancel).getFirst().segmentFrames();
    }

    /** The same of several files of one treatment: whichever of them kept a number, it is that of all. */
    public static List<RenderRequest> of(List<RenderRequest> requests, Machine machine, Cancel cancel) {
        List<RenderRequest> films = requests.stream()
                .filter(one -> one.deliverable().taking() == Taking.ALL)
                .toList();
        if (films.isEmpty()) {
            return requests;
        }
        try {
            OptionalInt before = OptionalInt.empty();
            for (RenderRequest one : requests) {
                before = before.isPresent() ? before : read(kept(one));
            }
            RenderRequest first = films.getFirst();
            int gop = films.stream()
                    .mapToInt(one -> one.deliverable().gop())
                    .max()
                    .orElseThrow();
            int frames = before.isPresent() ? before.getAsInt() : fitting(seconds(first, machine, cancel), gop);
            for (RenderRequest one : requests) {
                keep(kept(one), frames);
            }
            return requests.stream().map(one -> one.withSegments(frames)).toList();
        } catch (IOException e) {
            throw new MediaException(
                    "the render's folder cannot be read or written: " + e.getMessage()
                            + "; free some space, then start again",
                    e);
        }
    }

    private static Path kept(RenderRequest request) {
        return request.scratch().resolve("frames-a-segment");
    }

    private static void keep(Path kept, int frames) throws IOException {
        Files.createDirectories(kept.getParent());
        Path part = kept.resolveSibling("frames-a-segment.part");
        Files.writeString(part, Integer.toString(frames));
        Files.move(part, kept, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    /** Empty where none was kept, or what was kept is no number any more. */
    private static OptionalInt read(Path kept) throws IOException {
        String text = Files.exists(kept) ? Files.readString(kept).trim() : "";
        return text.matches("[1-9][0-9]{0,5}") ? OptionalInt.of(Integer.parseInt(text)) : OptionalInt.empty();
    }

    /** @param seconds that a frame takes; @param gop frames from one key frame to the next */
    static int fitting(double seconds, int gop) {
        double wanted = SECONDS / Math.max(1e-6, seconds);
        if (gop > 1 && wanted >= gop) {
            return gop * (int) Math.clamp(wanted / gop, 1, Math.clamp(MOST / gop, 1, MOST_GROUPS));
        }
        return (int) Math.clamp(Math.round(wanted), LEAST, MOST);
    }

    /** Seconds that a frame takes to be treated; encoding runs beside. */
    private static double seconds(RenderRequest request, Machine machine, Cancel cancel) {
        Chain chain = request.treatment().chain();
        FrameRange range = request.outputRange();
        long end = range.isOpen() ? range.from() + 1 + TIMED : Math.min(range.end(), range.from() + 1 + TIMED);
        long begun = System.nanoTime();
        int timed = 0;
        try (var stream = chain.open(
                request.clip(),
                new FrameRange(range.from(), end),
                chain.output().whole(),
                machine.planes(),
                machine.work(cancel))) {
            int seen = 0;
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frame.get().release(machine.planes());
                if (seen++ == 0) {
                    begun = System.nanoTime();
                } else {
                    timed++;
                }
            }
        }
        return timed == 0 ? 0 : (System.nanoTime() - begun) / 1e9 / timed;
    }
}
