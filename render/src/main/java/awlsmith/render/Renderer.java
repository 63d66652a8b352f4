package awlsmith.render;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.TimeCode;
import awlsmith.core.pipeline.Ahead;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.plan.RenderPlan;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.Joiner;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.ReadBack;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Renders a request: decoder, treatment and encoder run at once; pictures go into segments that are kept when the work
 * is broken off, so the next run of the same request goes on behind the last finished one. The same frames come out
 * whichever way the work was cut up.
 */
public final class Renderer {
    private static final int DECODED_AHEAD = 2;

    private final RenderRequest request;
    private final Machine machine;
    private final RenderWatch watch;
    private final Cancel cancel;

    public Renderer(RenderRequest request, Machine machine, RenderWatch watch, Cancel cancel) {
        // a render goes on with the form of nets that it began with
        this.request =
                SegmentFolder.begunWith(request.scratch()).map(request::with).orElse(request);
        this.machine = machine;
        this.watch = watch;
        this.cancel = cancel;
    }

    /** @param facts read back from the file; @param soundNote what was changed about the sound, if anything */
    public record Result(ReadBack.Facts facts, Optional<String> soundNote) {}

    /**
     * @throws MediaException with a sentence when it cannot be done or went wrong; finished segments stay
     * @throws Cancel.Stopped when asked to stop; finished segments stay
     */
    public Result render() {
        RenderPlan plan = request.plan(machine);
        if (!plan.isPossible()) {
            throw new MediaException(String.join("; ", plan.refusals()));
        }
        try (var _ = machine.budget().takeBehind(plan.memoryBytes(), cancel)) {
            Files.createDirectories(request.scratch());
            var segments = new SegmentFolder(request);
            return join(segments, treat(segments));
        } catch (IOException e) {
            throw explained(e);
        }
    }

    /**
     * Makes one segment alone.
     *
     * @param range its output frames
     * @return its file
     */
    Path segment(int number, FrameRange range) throws IOException {
        var segments = SegmentFolder.as(request);
        watch.begins(0);
        long made = run(segments, number, range, new AheadSource(request.clip()), 0);
        if (made != range.count()) {
            throw new MediaException(made + " frames were made where " + range.count()
                    + " were planned; the source may be damaged. Take it in again, or mend it first");
        }
        return segments.file(number);
    }

    private static MediaException explained(IOException e) {
        String said = String.valueOf(e.getMessage());
        if (said.contains("No space left")) {
            return new MediaException(
                    "the disk is full: free some space, then start again; finished parts are kept", e);
        }
        return new MediaException("a file could not be written: " + said, e);
    }

    /** Makes the segments that are missing; returns the frames in all of them. */
    private long treat(SegmentFolder segments) throws IOException {
        FrameRange whole = request.outputRange();
        int each = request.segmentFrames();
        if (whole.isOpen()) {
            int first = segments.finished();
            long before = (long) first * each;
            watch.begins(before);
            var source = new AheadSource(request.clip());
            long done = run(segments, first, new FrameRange(whole.from() + before, whole.end()), source, before);
            demandAll(done, source.frames());
            return done;
        }
        long count = whole.count();
        List<SegmentFolder.Run> runs = segments.missing(count);
        long done = count
                - runs.stream()
                        .mapToLong(run -> Math.min(count, (long) run.end() * each) - (long) run.first() * each)
                        .sum();
        watch.begins(done);
        for (SegmentFolder.Run run : runs) {
            var range = new FrameRange(
                    whole.from() + (long) run.first() * each, whole.from() + Math.min(count, (long) run.end() * each));
            done = run(segments, run.first(), range, new AheadSource(request.clip()), done);
        }
        demandAll(done, 0);
        return done;
    }

    /**
     * Makes segments one after another.
     *
     * @param first number of the first of them
     * @param range of output frames
     * @param before frames that are done already
     * @return frames that are done then
     */
    private long run(SegmentFolder segments, int first, FrameRange range, AheadSource source, long before)
            throws IOException {
        Chain chain = request.chain();
        Format file = request.fileFormat();
        var layout = new RawLayout(file);
        long done = before;
        try (FrameStream stream = chain.open(source, range, file.whole(), machine.planes(), machine.work(cancel));
                var writer = new SegmentWriter(request, segments, layout, machine, watch, cancel, first)) {
            long treatNanos = 0;
            while (true) {
                cancel.check();
                watch.giveWay();
                long start = System.nanoTime() - source.waitedNanos();
                Optional<Frame> frame = stream.next();
                if (frame.isEmpty()) {
                    break;
                }
                long packing = System.nanoTime();
                byte[] raw = writer.buffer();
                start += System.nanoTime() - packing;
                pack(layout, frame.get(), raw);
                Rational time = frame.get().time();
                frame.get().release(machine.planes());
                treatNanos += System.nanoTime() - source.waitedNanos() - start;
                writer.put(raw, time);
                done++;
                watch.frames(
                        done,
                        new RenderWatch.Shares(source.busyNanos() / 1e9, treatNanos / 1e9, writer.busyNanos() / 1e9));
            }
            writer.finish();
        }
        if (done == 0) {
            throw new MediaException("no picture could be decoded in this span; the file is damaged there");
        }
        return done;
    }

