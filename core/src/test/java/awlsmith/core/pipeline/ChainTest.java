package awlsmith.core.pipeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class ChainTest {
    private static Format format(Chroma chroma) {
        return new Format(46, 35, chroma, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    /** A clip of random frames, made anew for whatever part is asked. */
    static final class RandomClip implements FrameSource {
        private final Format format;
        private final long count;
        final AtomicInteger pulled = new AtomicInteger();
        final List<Region> windows = new ArrayList<>();

        RandomClip(Format format, long count) {
            this.format = format;
            this.count = count;
        }

        @Override
        public Format format() {
            return format;
        }

        @Override
        public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
            windows.add(window);
            return new FrameStream() {
                private long next = range.from();

                @Override
                public Format format() {
                    return format;
                }

                @Override
                public Optional<Frame> next() {
                    if (next >= Math.min(count, range.end())) {
                        return Optional.empty();
                    }
                    pulled.incrementAndGet();
                    Frame whole = Frame.blank(format, format.whole(), next, Rational.of(next), new PlanePool(0));
                    var random = new Random(next);
                    for (Plane plane : whole.planes()) {
                        for (int i = 0; i < plane.data().length; i++) {
                            plane.data()[i] = random.nextFloat();
                        }
                    }
                    next++;
                    return Optional.of(whole.cut(window));
                }

                @Override
                public void close() {
                    next = Long.MAX_VALUE;
                }
            };
        }
    }

    /** Adds up what it found out of the frames around, and counts how often it had to. */
    private record Remembering(Format output, AtomicInteger found) implements Stage {
        @Override
        public int before() {
            return 2;
        }

        @Override
        public int after() {
            return 2;
        }

        @Override
        public Region needs(Region wanted) {
            return wanted;
        }

        @Override
        public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
            Frame here = input.at(0);
            Frame out = Frame.blank(output, wanted, here.number(), here.time(), pool);
            float sum = 0;
            for (int d = -2; d <= 2; d++) {
                int distance = d;
                sum += input.remember(d, "corner", () -> {
                    found.incrementAndGet();
                    return input.at(distance).plane(0).at(0, 0);
                });
            }
            out.plane(0).fill(sum);
            return out;
        }
    }

    /** What is found out of a frame is found once a stream, and a stream begun anywhere comes to the same. */
    @Test
    void whatIsFoundOutOfAFrameIsFoundOnce() {
        Format format = format(Chroma.GREY);
        var clip = new RandomClip(format, 12);
        var found = new AtomicInteger();
        var chain = new Chain(format, List.of(new Remembering(format, found)));
        var sums = new ArrayList<Float>();
        try (var frames = chain.open(clip, FrameRange.all(), format.whole(), new PlanePool(0), Work.alone())) {
            frames.next().ifPresent(frame -> sums.add(frame.plane(0).at(0, 0)));
            for (var frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                sums.add(frame.get().plane(0).at(0, 0));
            }
        }
        assertThat(sums).hasSize(12);
        assertThat(found).hasValue(12);
        try (var frames = chain.open(clip, new FrameRange(7, 9), format.whole(), new PlanePool(0), Work.alone())) {
            assertThat(frames.next().orElseThrow().plane(0).at(3, 3)).isEqualTo(sums.get(7));
            assertThat(frames.next().orElseThrow().plane(0).at(3, 3)).isEqualTo(sums.get(8));
        }
        assertThat(found).hasValue(12 + 6);
    }

    /** Mean of a few neighbours in time: reaches in time, not in space. */
    private record Mean(Format output, int before, int after) implements Stage {
        @Override
        public Region needs(Region wanted) {
            return wanted;
        }

        @Override
        public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
            Frame here = input.at(0);
            Frame out = Frame.blank(output, wanted, here.number(), here.time(), pool);
            for (int p = 0; p < out.planes().size(); p++) {
                for (int y = 0; y < out.plane(p).height(); y++) {
                    for (int x = 0; x < out.plane(p).width(); x++) {
                        float sum = 0;
                        for (int d = -before; d <= after; d++) {
                            sum += input.at(d).cut(wanted).plane(p).at(x, y);
                        }
                        out.plane(p).set(x, y, sum / (before + after + 1));
                    }
                }
            }
            return out;
        }
    }

    private static Chain chain(Format source) {
        Format large = source.withSize(101, 64, Rational.ONE);
        return new Chain(
                source,
                List.of(
                        new Mean(source, 2, 1),
                        new EnlargeStage(source, large, Kernel.LANCZOS3),
                        new Mean(large, 0, 1)));
    }

    private static List<Frame> render(Chain chain, FrameSource clip, FrameRange range, Region part) {
        var frames = new ArrayList<Frame>();
        try (var stream = chain.open(clip, range, part, new PlanePool(1 << 20), Work.alone())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(frame.get());
            }
        }
        return frames;
    }

    @ParameterizedTest
    @EnumSource(Chroma.class)
    void anyRangeAndRegionIsCutFromTheWhole(Chroma chroma) {
        Format source = format(chroma);
        Chain chain = chain(source);
        var clip = new RandomClip(source, 12);
        List<Frame> whole = render(chain, clip, FrameRange.all(), chain.output().whole());
        assertThat(whole).hasSize(12);
        Region part = new Region(20, 10, 31, 17).aligned(chroma, 101, 64);
        for (FrameRange range :
                List.of(new FrameRange(0, 3), new FrameRange(5, 9), new FrameRange(11, 12), new FrameRange(10, 40))) {
            List<Frame> some = render(chain, clip, range, part);
            assertThat(some).hasSize((int) (Math.min(12, range.end()) - range.from()));
            for (Frame frame : some) {
                Frame same = whole.get((int) frame.number()).cut(part);
                for (int p = 0; p < chroma.planes(); p++) {
                    assertThat(frame.plane(p).packed()).isEqualTo(same.plane(p).packed());
                }
            }
        }
    }

    @Test
    void oneFrameOfARegionPullsOnlyWhatItReachesFor() {
        Format source = format(Chroma.S420);
        Chain chain = chain(source);
        var clip = new RandomClip(source, 1000);
        render(chain, clip, FrameRange.single(500), new Region(0, 0, 8, 8));
        // the last stage looks one ahead, the first two back and one ahead: 498..502
        assertThat(clip.pulled.get()).isEqualTo(5);
        assertThat(clip.windows.getFirst().width()).isLessThan(16);
    }

    @Test
    void cancellingStopsBeforeTheNextFrame() {
        Format source = format(Chroma.S444);
        var cancel = new Cancel();
        var work = new Work(Runnable::run, 1, cancel);
        try (var stream = chain(source)
                .open(new RandomClip(source, 9), FrameRange.all(), new Region(0, 0, 101, 64), new PlanePool(0), work)) {
            assertThat(stream.next()).isPresent();
            cancel.ask();
            assertThatThrownBy(stream::next).isInstanceOf(Cancel.Stopped.class);
        }
    }

    @Test
    void pullingAheadGivesTheSameFramesAndPassesFaultsOn() {
        Format source = format(Chroma.GREY);
        var clip = new RandomClip(source, 7);
        var pool = new PlanePool(0);
        try (var ahead = new Ahead(clip.open(FrameRange.all(), source.whole(), pool, new Cancel()), 2, pool)) {
            for (int n = 0; n < 7; n++) {
                assertThat(ahead.next().orElseThrow().number()).isEqualTo(n);
            }
            assertThat(ahead.next()).isEmpty();
            assertThat(ahead.next()).isEmpty();
        }
        FrameStream broken = new FrameStream() {
            @Override
            public Format format() {
                return source;
            }

            @Override
            public Optional<Frame> next() {
                throw new IllegalStateException("broken on purpose");
            }

            @Override
            public void close() {}
        };
        try (var ahead = new Ahead(broken, 2, pool)) {
            assertThatThrownBy(ahead::next).hasMessage("broken on purpose");
        }
    }

    @Test
    void bandsCoverEveryRowOnceAndPassFaultsOn() throws InterruptedException {
        try (var pool = Executors.newFixedThreadPool(3)) {
            var work = new Work(pool, 3, new Cancel());
            int[] seen = new int[97];
            work.bands(97, 8, (from, to) -> {
                for (int y = from; y < to; y++) {
                    seen[y]++;
                }
            });
            assertThat(seen).containsOnly(1);
            assertThatThrownBy(() -> work.bands(97, 1, (from, to) -> {
                        if (from > 20) {
                            throw new IllegalStateException("on purpose");
                        }
                    }))
                    .hasMessage("on purpose");
            var done = new CountDownLatch(1);
            pool.execute(done::countDown);
            done.await();
        }
    }
}
