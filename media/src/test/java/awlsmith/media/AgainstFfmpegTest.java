package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Our resampling and measures against FFmpeg 5.1's filters scale, psnr and ssim on the same files. */
class AgainstFfmpegTest {
    @TempDir
    static Path folder;

    private static List<Frame> all(Path file) {
        Clip clip = DecodingTest.indexed(file);
        return DecodingTest.frames(clip, FrameRange.all(), clip.format().whole());
    }

    /** A detailed picture in 16 bits: fractal noise softened a little, so that no scaler meets only flat areas. */
    private static Path picture(String name, int width, int height) {
        Path file = folder.resolve(name);
        TestClips.ffmpeg(
                "-f lavfi -i mandelbrot=s=%dx%d:r=1 -frames:v 1 -vf format=gray16le,gblur=0.7 -c:v ffv1 -level 3 %s"
                        .formatted(width, height, file));
        return file;
    }

    /**
     * Same curve, same sizes; cubics through zscale (the zimg library), because FFmpeg 5.1's own scaler gives one picture for
     * every B and C. FFmpeg rounds its weights to 14 bits and repeats the edge where we mirror, so the border is
     * left out and the bound is 60 dB; a wrong phase or curve gives less than 40.
     */
    @ParameterizedTest
    @CsvSource({
        "LANCZOS3, lanczos:param0=3, 320, 180, 640, 360", "LANCZOS3, lanczos:param0=3, 320, 180, 500, 300",
        "LANCZOS3, lanczos:param0=3, 320, 180, 160, 90",
                "CATMULL_ROM, zscale:f=bicubic:param_a=0:param_b=0.5, 320, 180, 640, 360",
        "MITCHELL, zscale:f=bicubic:param_a=0.33333333:param_b=0.33333333, 320, 180, 730, 411",
                "BILINEAR, bilinear, 320, 180, 640, 360",
        "BILINEAR, bilinear, 320, 180, 144, 100"
    })
    void resamplesLikeFfmpegsScaler(Kernel kernel, String flags, int w, int h, int w2, int h2) {
        Path source = picture("in-" + kernel + w2 + ".mkv", w, h);
        Path scaled = folder.resolve("out-" + kernel + w2 + ".mkv");
        String filter = flags.startsWith("zscale:")
                ? "zscale=w=%d:h=%d:%s".formatted(w2, h2, flags.substring("zscale:".length()))
                : "scale=%d:%d:flags=%s".formatted(w2, h2, flags.replaceFirst("^[a-z]+", "$0+accurate_rnd"));
        TestClips.ffmpeg("-i " + source + " -vf " + filter + " -c:v ffv1 -level 3 " + scaled);
        Frame in = all(source).getFirst();
        Plane expected = all(scaled).getFirst().plane(0);
        Format out = in.format().withSize(w2, h2, Rational.ONE);
        Plane ours = new EnlargeStage(in.format(), out, kernel)
                .treat(d -> in, out.whole(), new PlanePool(0), Work.alone())
                .plane(0);
        assertThat(Psnr.of(ours, expected, 16)).isGreaterThan(60);
    }

    /** The 4:2:0 chroma of a whole frame too: same siting on both sides. */
    @Test
    void chromaLandsWhereFfmpegPutsIt() {
        Path source = folder.resolve("chroma.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i mandelbrot=s=320x180:r=1 -frames:v 1 -vf gblur=1.5,format=yuv420p -c:v ffv1 -level 3 "
                        + source);
        Path scaled = folder.resolve("chroma2.mkv");
        TestClips.ffmpeg(
                "-i %s -vf scale=640:360:flags=lanczos+accurate_rnd+full_chroma_int:in_v_chr_pos=128:in_h_chr_pos=0:out_v_chr_pos=128:out_h_chr_pos=0 -c:v ffv1 -level 3 %s"
                        .formatted(source, scaled));
        Frame in = all(source).getFirst();
        Frame expected = all(scaled).getFirst();
        Format out = in.format().withSize(640, 360, Rational.ONE);
        Frame ours = new EnlargeStage(in.format(), out, Kernel.LANCZOS3)
                .treat(d -> in, out.whole(), new PlanePool(0), Work.alone());
        for (int p = 0; p < 3; p++) {
            // 8-bit rounding alone costs about 58 dB
            assertThat(Psnr.of(ours.plane(p), expected.plane(p), 12))
                    .as("plane %d", p)
                    .isGreaterThan(48);
        }
    }

    /**
     * PSNR is the same sum, so it agrees to the printed digits (FFmpeg takes 255 as peak, we take white at 219 steps). Its
     * SSIM uses 8x8 blocks every 4 pixels instead of the paper's Gaussian window, so only near agreement and the same order
     * can be asked.
     */
    @Test
    void measuresAgreeWithFfmpegs() {
        Path clean = folder.resolve("clean.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i mandelbrot=s=320x240:r=1 -frames:v 1 -vf format=yuv420p -c:v ffv1 -level 3 " + clean);
        Plane truth = all(clean).getFirst().plane(0);
        double lastOurs = 2;
        double lastTheirs = 2;
        for (int crf : new int[] {18, 26, 34, 42}) {
            Path worn = folder.resolve("worn" + crf + ".mkv");
            TestClips.ffmpeg("-i " + clean + " -c:v libx264 -crf " + crf + " " + worn);
            Plane plane = all(worn).getFirst().plane(0);
            String psnr = TestClips.ffmpeg("-i " + worn + " -i " + clean + " -lavfi psnr -f null -");
            double theirs = Double.parseDouble(psnr.replaceAll("(?s).*PSNR y:([0-9.]+).*", "$1"));
            double scale = 20 * Math.log10(255 / 219.0);
            assertThat(Psnr.of(plane, truth, 0) + scale).isCloseTo(theirs, within(0.001));
            String ssim = TestClips.ffmpeg("-i " + worn + " -i " + clean + " -lavfi ssim -f null -");
            double theirSsim = Double.parseDouble(ssim.replaceAll("(?s).*SSIM Y:([0-9.]+).*", "$1"));
            double ourSsim = Ssim.of(plane, truth, 0);
            assertThat(ourSsim).isCloseTo(theirSsim, within(0.03)).isLessThan(lastOurs);
            assertThat(theirSsim).isLessThan(lastTheirs);
            lastOurs = ourSsim;
            lastTheirs = theirSsim;
        }
    }
}