    /** As many frames as were planned, or none: a decoder that gives up in silence must not shorten a film. */
    private void demandAll(long done, long decoded) {
        FrameRange planned = request.outputRange();
        if (!planned.isOpen() && done != planned.count()) {
            throw new MediaException(done + " frames were made where " + planned.count()
                    + " were planned; the source may be damaged. Take it in again, or mend it first");
        }
        MediaInfo info = request.clip().info();
        if (planned.isOpen() && !request.damaged() && decoded < info.video().frames()) {
            // some containers count what is never shown: only a second look tells
            FrameIndex found = Indexer.index(info, n -> {}, cancel);
            if (found.count() != decoded || found.errors() > 0) {
                throw new MediaException("the file promises " + info.video().frames() + " frames, " + decoded
                        + " decode: it is damaged or was cut short. --damaged renders what there is");
            }
        }
    }

    /** The clip, decoded on a thread of its own. */
    private static final class AheadSource implements FrameSource {
        private final FrameSource clip;
        private final AtomicLong frames = new AtomicLong();
        private volatile Ahead open;

        AheadSource(FrameSource clip) {
            this.clip = clip;
        }

        @Override
        public Format format() {
            return clip.format();
        }

        @Override
        public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel asked) {
            open = new Ahead(counted(clip.open(range, window, pool, asked)), DECODED_AHEAD, pool);
            return open;
        }

        private FrameStream counted(FrameStream stream) {
            return new FrameStream() {
                @Override
                public Format format() {
                    return stream.format();
                }

                @Override
                public Optional<Frame> next() {
                    Optional<Frame> frame = stream.next();
                    frame.ifPresent(any -> frames.incrementAndGet());
                    return frame;
                }

                @Override
                public void close() {
                    stream.close();
                }
            };
        }

        /** Decoded so far. */
        long frames() {
            return frames.get();
        }

        long busyNanos() {
            return open.busyNanos();
        }

        long waitedNanos() {
            return open.waitedNanos();
        }
    }

    private void pack(RawLayout layout, Frame frame, byte[] raw) {
        for (int p = 0; p < frame.planes().size(); p++) {
            int plane = p;
            machine.work(cancel)
                    .bands(frame.plane(p).height(), 128, (from, to) -> layout.packRows(frame, raw, plane, from, to));
        }
    }

    private Result join(SegmentFolder segments, long frames) throws IOException {
        Path out = request.out();
        Path part = out.resolveSibling("." + out.getFileName() + ".part." + RenderRequest.ending(out));
        try {
            Format file = request.fileFormat();
            Joiner.Along along = along(frames);
            var note = Joiner.join(segments.list(frames), file, along, part, request.scratch(), cancel);
            var facts = ReadBack.of(part, cancel);
            new Verdict(request, file, along, frames).demand(facts, cancel);
            Files.move(part, out, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
            return new Result(facts.at(out), note);
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private Joiner.Along along(long frames) {
        var clip = request.clip();
        long first = request.outputRange().from();
        Rational seconds = request.lasting(first, frames);
        // what goes along keeps to the file's clock, on which the pictures need not begin at 0
        Rational start = clip.index()
                .map(index -> index.clock(request.range().from()))
                .orElse(clip.info().video().start());
        return new Joiner.Along(
                clip.info(),
                start,
                seconds,
                request.isWhole(),
                request.deliverable().sound(),
                request.treatment().chain().speed(),
                timecode(),
                request.comment());
    }

    /** The label of the first frame going out, where frames come evenly and at a rate that has labels. */
    private Optional<String> timecode() {
        var clip = request.clip();
        if (clip.steadyRate().isEmpty() || request.outputRate().isEmpty()) {
            return Optional.empty();
        }
        return clip.info()
                .extras()
                .timecode()
                .flatMap(text -> TimeCode.parse(text, clip.steadyRate().get()))
                .flatMap(code -> code.plus(request.range().from())
                        .at(request.outputRate().get()))
                .map(TimeCode::toString);
    }
}
