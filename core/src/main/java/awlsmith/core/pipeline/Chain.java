package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * Stages one behind the other. Rendering a range and region asks the source for just the frames and pixels the stages
 * reach for; memory is bounded by those windows whatever the clip's length.
 */
public final class Chain {
    private final Format source;
    private final Optional<Timing> times;
    private final List<Stage> stages;

    /** Frames keep the times that the stages give them. */
    public Chain(Format source, List<Stage> stages) {
        this(source, Optional.empty(), stages);
    }

    /** @param times of the source's frames, by which all frames' times are known */
    public Chain(Format source, Timing times, List<Stage> stages) {
        this(source, Optional.of(times), stages);
    }

    private Chain(Format source, Optional<Timing> times, List<Stage> stages) {
        this.source = source;
        this.times = times;
        this.stages = List.copyOf(stages);
    }

    /** The same with more stages behind. */
    public Chain then(List<Stage> more) {
        var all = new ArrayList<Stage>(stages);
        all.addAll(more);
        return new Chain(source, times, all);
    }

    /** Of the pictures that go in. */
    public Format source() {
        return source;
    }

    /** Of the pictures that come out. */
    public Format output() {
        return stages.isEmpty() ? source : stages.getLast().output();
    }

    /** In the order in which they work. */
    public List<Stage> stages() {
        return stages;
    }

    /** Where the whole source picture lies in the output picture; where geometry moves, at rest. */
    public Placement placement() {
        Placement place = Placement.over(source);
        Format before = source;
        for (Stage stage : stages) {
            place = place.within(before, stage.placement());
            before = stage.output();
        }
        return place;
    }

    /** Where the whole source picture lies in an output frame. */
    public Placement placement(long output) {
        long[] numbers = new long[stages.size()];
        long number = output;
        for (int i = numbers.length - 1; i >= 0; i--) {
            numbers[i] = number;
            number = stages.get(i).position(number).floor();
        }
        Placement place = Placement.over(source);
        Format before = source;
        for (int i = 0; i < numbers.length; i++) {
            Stage stage = stages.get(i);
            place = place.within(before, stage.placement(numbers[i]));
            before = stage.output();
        }
        return place;
    }

    /** Whether the placement differs from frame to frame. */
    public boolean isMoving() {
        return stages.stream().anyMatch(Stage::isMoving);
    }

    /** Whether any of the stages sees the source by another way too, so that frames which others made of it do not stand in for it. */
    public boolean seesSourceBeside() {
        return stages.stream().anyMatch(stage -> stage.beside().isPresent());
    }

    /** When output frames are shown, by when the source's are. */
    public Timing times(Timing of) {
        Timing times = of;
        for (Stage stage : stages) {
            times = stage.times(times);
        }
        return times;
    }

    /** Seconds of the source that go by in one second of the output. */
    public Rational speed() {
        return stages.stream().map(Stage::speed).reduce(Rational.ONE, Rational::times);
    }

    /** Where in the source an output frame lies, in source frames. */
    public Rational position(long output) {
        Rational place = Rational.of(output);
        for (Stage stage : stages.reversed()) {
            long below = place.floor();
            Rational rest = place.minus(Rational.of(below));
            Rational from = stage.position(below);
            place = from.plus(rest.times(stage.position(below + 1).minus(from)));
        }
        return place;
    }

    /** The output frames that a range of source frames makes; at least one. */
    public FrameRange outputOf(FrameRange range) {
        long from = range.from();
        long end = range.end();
        for (Stage stage : stages) {
            from = stage.firstFrom(from);
            end = range.isOpen() ? FrameRange.OPEN : stage.firstFrom(end);
        }
        return new FrameRange(from, range.isOpen() ? end : Math.max(from + 1, end));
    }

    /** The part of the source picture that a part of the output is made from. */
    public Region needs(Region output) {
        return regions(output, FrameRange.all()).getFirst();
    }

    /**
     * Most bytes of planes alive at once while one frame over the given part of the output is made, with what the one stage at work needs
     * beside them whatever the threads.
     */
    public long bytesAlive(Region output) {
        var regions = regions(output, FrameRange.all());
        Format format = source;
        long bytes = 0;
        for (int i = 0; i < stages.size(); i++) {
            Stage stage = stages.get(i);
            bytes += format.floatBytes(regions.get(i)) * (stage.before() + stage.after() + 1);
            Region held = regions.get(i);
            bytes += stage.beside().map(way -> way.bytesAlive(held)).orElse(0L);
            format = stage.output();
        }
        long shared = stages.stream().mapToLong(Stage::sharedBytes).max().orElse(0);
        return bytes + format.floatBytes(regions.getLast()) + shared;
    }

    /** Most bytes beside planes that one thread needs in any of the stages; they run one after the other. */
    public long workBytes() {
        return stages.stream()
                .mapToLong(stage -> Math.max(
                        stage.workBytes(), stage.beside().map(Chain::workBytes).orElse(0L)))
                .max()
                .orElse(0);
    }

