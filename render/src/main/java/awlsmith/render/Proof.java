package awlsmith.render;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Sides;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.MediaException;
import awlsmith.media.ProofEncoding;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Map;
import java.util.Optional;

/**
 * A part of a span, source and treated stacked in each frame of one file, so that the two can never drift apart: above the
 * source, enlarged plainly to the treated picture's size, below it the treated picture. Where the part shows nothing of the
 * source it is black.
 */
public final class Proof {
    private static final Deliverable LIKE_A_FILE = Deliverable.of("h264", Map.of("quality", 0, "depth", 8), false);

    private final FrameSource clip;
    private final Chain treated;
    private final Chain source;
    private final Format file;
    private final Region part;
    private final Region sourcePart;
    /** Where the source begins in the treated picture. */
    private final int left;

    private final int top;
    private final FrameRange range;

    /**
     * @param part of the treated picture; cut to it and grown to even sides
     * @param range of source frames
     */
    public Proof(FrameSource clip, Treatment treatment, Region part, FrameRange range) {
        this.clip = clip;
        Sides sides = Sides.of(treatment);
        Format out = sides.treated();
        Placement place = sides.place();
        this.part = part.within(out.width(), out.height()).aligned(Chroma.S420, out.width() & -2, out.height() & -2);
        this.range = sides.chain().outputOf(range);
        var steps = new ArrayList<>(sides.base().recipe().steps());
        int width = Math.max(2, (int) Math.round(place.width()));
        int height = Math.max(2, (int) Math.round(place.height()));
        steps.add(Step.of("enlarge", Map.of("width", width, "height", height, "kernel", "bilinear")));
        this.treated = eightBits(sides.chain());
        this.source = eightBits(
                new Recipe(steps).on(treatment.material(), treatment.form()).chain());
        this.file = forScreens(treated.output(), this.part.width(), 2 * this.part.height());
        this.left = even(place.x());
        this.top = even(place.y());
        this.sourcePart = inside(
                this.part, left, top, source.output().width(), source.output().height());
    }

    private static int even(double at) {
        return 2 * (int) Math.round(at / 2);
    }

    /** The part in the source's picture, empty sides where it shows nothing of it. */
    private static Region inside(Region part, int left, int top, int width, int height) {
        int x = Math.clamp(part.x() - left, 0, width & -2);
        int y = Math.clamp(part.y() - top, 0, height & -2);
        int right = Math.clamp(part.right() - left, x, width & -2);
        int bottom = Math.clamp(part.bottom() - top, y, height & -2);
        return new Region(x, y, Math.max(2, right - x), Math.max(2, bottom - y)).within(width, height);
    }

    private static Chain eightBits(Chain chain) {
        Format out = chain.output();
        return chain.then(LayoutStages.between(
                out, LIKE_A_FILE.fileFormat(out, chain.source().height())));
    }

    /** A page shows stills without regard to primaries and curve; with these tags its player does the same. */
    private static Format forScreens(Format format, int width, int height) {
        var tags = format.colour();
        var screen = new ColourTags(
                tags.matrixFor(format.height()),
                tags.rangeFor(format.chroma()),
                ColourTags.Transfer.BT709,
                ColourTags.Primaries.BT709);
        return new Format(width, height, Chroma.S420, format.siting(), 8, screen, Rational.ONE);
    }

    /** Bytes of planes and buffers that making it holds, roughly. */
    public long memoryBytes(Machine machine) {
        long source = new RawLayout(this.source.source()).frameBytes();
        return treated.bytesAlive(part)
                + this.source.bytesAlive(sourcePart)
                + treated.workBytes() * machine.threads()
                + 2 * source
                + 2 * file.floatBytes();
    }

    /** Seconds of the source that go by in one of the proof's. */
    public Rational speed() {
        return treated.speed();
    }

    /** Frames it will hold. */
    public long frames() {
        return range.count();
    }

    /** The part of the treated picture that it shows. */
    public Region part() {
        return part;
    }

