package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Ahead;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.plan.Coder;
import awlsmith.core.plan.RenderPlan;
import awlsmith.core.plan.Taking;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.KeyFrames;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.ReadBack;
import awlsmith.media.SoundFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BiConsumer;

/**
 * Renders a request: decoder, treatment and encoder run at once; pictures go into segments that are kept when the work
 * is broken off, so the next run of the same request goes on behind the last finished one. The same frames come out
 * whichever way the work was cut up.
 */
public final class Renderer {
    private static final int DECODED_AHEAD = 2;

    /** Between two looks at what others bring, when nothing is left to be made here. */
    private static final long WAIT_NANOS = 100_000_000L;

    /** The files to make, all of one treatment of one span of one clip; the first tells of it. */
    private final List<RenderRequest> requests;

    private final RenderRequest request;

    /** Those that frames go into one after another, with all of them. */
    private final List<RenderRequest> films;

    /** The form of nets of parts that are of no use here. */
    private final Optional<NetForm> begunWith;

    private final Machine machine;
    private final RenderWatch watch;
    private final Cancel cancel;
    private final SharedWork shared;
    private final Disturbances disturbances = new Disturbances();

    public Renderer(RenderRequest request, Machine machine, RenderWatch watch, Cancel cancel) {
        this(List.of(request), machine, watch, cancel);
    }

    /**
     * Several files of one treatment, which is computed once.
     *
     * @param requests that differ in deliverable, file and folder for parts alone
     */
    public Renderer(List<RenderRequest> requests, Machine machine, RenderWatch watch, Cancel cancel) {
        this(requests, machine, watch, cancel, new SharedWork(Duration.ZERO));
    }

    /**
     * The same, some of whose segments others make.
     *
     * @param shared through which they get them and bring them
     */
    public Renderer(
            List<RenderRequest> requests, Machine machine, RenderWatch watch, Cancel cancel, SharedWork shared) {
        RenderRequest first = requests.getFirst();
        for (RenderRequest other : requests) {
            if (other.clip() != first.clip()
                    || !other.treatment().recipe().equals(first.treatment().recipe())
                    || !other.range().equals(first.range())
                    || other.segmentFrames() != first.segmentFrames()) {
                throw new IllegalArgumentException("the files are of different treatments, spans or parts");
            }
        }
        Optional<NetForm> begun = SegmentFolder.formOf(first.scratch());
        NetForm form = formOf(first);
        this.begunWith = begun.filter(other -> other != form);
        this.requests = requests.stream().map(one -> one.with(form)).toList();
        this.request = this.requests.getFirst();
        this.films = this.requests.stream()
                .filter(one -> one.deliverable().taking() == Taking.ALL)
                .toList();
        this.machine = machine;
        this.watch = watch;
        this.cancel = cancel;
        this.shared = shared;
    }

    /** What a render's nets run in: the form that it began with, where this machine runs it, else that of its order. */
    public static NetForm formOf(RenderRequest request) {
        return SegmentFolder.formOf(request.scratch()).filter(Models::runs).orElse(request.form());
    }

    /** Why parts that were there are made anew, in a sentence; empty where they are not. */
    public Optional<String> begunAnew() {
        return begunWith.map(form -> "it was begun with nets in " + form.words()
                + ", which this machine does not run, and made anew in "
                + request.form().words());
    }

    /** What broke in from outside and was made good, in a sentence; empty where nothing did. */
    public Optional<String> disturbed() {
        return disturbances.words();
    }

    /** What became of one of several files. */
    public sealed interface Made permits Result, Sounded, Failed {}

    /**
     * @param facts read back from the file
     * @param soundNote what was changed about the sound, if anything
     */
    public record Result(ReadBack.Facts facts, Optional<String> soundNote) implements Made {}

    /**
     * Of a file without pictures.
     *
     * @param facts read back from it
     * @param soundNote what was changed about the sound, if anything
     */
    public record Sounded(SoundFile.Facts facts, Optional<String> soundNote) implements Made {}

    /** @param sentence why this one could not be made, though the treatment was */
    public record Failed(String sentence) implements Made {}

    /**
     * @throws MediaException with a sentence when it cannot be done or went wrong; finished segments stay
     * @throws Cancel.Stopped when asked to stop; finished segments stay
     */
    public Result render() {
        return switch (renderAll((number, made) -> {}).getFirst()) {
            case Result result -> result;
            case Sounded sounded ->
                throw new IllegalStateException(request.out() + " holds no pictures: renderAll tells of it");
            case Failed failed -> throw new MediaException(failed.sentence());
        };
    }