    /**
     * Output frames of a range, each holding the wanted part.
     *
     * @param range of output frames
     * @param wanted part of the output picture, on whole chroma samples
     */
    public FrameStream open(FrameSource clip, FrameRange range, Region wanted, PlanePool pool, Work work) {
        var ranges = ranges(range);
        var regions = regions(wanted, ranges);
        FrameStream stream = clip.open(ranges.getFirst(), regions.getFirst(), pool, work.cancel());
        Optional<Timing> shown = times;
        for (int i = 0; i < stages.size(); i++) {
            Stage stage = stages.get(i);
            shown = shown.map(stage::times);
            FrameRange reached = ranges.get(i);
            Region held = regions.get(i);
            var beside = stage.beside().map(way -> way.open(clip, reached, held, pool, work));
            stream = new StageStream(stream, beside, stage, ranges.get(i + 1), regions.get(i + 1), shown, pool, work);
        }
        return stream;
    }

    /** Frames before each stage and behind the last. */
    private List<FrameRange> ranges(FrameRange output) {
        var ranges = new ArrayList<FrameRange>();
        ranges.add(output);
        for (Stage stage : stages.reversed()) {
            FrameRange wanted = ranges.getFirst();
            long from = stage.position(wanted.from()).floor();
            long end = wanted.isOpen()
                    ? FrameRange.OPEN
                    : stage.position(wanted.end() - 1).floor() + 1;
            ranges.addFirst(new FrameRange(from, end).widened(stage.before(), stage.after()));
        }
        return ranges;
    }

    private List<Region> regions(Region output, FrameRange range) {
        return regions(output, ranges(range));
    }

    /**
     * Regions before each stage and behind the last.
     *
     * @param ranges frames before each stage and behind the last
     */
    private List<Region> regions(Region output, List<FrameRange> ranges) {
        var regions = new ArrayList<Region>();
        regions.add(output);
        for (int i = stages.size() - 1; i >= 0; i--) {
            regions.addFirst(stages.get(i).needs(regions.getFirst(), ranges.get(i + 1)));
        }
        return regions;
    }

    /** Input frames around the one at {@code here}. */
    private record Near(Frame[] frames, int here, long number, Memory memory, Optional<Frame> other)
            implements Stage.Neighbours {
        @Override
        public Frame at(int distance) {
            return frames[Math.clamp((long) here + distance, 0, frames.length - 1)];
        }

        @Override
        public Frame beside() {
            return other.orElseThrow();
        }

        @Override
        public <T> T remember(int distance, String what, Supplier<T> make) {
            return memory.of(at(distance).number(), what, make);
        }
    }

    /** Keeps the few input frames one stage looks at. */
    private static final class StageStream implements FrameStream {
        private final FrameStream input;
        private final Optional<FrameStream> beside;
        private final Stage stage;
        private final FrameRange range;
        private final Region wanted;
        private final Optional<Timing> times;
        private final PlanePool pool;
        private final Work work;
        private final Deque<Frame> held = new ArrayDeque<>();
        private final Memory memory = new Memory();
        private Optional<Frame> other = Optional.empty();
        private boolean inputEnded;
        private long nextNumber;

        StageStream(
                FrameStream input,
                Optional<FrameStream> beside,
                Stage stage,
                FrameRange range,
                Region wanted,
                Optional<Timing> times,
                PlanePool pool,
                Work work) {
            this.input = input;
            this.beside = beside;
            this.stage = stage;
            this.range = range;
            this.wanted = wanted;
            this.times = times;
            this.pool = pool;
            this.work = work;
            this.nextNumber = range.from();
        }

        @Override
        public Format format() {
            return stage.output();
        }

        @Override
        public Optional<Frame> next() {
            work.cancel().check();
            if (nextNumber >= range.end()) {
                return Optional.empty();
            }
            long base = stage.position(nextNumber).floor();
            fill(base + stage.after());
            while (!held.isEmpty() && held.peekFirst().number() < base - stage.before()) {
                held.pollFirst().release(pool);
            }
            memory.forgetBefore(base - stage.before());
            Frame[] near = held.toArray(Frame[]::new);
            if (near.length == 0 || near[near.length - 1].number() < base) {
                return Optional.empty();
            }
            int here = 0;
            while (near[here].number() < base) {
                here++;
            }
            beside.ifPresent(stream -> follow(stream, base));
            Frame made = stage.treat(new Near(near, here, nextNumber, memory, other), wanted, pool, work);
            long number = nextNumber++;
            return Optional.of(times.map(shown -> made.timed(shown.at(number))).orElse(made));
        }

        /** Reads on to a frame of the other way; where that ends sooner, its last frame stays. */
        private void follow(FrameStream stream, long number) {
            while (other.isEmpty() || other.get().number() < number) {
                Optional<Frame> next = stream.next();
                if (next.isEmpty()) {
                    return;
                }
                other.ifPresent(frame -> frame.release(pool));
                other = next;
            }
        }

        private void fill(long last) {
            while (!inputEnded && (held.isEmpty() || held.peekLast().number() < last)) {
                var frame = input.next();
                frame.ifPresent(held::addLast);
                inputEnded = frame.isEmpty();
            }
        }

        @Override
        public void close() {
            held.forEach(frame -> frame.release(pool));
            held.clear();
            other.ifPresent(frame -> frame.release(pool));
            other = Optional.empty();
            inputEnded = true;
            try {
                beside.ifPresent(FrameStream::close);
            } finally {
                input.close();
            }
        }
    }
}