    /**
     * Makes it, at most until it is told to stop; what was made until then is a whole file.
     *
     * @param rate frames a second of the file
     * @param watch hears frames done
     * @return frames made
     * @throws MediaException with a sentence when it went wrong
     */
    public long make(
            Path out,
            Rational rate,
            Optional<ProofEncoding.Sound> sound,
            Machine machine,
            RenderWatch watch,
            Cancel cancel) {
        var layout = new RawLayout(file);
        byte[] raw = new byte[layout.frameBytes()];
        long done = 0;
        try (var encoding = new ProofEncoding(out, file, rate, sound, machine.threads());
                FrameStream frames = treated.open(clip, range, part, machine.planes(), machine.work(cancel));
                var sources = new Sources(machine, cancel)) {
            try {
                while (done < range.count()) {
                    cancel.check();
                    watch.giveWay();
                    Optional<Frame> frame = frames.next();
                    if (frame.isEmpty()) {
                        break;
                    }
                    Frame stack = Frame.blank(file, file.whole(), done, Rational.ZERO, machine.planes());
                    place(sources.at(range.from() + done), stack, 0);
                    place(Optional.of(new Placed(frame.get(), 0, 0)), stack, part.height());
                    frame.get().release(machine.planes());
                    layout.pack(stack, raw);
                    stack.release(machine.planes());
                    encoding.write(raw);
                    done++;
                    watch.frames(done, new RenderWatch.Shares(0, 0, 0));
                }
            } catch (Cancel.Stopped e) {
                // what is there can be played
            }
            if (done == 0) {
                cancel.check();
                throw new MediaException("no picture could be decoded in this span; the file is damaged there");
            }
            encoding.finish();
        }
        return done;
    }

    /** A frame and where it begins inside the part. */
    private record Placed(Frame frame, int x, int y) {}

    private void place(Optional<Placed> placed, Frame stack, int top) {
        for (int p = 0; p < 3; p++) {
            int step = p == 0 ? 1 : 2;
            Plane to = stack.plane(p);
            if (placed.isEmpty() || placed.get().frame().planes().get(p).width() < to.width()) {
                for (int y = 0; y < part.height() / step; y++) {
                    int row = to.row(top / step + y);
                    java.util.Arrays.fill(to.data(), row, row + to.width(), 0f);
                }
            }
            if (placed.isPresent()) {
                Plane from = placed.get().frame().plane(p);
                int x = placed.get().x() / step;
                int y = placed.get().y() / step;
                for (int j = 0; j < Math.min(from.height(), part.height() / step - y); j++) {
                    System.arraycopy(
                            from.data(),
                            from.row(j),
                            to.data(),
                            to.row(top / step + y + j) + x,
                            Math.max(0, Math.min(from.width(), to.width() - x)));
                }
            }
        }
    }

    /** The source's frames, each held as long as it is the one that belongs to the treated frame. */
    private final class Sources implements AutoCloseable {
        private final Machine machine;
        private final FrameStream stream;
        private final int x;
        private final int y;
        private long next;
        private Frame held;

        Sources(Machine machine, Cancel cancel) {
            this.machine = machine;
            this.next = number(range.from());
            long end = number(range.end() - 1) + 1;
            this.stream =
                    source.open(clip, new FrameRange(next, end), sourcePart, machine.planes(), machine.work(cancel));
            this.x = Math.max(0, left - part.x());
            this.y = Math.max(0, top - part.y());
        }

        /** The last source frame that is not later than a treated one. */
        private long number(long output) {
            Rational at = treated.position(output);
            long n = source.outputOf(FrameRange.single(at.floor())).from();
            while (source.position(n + 1).compareTo(at) <= 0) {
                n++;
            }
            return n;
        }

        Optional<Placed> at(long output) {
            long wanted = number(output);
            while (next <= wanted) {
                Optional<Frame> frame = stream.next();
                next++;
                if (frame.isPresent()) {
                    release();
                    held = frame.get();
                }
            }
            return held == null ? Optional.empty() : Optional.of(new Placed(held, x, y));
        }

        private void release() {
            if (held != null) {
                held.release(machine.planes());
                held = null;
            }
        }

        @Override
        public void close() {
            release();
            stream.close();
        }
    }
}
