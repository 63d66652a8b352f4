package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RoundingTest {
    @TempDir
    Path folder;

    private OptionalDouble of(String encoder, String codec) throws Exception {
        Path file = folder.resolve("coded.mkv");
        var process = new ProcessBuilder(
                        ("ffmpeg -nostdin -v error -y -f lavfi -i testsrc2=s=160x128:d=0.4 -pix_fmt yuv420p -c:v "
                                        + encoder + " " + file)
                                .split(" "))
                .inheritIO()
                .start();
        assertThat(process.waitFor()).isZero();
        return Rounding.step(file, codec);
    }

    /** ITU-T H.264: QP 4 is a step of 1, and each 6 double it; ISO/IEC 13818-2 and ITU-T H.263 by their scales. */
    @ParameterizedTest
    @CsvSource({
        "libx264 -qp 28 -x264-params ipratio=1:pbratio=1, h264, 16",
        "libx264 -qp 40 -x264-params ipratio=1:pbratio=1, h264, 64",
        "mpeg2video -q:v 6, mpeg2video, 12",
        "mpeg4 -q:v 9, mpeg4, 18"
    })
    void theStepIsThatOfTheCodecsOwnQuantiser(String encoder, String codec, double step) throws Exception {
        assertThat(of(encoder, codec).orElseThrow()).isCloseTo(step, within(0.05 * step));
    }

    @Test
    void whatDoesNotTellIsEmpty() throws Exception {
        assertThat(of("mjpeg -q:v 5", "mjpeg")).isEmpty();
        Path broken = folder.resolve("broken.mkv");
        Files.writeString(broken, "no video");
        assertThat(Rounding.step(broken, "h264")).isEmpty();
    }
}
