package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class DecodingTest {
    private static final PlanePool POOL = new PlanePool(1 << 24);

    @TempDir
    static Path folder;

    static List<Frame> frames(Clip clip, FrameRange range, Region window) {
        var frames = new ArrayList<Frame>();
        try (var stream = clip.open(range, window, new PlanePool(0), new Cancel())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(frame.get());
            }
        }
        return frames;
    }

    static Clip indexed(Path file) {
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    static Stream<Arguments> containers() {
        return Stream.of(
                Arguments.of("a.mp4", "25", "-pix_fmt yuv420p -c:v libx264 -g 30 -bf 3"),
                Arguments.of("b.mkv", "24000/1001", "-pix_fmt yuv420p -c:v libx264 -g 250 -bf 3"),
                Arguments.of("c.mpg", "25", "-c:v mpeg2video -g 12 -bf 2 -b:v 3000k"),
                Arguments.of("d.ts", "30000/1001", "-pix_fmt yuv420p -c:v libx264 -g 40"),
                Arguments.of("e.avi", "25", "-c:v mpeg4 -bf 2 -g 60 -q:v 3"),
                Arguments.of("f.mov", "50", "-c:v prores_ks -profile:v 2"),
                Arguments.of("g.mkv", "12.5", "-pix_fmt yuv422p10le -c:v ffv1 -level 3"),
                Arguments.of("h.webm", "30", "-pix_fmt yuv420p -c:v libvpx-vp9 -deadline realtime -cpu-used 8 -g 33"));
    }

    @ParameterizedTest
    @MethodSource("containers")
    void anyFrameIsReachedExactlyInAnyContainer(String name, String rate, String codec) {
        Path file = TestClips.moving(folder, name, 96, 64, rate, 90, codec);
        Clip clip = indexed(file);
        assertThat(clip.index().orElseThrow().count()).isEqualTo(90);
        assertThat(clip.steadyRate()).contains(Rational.parse(rate));
        Region all = clip.format().whole();
        List<Frame> straight = frames(clip, FrameRange.all(), all);
        assertThat(straight).hasSize(90);
        for (int n : new int[] {0, 1, 29, 30, 31, 57, 88, 89}) {
            List<Frame> reached = frames(clip, new FrameRange(n, Math.min(90, n + 2)), all);
            for (Frame frame : reached) {
                Frame same = straight.get((int) frame.number());
                assertThat(frame.time()).isEqualTo(Rational.of(frame.number()).dividedBy(Rational.parse(rate)));
                assertThat(frame.plane(0).packed())
                        .as("%s frame %d", name, frame.number())
                        .isEqualTo(same.plane(0).packed());
                assertThat(frame.plane(2).packed()).isEqualTo(same.plane(2).packed());
            }
        }
    }

    @Test
    void aWindowHoldsTheSamePixelsAsTheWhole() {
        Path file = TestClips.moving(folder, "window.mp4", 97, 63, "25", 12, "-pix_fmt yuv444p -c:v libx264");
        Clip clip = indexed(file);
        var part = new Region(12, 20, 33, 17);
        Frame whole = frames(clip, FrameRange.single(7), clip.format().whole()).getFirst();
        Frame window = frames(clip, FrameRange.single(7), part).getFirst();
        for (int p = 0; p < 3; p++) {
            assertThat(window.plane(p).packed())
                    .isEqualTo(whole.cut(part).plane(p).packed());
        }
    }

    @Test
    void unevenFramesKeepTheirTimes() {
        Path file = folder.resolve("uneven.mkv");
        // every third frame left out: gaps of one and two frames in turn
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=30:d=2 -vf select='not(eq(mod(n\\,3)\\,1))' -fps_mode vfr "
                + "-c:v ffv1 " + file);
        Clip clip = indexed(file);
        assertThat(clip.steadyRate()).isEmpty();
        List<Double> expected = TestClips.times(file);
        List<Frame> frames = frames(clip, FrameRange.all(), clip.format().whole());
        assertThat(frames).hasSize(expected.size());
        for (int i = 0; i < frames.size(); i++) {
            assertThat(frames.get(i).time().toDouble()).isCloseTo(expected.get(i) - expected.getFirst(), within(1e-6));
        }
        assertThat(frames(clip, FrameRange.single(11), clip.format().whole())
                        .getFirst()
                        .time())
                .isEqualTo(frames.get(11).time());
    }

    @Test
    void streamingNoticesThatTheRateIsNotKept() {
        Path file = folder.resolve("gap.mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25:d=3 -vf select='lt(n\\,30)+gt(n\\,45)' -fps_mode vfr "
                + "-pix_fmt yuv420p -c:v libx264 " + file);
        MediaInfo info = Prober.probe(file);
        var unsteady = new MediaInfo.Video(
                info.video().index(),
                "h264",
                "",
                info.video().format(),
                info.video().decodeAs(),
                java.util.Optional.empty(),
                0,
                Rational.of(25),
                true,
                info.video().timeBase(),
                Rational.ZERO,
                0,
                0);
        var claimed = new MediaInfo(
                file, "mp4", 1, Rational.ZERO, Optional.empty(), 0, unsteady, List.of(), MediaInfo.Extras.NONE);
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> frames(
                        Clip.streamed(claimed),
                        FrameRange.all(),
                        info.video().format().whole()))
                .isInstanceOf(Clip.Unsteady.class);
    }

    @Test
    void theIndexIsTheSameFromDisk() throws Exception {
        var index = new FrameIndex(
                new Rational(1, 1000),
                new long[] {5, 45, 85, 200},
                new int[] {7, -8, 9, 0},
                3,
                new int[] {2},
                3,
                true,
                FrameIndex.AlphaSeen.OPAQUE);
        Path file = folder.resolve("index");
        index.save(file);
        FrameIndex back = FrameIndex.load(file);
        assertThat(back.count()).isEqualTo(4);
        assertThat(back.isSingle()).isTrue();
        assertThat(back.errors()).isEqualTo(3);
        assertThat(back.time(3)).isEqualTo(new Rational(195, 1000));
        assertThat(back.frameAt(new Rational(79, 1000))).isEqualTo(1);
        assertThat(back.frameAt(new Rational(80, 1000))).isEqualTo(2);
        assertThat(back.steadyRate(Rational.of(25))).isEmpty();
    }

    @Test
    void aDamagedFileGivesWhatDecodesAndCountsItsFaults() throws Exception {
        Path whole = TestClips.moving(folder, "damage.ts", 160, 120, "25", 80, "-pix_fmt yuv420p -c:v libx264 -g 10");
        byte[] bytes = java.nio.file.Files.readAllBytes(whole);
        for (int i = bytes.length / 3; i < bytes.length / 3 + 3000; i++) {
            bytes[i] ^= (byte) 0x5a;
        }
        Path file = folder.resolve("damaged.ts");
        java.nio.file.Files.write(file, bytes);
        Clip clip = indexed(file);
        int count = clip.index().orElseThrow().count();
        assertThat(count).isBetween(50, 80);
        assertThat(clip.index().orElseThrow().errors()).isPositive();
        assertThat(frames(clip, FrameRange.single(count - 1), clip.format().whole()))
                .hasSize(1);
    }

    /** Three hours at 30000/1001, evenly and with every time a little off: read back the same, searched right, small. */
    @Test
    void theIndexOfALongClipIsSmall() throws IOException {
        int count = 325_000;
        for (boolean even : new boolean[] {true, false}) {
            long[] times = new long[count];
            for (int n = 0; n < count; n++) {
                times[n] = even ? 77 + 1001L * n : Math.round(n * 1001 / 30.0);
            }
            var index = new FrameIndex(
                    new Rational(1, even ? 30_000 : 1000),
                    times,
                    new int[count],
                    0,
                    new int[0],
                    0,
                    false,
                    FrameIndex.AlphaSeen.OPAQUE);
            Path file = folder.resolve("long-index-" + even);
            index.save(file);
            assertThat(Files.size(file)).isLessThan(4L * count + 60_000);
            FrameIndex back = FrameIndex.load(file);
            assertThat(back.fingerprint()).isEqualTo(index.fingerprint());
            for (int n = 0; n < count; n += 7919) {
                assertThat(back.frameAtTick(times[n])).isEqualTo(n);
                assertThat(back.frameAtTick(times[n] + 1)).isEqualTo(n);
            }
            assertThat(back.frameAtTick(times[0] - 50)).isZero();
            assertThat(back.frameAtTick(Long.MAX_VALUE / 4)).isEqualTo(count - 1);
        }
    }
}
