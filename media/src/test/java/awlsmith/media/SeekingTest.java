package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Frame;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Frames reached in the middle of files whose frames are not right wherever one begins. */
class SeekingTest {
    private static final int FRAMES = 75;

    @TempDir
    static Path folder;

    private static void assertEveryPlaceIsAsFromTheStart(Clip clip) {
        var all = clip.format().whole();
        List<Frame> straight = DecodingTest.frames(clip, FrameRange.all(), all);
        int count = clip.index().orElseThrow().count();
        assertThat(straight).hasSize(count);
        for (int n = 1; n < count; n += 14) {
            for (Frame frame : DecodingTest.frames(clip, new FrameRange(n, Math.min(count, n + 3)), all)) {
                Frame same = straight.get((int) frame.number());
                for (int p = 0; p < frame.planes().size(); p++) {
                    assertThat(frame.plane(p).packed())
                            .as("frame %d plane %d", frame.number(), p)
                            .isEqualTo(same.plane(p).packed());
                }
            }
        }
    }

    /** Groups whose first pictures need the group before (ITU-T H.262, H.264, H.265), and H.264 without key frames at all. */
    @ParameterizedTest
    @CsvSource({
        "open.mpg, -c:v mpeg2video -g 15 -bf 2 -flags -cgop -q:v 4",
        "open.ts, -pix_fmt yuv420p -c:v libx264 -x264-params open-gop=1:keyint=20:min-keyint=20:scenecut=0:bframes=3",
        "open.mkv, -pix_fmt yuv420p -c:v libx265 -x265-params log-level=error:open-gop=1:keyint=20:min-keyint=20:bframes=4",
        "refresh.mp4, -pix_fmt yuv420p -c:v libx264 -bf 0 -x264-params intra-refresh=1:keyint=25:scenecut=0",
        "refresh.ts, -pix_fmt yuv420p -c:v libx264 -bf 0 -x264-params intra-refresh=1:keyint=25:scenecut=0"
    })
    void whereverOneBeginsAFrameIsTheOneDecodedFromTheStart(String name, String codec) {
        Clip clip = DecodingTest.indexed(TestClips.moving(folder, name, 96, 64, "25", FRAMES, codec));
        FrameIndex checked = SeekCheck.check(clip.info(), clip.index().orElseThrow(), share -> {}, new Cancel());
        // where nobody looked beforehand, and where somebody did
        assertEveryPlaceIsAsFromTheStart(clip);
        assertThat(DecodingTest.frames(
                        new Clip(clip.info(), Optional.of(checked)),
                        FrameRange.single(FRAMES - 2),
                        clip.format().whole()))
                .hasSize(1);
    }

    /**
     * FFmpeg's decoder treats 4:4:4 pictures of old versions of one encoder in another way; the version stands in a message of the
     * file's first packet alone.
     */
    @Test
    void aFileWhoseFirstPacketSaysHowToDecodeItIsReadFromItsStart() throws IOException {
        Path file = folder.resolve("old.mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=5,noise=alls=40:allf=t -frames:v " + FRAMES
                + " -pix_fmt yuv444p -c:v libx264 -g 5 -bf 2 " + file);
        byte[] bytes = Files.readAllBytes(file);
        int core = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("- core 1");
        assertThat(core).isPositive();
        System.arraycopy("- core 142".getBytes(StandardCharsets.US_ASCII), 0, bytes, core, 10);
        Path old = folder.resolve("older.mp4");
        Files.write(old, bytes);
        Clip clip = DecodingTest.indexed(old);
        FrameIndex checked = SeekCheck.check(clip.info(), clip.index().orElseThrow(), share -> {}, new Cancel());
        assertThat(checked.isFromStartOnly()).isTrue();
        Path saved = folder.resolve("old-index");
        checked.save(saved);
        assertThat(FrameIndex.load(saved).isFromStartOnly()).isTrue();
        assertEveryPlaceIsAsFromTheStart(new Clip(clip.info(), Optional.of(checked)));
        // also where nobody looked beforehand
        assertEveryPlaceIsAsFromTheStart(clip);
    }

