package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Frames mixed, and mixed frames taken apart, against FFmpeg 5.1's filters minterpolate (its blend) and framerate. */
class MixedFramesAgainstFfmpegTest {
    @TempDir
    static Path folder;

    /** A pattern whose parts go their own ways, without loss. */
    private static Path pattern(int frames) {
        Path file = folder.resolve("pattern" + frames + ".mkv");
        TestClips.ffmpeg("-y -f lavfi -i testsrc2=s=192x128:r=25 -frames:v " + frames
                + " -vf settb=1/90000 -pix_fmt yuv420p -c:v ffv1 " + file);
        return file;
    }

    private static List<Frame> all(Clip clip, Treatment treatment) {
        var frames = new ArrayList<Frame>();
        try (var stream = treatment
                .chain()
                .open(clip, FrameRange.all(), treatment.output().whole(), new PlanePool(0), Work.alone())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(frame.get());
            }
        }
        return frames;
    }

    private static Treatment treatment(Clip clip, String... steps) {
        var recipe = new Recipe(List.of(steps).stream().map(Step::parse).toList());
        return Analyses.complete(
                recipe.on(clip.material()),
                clip,
                Analyses.Store.NONE,
                new PlanePool(0),
                Work.alone(),
                (doing, seen) -> {});
    }

    /** FFmpeg rounds to eight bits, and knows its shares to 1/1024. */
    @Test
    void framesAreMixedAsMinterpolateBlendsThem() {
        Path source = pattern(12);
        Path other = folder.resolve("blend.mkv");
        TestClips.ffmpeg("-y -i " + source + " -vf minterpolate=fps=75:mi_mode=blend:scd=none -c:v ffv1 " + other);
        Clip clip = DecodingTest.indexed(source);
        List<Frame> ours = all(clip, treatment(clip, "rate rate=3x frames=mixed cuts=0"));
        Clip theirs = DecodingTest.indexed(other);
        List<Frame> wanted = all(theirs, treatment(theirs));
        for (int n = 0; n < 30; n++) {
            for (int p = 0; p < 3; p++) {
                float[] one = ours.get(n).plane(p).packed();
                float[] two = wanted.get(n).plane(p).packed();
                for (int i = 0; i < one.length; i++) {
                    assertThat(Math.abs(one[i] - two[i])).as("frame %d", n).isLessThan(1.6f / 219);
                }
            }
        }
    }

    /** What was there before comes back: found in the frames alone, through a codec too. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "minterpolate=fps=30:mi_mode=blend:scd=none | ffv1 | 60",
                "framerate=fps=30:interp_start=0:interp_end=255:scene=100 | ffv1 | 60",
                "minterpolate=fps=30:mi_mode=blend:scd=none | libx264 -crf 16 | 30",
            })
    void whatFfmpegMixedIsTakenApart(String filter, String codec, double least) {
        Path source = pattern(80);
        Path mixed = folder.resolve("mixed.mkv");
        TestClips.ffmpeg("-y -i " + source + " -vf settb=1/90000," + filter + " -c:v " + codec + " " + mixed);
        Clip clip = DecodingTest.indexed(mixed);
        Treatment undone = treatment(clip, "unblend");
        assertThat(undone.summary(0)).isEqualTo("back to 25 frames/s");
        assertThat(undone.times().rate()).contains(Rational.of(25));
        List<Frame> found = all(clip, undone);
        List<Frame> mixes = all(clip, treatment(clip));
        Clip before = DecodingTest.indexed(source);
        List<Frame> wanted = all(before, treatment(before));
        double back = 0;
        double left = 0;
        for (int n = 10; n < 60; n++) {
            back += Psnr.of(found.get(n).plane(0), wanted.get(n).plane(0), 8) / 50;
            Plane mix = mixes.get(Math.round(n * 1.2f)).plane(0);
            // one in five is no mix at all
            left += Math.min(60, Psnr.of(mix, wanted.get(n).plane(0), 8)) / 50;
        }
        assertThat(back).isGreaterThan(least).isGreaterThan(left + 4);
    }
}
