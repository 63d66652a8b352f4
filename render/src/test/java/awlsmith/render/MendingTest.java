package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files that lost frames and sound, mended and read back. */
class MendingTest {
    private static final Machine MACHINE = Machine.of(2);

    @TempDir
    Path folder;

    @AfterAll
    static void end() {
        MACHINE.close();
    }

    /** Half a second of pictures and of sound is lost in the middle; both must be there again, the sound silent. */
    @Test
    void lostFramesAreFilledAndSoundStaysInStep() throws IOException {
        Path whole = folder.resolve("whole.mkv");
        // a tone that begins at 3 s, behind the hole
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=64x48:r=25:d=4 -f lavfi -i aevalsrc=if(gt(t\\,3)\\,sin(2764*t)\\,0.4*sin(999*t)):d=4"
                        + " -pix_fmt yuv420p -c:v ffv1 -c:a pcm_s16le " + whole);
        Path damaged = folder.resolve("damaged.mkv");
        TestClips.ffmpeg("-i " + whole
                + " -bsf:v noise=drop='between(n\\,30\\,41)' -bsf:a noise=drop='between(pts*tb\\,1.2\\,1.68)' -c copy "
                + damaged);
        assertThat(TestClips.times(damaged)).hasSize(88);
        Path out = folder.resolve("mended.mkv");
        var told = new ArrayList<Double>();
        var result = new Mending(damaged).make(out, MACHINE, told::add, new Cancel());
        assertThat(result.frames()).isEqualTo(100);
        assertThat(result.made())
                .isEqualTo(IntStream.rangeClosed(30, 41).boxed().toList());
        assertThat(result.missing()).isZero();
        assertThat(told).isSorted().last().isEqualTo(1.0);
        List<Double> times = TestClips.times(out);
        assertThat(times).hasSize(100);
        for (int n = 0; n < 100; n++) {
            assertThat(times.get(n)).isCloseTo(n / 25.0, within(0.002));
        }
        MediaInfo info = Prober.probe(out);
        assertThat(info.video().codec()).isEqualTo("ffv1");
        assertThat(info.sounds())
                .singleElement()
                .satisfies(s -> assertThat(s.codec()).isEqualTo("pcm_s24le"));
        // kept frames are those of the source, code value for code value
        assertThat(sum(out, 20)).isEqualTo(sum(whole, 20));
        assertThat(sum(out, 60)).isEqualTo(sum(whole, 60));
        String heard = TestClips.ffmpeg("-i " + out + " -af silencedetect=n=-50dB:d=0.3 -f null -");
        assertThat(value(heard, "silence_start")).isCloseTo(1.2, within(0.06));
        assertThat(value(heard, "silence_end")).isCloseTo(1.7, within(0.06));
        String length = TestClips.ffprobe("-show_entries format=duration -of csv=p=0 " + out);
        assertThat(Double.parseDouble(length.strip())).isCloseTo(4, within(0.01));
    }

    private static double value(String text, String key) {
        return Double.parseDouble(text.replaceAll("(?s).*?" + key + ": ([0-9.]+).*", "$1"));
    }

    private static String sum(Path file, int frame) {
        return TestClips.ffmpeg(
                        "-loglevel error -i " + file + " -vf select=eq(n\\," + frame + ") -frames:v 1 -an -f md5 -")
                .strip();
    }

    @Test
    void fieldsAreStillKnownForFields() throws IOException {
        Path tape = folder.resolve("tape.mpg");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=64x48:r=50:d=1 -vf tinterlace=mode=interleave_top,setfield=tff -c:v mpeg2video"
                        + " -flags +ilme+ildct -top 1 -q:v 2 " + tape);
        Path out = folder.resolve("mended.mkv");
        new Mending(tape).make(out, MACHINE, share -> {}, new Cancel());
        assertThat(Prober.probe(out).video().format().scan()).isEqualTo(Scan.TOP_FIRST);
        assertThat(Prober.probe(out).sounds()).isEmpty();
    }
}