    @Test
    void aWellMadeFileIsReachedAnywhere() {
        Clip clip = DecodingTest.indexed(TestClips.moving(
                folder, "well.mp4", 96, 64, "25", FRAMES, "-pix_fmt yuv420p -c:v libx264 -g 12 -bf 2"));
        FrameIndex checked = SeekCheck.check(clip.info(), clip.index().orElseThrow(), share -> {}, new Cancel());
        assertThat(checked.entry()).isZero();
    }

    /** A file that is another one by now: shorter, or of other pictures. */
    @Test
    void aChangedFileIsASentence() throws IOException {
        Path file = TestClips.moving(folder, "was.avi", 96, 64, "25", 50, "-c:v mjpeg -q:v 3");
        Clip clip = DecodingTest.indexed(file);
        TestClips.moving(folder, "was.avi", 96, 64, "25", 20, "-c:v mjpeg -q:v 3");
        var shorter = new FrameRange(0, 50);
        assertThatThrownBy(
                        () -> DecodingTest.frames(clip, shorter, clip.format().whole()))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("ends before frame 20");
        TestClips.ffmpeg("-f lavfi -i mandelbrot=s=96x64:r=25 -frames:v 50 -c:v mjpeg -q:v 3 " + file);
        assertThatThrownBy(() -> DecodingTest.frames(
                        clip, FrameRange.single(30), clip.format().whole()))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("decodes to another picture");
    }

    /** One packet is lost: the frames behind it keep their numbers, however they are reached. */
    @Test
    void aFrameThatCannotBeDecodedShiftsNothing() throws IOException {
        Path file =
                TestClips.moving(folder, "gap.mkv", 96, 64, "25", FRAMES, "-pix_fmt yuv420p -c:v libx264 -g 25 -bf 0");
        byte[] bytes = Files.readAllBytes(file);
        byte[] damaged = bytes.clone();
        // somewhere in the second third, a stretch of zeros
        Arrays.fill(damaged, bytes.length / 2, bytes.length / 2 + 700, (byte) 0);
        Path other = folder.resolve("gapped.mkv");
        Files.write(other, damaged);
        Clip clip = DecodingTest.indexed(other);
        int count = clip.index().orElseThrow().count();
        List<Frame> straight = DecodingTest.frames(
                clip, new FrameRange(0, count), clip.format().whole());
        assertThat(straight).hasSize(count);
        Frame last = DecodingTest.frames(
                        clip, FrameRange.single(count - 1), clip.format().whole())
                .getFirst();
        assertThat(last.plane(0).packed()).isEqualTo(straight.getLast().plane(0).packed());
    }

    @Test
    void aDecoderKilledFromOutsideIsASentence() {
        Path file = TestClips.moving(folder, "long.mp4", 640, 480, "25", 200, "-pix_fmt yuv420p -c:v libx264 -g 50");
        for (Clip clip : List.of(DecodingTest.indexed(file), Clip.streamed(Prober.probe(file)))) {
            assertThatThrownBy(() -> {
                        try (var stream = (Decoding) clip.open(
                                FrameRange.all(),
                                clip.format().whole(),
                                new awlsmith.core.picture.PlanePool(0),
                                new Cancel())) {
                            for (int n = 0; n < 20; n++) {
                                stream.next();
                            }
                            ProcessHandle.of(stream.pid()).orElseThrow().destroyForcibly();
                            while (stream.next().isPresent()) {
                                // on to where it was killed
                            }
                        }
                    })
                    .isInstanceOf(MediaException.class)
                    .hasMessageContaining("killed while decoding");
        }
    }

    /** Adler-32 by its definition (RFC 1950 section 8.2), begun with 0. */
    @Test
    void theChecksumIsFfmpegs() {
        byte[] raw = new byte[1000];
        long a = 0;
        long b = 0;
        for (int i = 0; i < raw.length; i++) {
            raw[i] = (byte) (i * 31);
            a = (a + (raw[i] & 255)) % 65521;
            b = (b + a) % 65521;
        }
        assertThat(FrameIndex.sum(raw)).isEqualTo((int) (b << 16 | a));
    }
}