    /**
     * The same of all files. What cannot be made of the finished treatment, such as a size that is too small, is told of that file; the
     * others are there.
     *
     * @param ready hears of each as soon as it is there, by its number among the requests
     */
    public List<Made> renderAll(BiConsumer<Integer, Made> ready) {
        long memory = 0;
        for (RenderRequest one : requests) {
            RenderPlan plan = one.plan(machine);
            if (!plan.isPossible()) {
                throw new MediaException(String.join("; ", plan.refusals()));
            }
            // frames that are treated are there once, what each file makes of them once for each
            memory = memory == 0 ? plan.memoryBytes() : memory + one.ownBytes();
        }
        try (var _ = machine.budget().takeBehind(memory, cancel)) {
            var outputs = new ArrayList<Output>();
            for (RenderRequest one : requests) {
                Files.createDirectories(one.scratch());
                outputs.add(output(one));
            }
            List<Output> treated = outputs.stream()
                    .filter(one -> films.contains(one.request()))
                    .toList();
            long frames = treated.isEmpty() ? request.outputRange().count() : treat(treated);
            var made = new ArrayList<Made>();
            for (Output output : outputs) {
                made.add(joined(output, frames));
                ready.accept(made.size() - 1, made.getLast());
            }
            return List.copyOf(made);
        } catch (IOException e) {
            throw explained(e);
        }
    }

    private Output output(RenderRequest one) throws IOException {
        if (one.deliverable().taking() == Taking.SOURCE) {
            KeyFrames.Piece piece = one.piece(cancel);
            return new Output(one.with(piece.frames()), SegmentFolder.as(one));
        }
        return new Output(one, films.contains(one) ? new SegmentFolder(one) : SegmentFolder.as(one));
    }

    private Made joined(Output output, long frames) throws IOException {
        while (true) {
            try {
                return output.join(frames, machine, watch, cancel);
            } catch (MediaException e) {
                if (!disturbances.isEndured(e, frames, cancel)) {
                    return new Failed(e.getMessage());
                }
            }
        }
    }

    /**
     * Makes one segment alone, of every file.
     *
     * @param range its output frames
     * @return its files
     */
    List<Path> segment(int number, FrameRange range) throws IOException {
        var outputs = films.stream()
                .map(one -> new Output(one, SegmentFolder.as(one)))
                .toList();
        watch.begins(0);
        long made = run(outputs, number, range, new AheadSource(request.clip()), 0);
        if (made != range.count()) {
            throw new MediaException(made + " frames were made where " + range.count()
                    + " were planned; the source may be damaged. Take it in again, or mend it first");
        }
        return outputs.stream().map(one -> one.segments().file(number)).toList();
    }

    private static MediaException explained(IOException e) {
        String said = String.valueOf(e.getMessage());
        if (said.contains("No space left")) {
            return new MediaException(
                    "the disk is full: free some space, then start again; finished parts are kept", e);
        }
        return new MediaException("a file could not be written: " + said, e);
    }

    /** Makes the segments that are missing in any of the files; returns the frames in all of them. */
    private long treat(List<Output> outputs) throws IOException {
        FrameRange whole = request.outputRange();
        int each = request.segmentFrames();
        if (whole.isOpen()) {
            int first = outputs.stream()
                    .mapToInt(output -> output.segments().finished())
                    .min()
                    .orElseThrow();
            long before = (long) first * each;
            watch.begins(before);
            var source = new AheadSource(request.clip());
            long done = run(outputs, first, new FrameRange(whole.from() + before, whole.end()), source, before);
            demandAll(done, source.frames());
            return done;
        }
        long count = whole.count();
        List<SegmentFolder> folders = folders(outputs);
        long done = count - frames(SegmentFolder.missing(folders, count, each), count, each);
        watch.begins(done);
        shared.open(films, folders, watch, films.stream().noneMatch(Renderer::isOfThisMachine));
        try {
            done = shared(outputs, whole, each, count, done);
        } finally {
            shared.close();
        }
        demandAll(done, 0);
        return done;
    }

    /** Words are drawn with this machine's fonts, circuits differ from one to the next: others would make other parts. */
    private static boolean isOfThisMachine(RenderRequest one) {
        return one.isBurnt() || one.deliverable().coder() != Coder.CORES;
    }

    private static List<SegmentFolder> folders(List<Output> outputs) {
        return outputs.stream().map(Output::segments).toList();
    }

    /** Of some segments, of which all but the last have as many as each. */
    private static long frames(List<SegmentFolder.Run> runs, long count, int each) {
        return runs.stream()
                .mapToLong(run -> Math.min(count, (long) run.end() * each) - (long) run.first() * each)
                .sum();
    }

