package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import awlsmith.core.plan.Subtitles;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Subtitles drawn into pictures, held against FFmpeg's own filter on the same frames. */
class SubtitlesTest {
    private static final int WIDTH = 320;
    private static final int HEIGHT = 240;

    @TempDir
    static Path folder;

    private static Machine machine;
    private static Clip clip;

    @BeforeAll
    static void open() throws IOException {
        machine = Machine.of(2);
        Path words = Files.writeString(
                folder.resolve("words.srt"),
                "1\n00:00:00,400 --> 00:00:00,800\nAll aboard\n\n2\n00:00:01,200 --> 00:00:01,600\nCast off\n\n");
        Path file = folder.resolve("source.mkv");
        clip = MadeClips.made(
                file,
                "-f lavfi -i color=gray:s=320x240:r=25 -i " + words
                        + " -map 0 -map 1 -frames:v 50 -pix_fmt yuv420p -c:v ffv1 -c:s srt -color_range tv -colorspace bt709");
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    private static Path render(String name, Recipe recipe, FrameRange range, Subtitles subtitles) {
        Path out = folder.resolve(name + ".mkv");
        Deliverable keep = Deliverable.of("ffv1", Map.of(), Optional.of(Container.MKV), Sound.NONE)
                .with(subtitles);
        var request = new RenderRequest(clip, recipe, range, keep, out, folder.resolve("parts-" + name), 7);
        new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        return out;
    }

    private static List<byte[]> luma(Path file, int width, int height, String filter) throws IOException {
        Path raw = folder.resolve(file.getFileName() + ".raw");
        TestClips.ffmpeg("-i " + file + " -vf " + filter + "format=gray -f rawvideo " + raw);
        byte[] all = Files.readAllBytes(raw);
        var frames = new ArrayList<byte[]>();
        for (int at = 0; at < all.length; at += width * height) {
            frames.add(Arrays.copyOfRange(all, at, at + width * height));
        }
        return frames;
    }

    private static int lightest(byte[] frame) {
        int most = 0;
        for (byte one : frame) {
            most = Math.max(most, one & 0xff);
        }
        return most;
    }

    @Test
    void wordsStandWhereAndWhenFfmpegDrawsThem() throws IOException {
        Path out = render("burnt", Recipe.EMPTY, new FrameRange(0, 50), Subtitles.BURNT);
        List<byte[]> ours = luma(out, WIDTH, HEIGHT, "");
        List<byte[]> theirs = luma(
                clip.info().file(), WIDTH, HEIGHT, "subtitles=" + clip.info().file() + ",");
        assertThat(ours).hasSize(50);
        for (int n = 0; n < 50; n++) {
            boolean said = n >= 10 && n < 20 || n >= 30 && n < 40;
            assertThat(lightest(ours.get(n)) > 200).as("frame %d", n).isEqualTo(said);
            double squares = 0;
            for (int i = 0; i < WIDTH * HEIGHT; i++) {
                double apart = (ours.get(n)[i] & 0xff) - (theirs.get(n)[i] & 0xff);
                squares += apart * apart;
            }
            // what rounding leaves of edges
            assertThat(squares / (WIDTH * HEIGHT)).as("frame %d", n).isLessThan(0.5);
        }
        assertThat(Prober.probe(out).extras().subtitles()).isEmpty();
    }

    /** Drawn at the size that goes out, in the time that it is said at, from a span and at half the pace. */
    @Test
    void wordsKeepToTheSourcesTimeAndToTheSizeThatGoesOut() throws IOException {
        var recipe = new Recipe(List.of(Step.parse("enlarge factor=2 model=none"), Step.parse("speed speed=50")));
        Path out = render("slow", recipe, new FrameRange(5, 25), Subtitles.BURNT);
        List<byte[]> frames = luma(out, 2 * WIDTH, 2 * HEIGHT, "");
        for (int n = 0; n < frames.size(); n++) {
            int source = 5 + n * 20 / frames.size();
            boolean said = source >= 10 && source < 20;
            assertThat(lightest(frames.get(n)) > 200)
                    .as("frame %d of %d", n, frames.size())
                    .isEqualTo(said);
        }
    }

    @Test
    void wordsGoAlongOrAreLeftOut() {
        Path along = render("along", Recipe.EMPTY, new FrameRange(0, 50), Subtitles.ATTACHED);
        assertThat(Prober.probe(along).extras().subtitles()).hasSize(1);
        Path without = render("without", Recipe.EMPTY, new FrameRange(0, 50), Subtitles.NONE);
        assertThat(Prober.probe(without).extras().subtitles()).isEmpty();
    }
}
