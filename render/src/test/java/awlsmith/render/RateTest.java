package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Recipes that change how many frames there are, as the finished file has them by ffprobe's word. */
class RateTest {
    private static final Deliverable FFV1 = Deliverable.usual(Deliverable.Codec.FFV1);
    private static final Recipe FIELDS = recipe("deinterlace order=top");

    @TempDir
    static Path folder;

    private static Machine machine;
    private static Clip clip;

    @BeforeAll
    static void makeClip() {
        machine = Machine.of(2);
        Path file = folder.resolve("clip.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=96x64:r=25:d=4 -f lavfi -i sine=d=4 -pix_fmt yuv420p -c:v libx264 -g 20"
                        + " -c:a pcm_s16le " + file);
        clip = indexed(file);
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    private static Recipe recipe(String... steps) {
        return new Recipe(java.util.Arrays.stream(steps).map(Step::parse).toList());
    }

    private static Clip indexed(Path file) {
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private static RenderRequest request(String name, Clip from, Recipe recipe, FrameRange range, int segment)
            throws IOException {
        Path scratch = Files.createDirectories(folder.resolve("scratch-" + name));
        return new RenderRequest(from, recipe, range, FFV1, folder.resolve(name), scratch, segment);
    }

    private static MediaInfo render(RenderRequest request) {
        return new Renderer(request, machine, RenderWatch.SILENT, new Cancel())
                .render()
                .facts()
                .info();
    }

    @Test
    void everyFieldBecomesAFrameAndTheSoundStaysAsLong() throws IOException {
        var request = request("fields.mkv", clip, FIELDS, new FrameRange(10, 60), 32);
        var plan = request.plan(machine);
        assertThat(plan.frames()).isEqualTo(100);
        assertThat(plan.ratePerSecond()).isEqualTo(50);
        assertThat(plan.seconds()).isCloseTo(2.0, within(1e-9));
        MediaInfo info = render(request);
        assertThat(info.video().rate().toDouble()).isCloseTo(50, within(0.01));
        assertThat(info.duration().orElseThrow().toDouble()).isCloseTo(2.0, within(0.05));
        assertThat(TestClips.times(folder.resolve("fields.mkv"))).hasSize(100);
    }

    /** Cut up in any way, and begun anywhere, the same frames come out. */
    @Test
    void theCutMakesNoDifference() throws IOException {
        Path whole = folder.resolve("whole.mkv");
        Path cut = folder.resolve("cut.mkv");
        render(request("whole.mkv", clip, FIELDS, new FrameRange(20, 40), 1000));
        render(request("cut.mkv", clip, FIELDS, new FrameRange(20, 40), 7));
        assertThat(md5(cut)).isEqualTo(md5(whole)).hasSize(40);
    }

    private static List<String> md5(Path file) {
        return TestClips.ffmpeg("-v error -i " + file + " -map 0:v -f framemd5 -")
                .lines()
                .filter(line -> line.startsWith("0,"))
                .map(line -> line.substring(line.lastIndexOf(',') + 1).strip())
                .toList();
    }

    @Test
    void oneFrameOfFiveIsTakenOut() throws IOException {
        render(request("thin.mkv", clip, recipe("cadence period=5 phase=2"), new FrameRange(0, 100), 30));
        List<Double> times = TestClips.times(folder.resolve("thin.mkv"));
        assertThat(times).hasSize(80);
        assertThat(times.getLast()).isCloseTo(79 / 20.0, within(0.002));
        List<String> source = md5of(clip);
        List<String> thin = md5(folder.resolve("thin.mkv"));
        assertThat(thin.subList(0, 5))
                .containsExactly(source.get(0), source.get(1), source.get(3), source.get(4), source.get(5));
    }

    private static List<String> md5of(Clip source) throws IOException {
        render(request("same.mkv", source, Recipe.EMPTY, new FrameRange(0, 20), 100));
        return md5(folder.resolve("same.mkv"));
    }

    /** Frames that come unevenly keep their times; the frame of a second field lies half way to the next. */
    @Test
    void unevenFramesKeepTheirTimes() throws IOException {
        Path file = folder.resolve("gap.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25:d=2 -vf select='not(between(n\\,20\\,29))' -fps_mode vfr"
                + " -pix_fmt yuv420p -c:v ffv1 " + file);
        render(request("uneven.mkv", indexed(file), FIELDS, FrameRange.all(), 1000));
        List<Double> times = TestClips.times(folder.resolve("uneven.mkv"));
        assertThat(times).hasSize(80);
        assertThat(times.get(38)).isCloseTo(19 / 25.0, within(0.002));
        assertThat(times.get(39)).isCloseTo((19 / 25.0 + 30 / 25.0) / 2, within(0.002));
        assertThat(times.get(40)).isCloseTo(30 / 25.0, within(0.002));
    }

    @Test
    void aTurnedAndCroppedFilmIsAsLargeAsPlanned() throws IOException {
        var recipe = recipe("turn turn=90", "crop left=8 top=16 width=32 height=64", "enlarge factor=2");
        MediaInfo info = render(request("turned.mkv", clip, recipe, new FrameRange(0, 5), 100));
        assertThat(info.video().format().width()).isEqualTo(64);
        assertThat(info.video().format().height()).isEqualTo(128);
        assertThat(recipe.turned(clip.format())).isEqualTo(1);
    }
}