    /** Makes what nobody else makes, until nothing is missing. @param before frames that lay finished; returns those that do then */
    private long shared(List<Output> outputs, FrameRange whole, int each, long count, long before) throws IOException {
        long own = before;
        while (true) {
            cancel.check();
            Optional<SegmentFolder.Run> run = shared.next();
            if (run.isPresent()) {
                var range = new FrameRange(
                        whole.from() + (long) run.get().first() * each,
                        whole.from() + Math.min(count, (long) run.get().end() * each));
                try {
                    own = run(outputs, run.get().first(), range, new AheadSource(request.clip()), own);
                } catch (MediaException e) {
                    long missing = frames(SegmentFolder.missing(folders(outputs), count, each), count, each);
                    if (!disturbances.isEndured(e, count - missing, cancel)) {
                        throw e;
                    }
                    own = count - missing - shared.broughtFrames();
                }
            } else if (shared.isWaiting()) {
                LockSupport.parkNanos(WAIT_NANOS);
            } else {
                return own + shared.broughtFrames();
            }
        }
    }

    /**
     * Makes segments one after another, in every file.
     *
     * @param first number of the first of them
     * @param range of output frames
     * @param before frames that are done already
     * @return frames that are done then
     */
    private long run(List<Output> outputs, int first, FrameRange range, AheadSource source, long before)
            throws IOException {
        Chain chain = request.treatment().chain();
        outputs.forEach(output -> output.openWords(cancel));
        long done = before;
        try (FrameStream stream =
                        chain.open(source, range, chain.output().whole(), machine.planes(), machine.work(cancel));
                var writers = new Writers(outputs, first)) {
            long treatNanos = 0;
            while (true) {
                cancel.check();
                long inRun = done - before;
                boolean atStart = inRun > 0 && inRun % request.segmentFrames() == 0;
                if (atStart && !shared.mayBegin(first + (int) (inRun / request.segmentFrames()))) {
                    // somebody else has it by now
                    break;
                }
                watch.giveWay();
                long start = System.nanoTime() - source.waitedNanos();
                Optional<Frame> frame = stream.next();
                if (frame.isEmpty()) {
                    break;
                }
                if (watch.wantsPicture()) {
                    watch.picture(small(frame.get()));
                }
                long waited = writers.put(frame.get());
                frame.get().release(machine.planes());
                treatNanos += System.nanoTime() - source.waitedNanos() - start - waited;
                done++;
                watch.frames(
                        done + shared.broughtFrames(),
                        new RenderWatch.Shares(source.busyNanos() / 1e9, treatNanos / 1e9, writers.busyNanos() / 1e9));
            }
            writers.finish();
        }
        if (done == 0) {
            throw new MediaException("no picture could be decoded in this span; the file is damaged there");
        }
        return done;
    }

    private ScreenPicture small(Frame frame) {
        var format = frame.format();
        int longest = Math.max(format.width(), format.height());
        int reduce = Math.ceilDiv(longest, RenderWatch.PICTURE);
        return ScreenPicture.of(frame, format.whole(), reduce, machine.planes(), machine.work(cancel));
    }

    /** What writes the segments of every file. */
    private final class Writers implements AutoCloseable {
        private final List<Output> outputs;
        private final List<SegmentWriter> writers = new ArrayList<>();

        Writers(List<Output> outputs, int first) {
            this.outputs = outputs;
            for (Output output : outputs) {
                // what is safe is told by the first file, whose parts are those of all
                RenderWatch told = writers.isEmpty() ? watch : RenderWatch.SILENT;
                writers.add(new SegmentWriter(
                        output.request(), output.segments(), output.raw(), machine, told, cancel, first));
            }
        }

        /** Returns for how many nanoseconds it waited for encoders. */
        long put(Frame frame) {
            long waited = 0;
            for (int i = 0; i < writers.size(); i++) {
                long start = System.nanoTime();
                byte[] raw = writers.get(i).buffer();
                long packing = System.nanoTime();
                outputs.get(i).pack(frame, raw, machine.planes(), machine.work(cancel));
                long packed = System.nanoTime();
                writers.get(i).put(raw, frame.time());
                waited += packing - start + System.nanoTime() - packed;
            }
            return waited;
        }

        long busyNanos() {
            return writers.stream().mapToLong(SegmentWriter::busyNanos).sum();
        }

        void finish() {
            writers.forEach(SegmentWriter::finish);
        }

        @Override
        public void close() {
            writers.forEach(SegmentWriter::close);
        }
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
            FrameStream stream = clip.open(range, window, pool, asked);
            if (open != null) {
                // the source once more, for a step that gives some of it back: the same frames, already counted
                return new Ahead(stream, DECODED_AHEAD, pool);
            }
            open = new Ahead(counted(stream), DECODED_AHEAD, pool);
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
}
