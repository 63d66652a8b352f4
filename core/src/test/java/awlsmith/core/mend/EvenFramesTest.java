package awlsmith.core.mend;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class EvenFramesTest {
    private static final Rational RATE = Rational.of(25);
    private static final Format FORMAT =
            new Format(16, 8, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    /** Frames whose light is their own time, in fiftieths of it; given at those times. */
    private record Timed(double... seconds) implements FrameSource {
        Rational time(long n) {
            double at = n < seconds.length ? seconds[(int) n] : seconds[seconds.length - 1] + 0.04;
            return new Rational(Math.round(at * 1000), 1000);
        }

        @Override
        public Format format() {
            return FORMAT;
        }

        @Override
        public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
            return new FrameStream() {
                private long n = range.from();

                @Override
                public Format format() {
                    return FORMAT;
                }

                @Override
                public Optional<Frame> next() {
                    if (n >= seconds.length) {
                        return Optional.empty();
                    }
                    Frame frame = Frame.blank(FORMAT, window, n, time(n), pool);
                    frame.planes().forEach(plane -> plane.fill((float) seconds[(int) n]));
                    n++;
                    return Optional.of(frame);
                }

                @Override
                public void close() {}
            };
        }
    }

    private static EvenFrames even(double... seconds) {
        var source = new Timed(seconds);
        return new EvenFrames(source, source::time, seconds.length, RATE);
    }

    private static List<Double> light(EvenFrames even, FrameRange range) {
        var all = new ArrayList<Double>();
        try (var stream = even.open(range, FORMAT.whole(), new PlanePool(1 << 20), new Cancel())) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                assertThat(frame.get().time())
                        .isEqualTo(Rational.of(frame.get().number()).dividedBy(RATE));
                all.add((double) frame.get().plane(2).at(3, 2));
            }
        }
        return all;
    }

    private static void assertEven(List<Double> light, double first) {
        for (int n = 0; n < light.size(); n++) {
            assertThat(light.get(n)).as("frame %d", n).isCloseTo(first + 0.04 * n, within(0.0011));
        }
    }

    @Test
    void whatIsEvenStaysAsItIs() {
        var even = even(0, 0.04, 0.08, 0.12);
        assertThat(even.made()).isZero();
        assertThat(light(even, FrameRange.all())).hasSize(4);
        assertEven(light(even, FrameRange.all()), 0);
    }

    /** Light rises with time, so mixing both sides at the right share gives the light of the time that is missing. */
    @Test
    void lostFramesAreMadeOfTheirNeighbours() {
        var even = even(0, 0.04, 0.16, 0.20, 0.32);
        assertThat(even.count()).isEqualTo(9);
        assertThat(even.made()).isEqualTo(4);
        assertEven(light(even, FrameRange.all()), 0);
        assertThat(even.seconds()).isEqualTo(new Rational(9, 25));
    }

    @Test
    void anySpanIsThatOfTheWhole() {
        var even = even(0, 0.04, 0.16, 0.20, 0.32);
        for (int from = 0; from < 9; from++) {
            var some = light(even, new FrameRange(from, 9));
            assertThat(some).hasSize(9 - from);
            assertEven(some, 0.04 * from);
        }
        assertThat(light(even, new FrameRange(2, 3))).hasSize(1);
    }

    @Test
    void framesThatTrembleAroundTheirTimesAreAllKept() {
        var even = even(0, 0.047, 0.073, 0.121, 0.155);
        assertThat(even.made()).isZero();
        assertThat(light(even, FrameRange.all())).hasSize(5);
    }

    @Test
    void timesThatJumpAreRefused() {
        assertThatThrownBy(() -> even(0, 0.04, 0.08, 3600)).hasMessageContaining("its times jump");
    }
}
