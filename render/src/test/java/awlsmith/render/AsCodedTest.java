package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.RenderPlan;
import awlsmith.core.plan.Sound;
import awlsmith.core.plan.Tags;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.TestClips;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Packets copied as they are, held against FFmpeg's checksums of every frame of the source. */
class AsCodedTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();

    @TempDir
    static Path folder;

    private static Machine machine;

    @BeforeAll
    static void open() {
        machine = Machine.of(2);
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    private static Clip made(String name, String coding) {
        Path file = folder.resolve(NUMBER.incrementAndGet() + name);
        return MadeClips.made(
                file,
                "-f lavfi -i testsrc2=s=160x120:r=25 -f lavfi -i sine=r=48000:d=2.4 -t 2.4"
                        + " -metadata title=Quay -pix_fmt yuv420p " + coding);
    }

    private static RenderRequest request(Clip clip, Recipe recipe, FrameRange range, Container container) {
        int number = NUMBER.incrementAndGet();
        Deliverable copy = Deliverable.of("copy", Map.of(), Optional.of(container), Sound.KEPT)
                .with(new Tags(Map.of("artist", "Harbour office")));
        Path out = folder.resolve("out-" + number + "." + container.ending());
        return new RenderRequest(clip, recipe, range, copy, out, folder.resolve("parts-" + number), 1);
    }

    private static List<String> sums(Path file) {
        return Arrays.stream(TestClips.ffmpeg("-v error -i " + file + " -map 0:v:0 -f framemd5 -")
                        .split("\n"))
                .filter(line -> !line.startsWith("#"))
                .map(line -> line.substring(line.lastIndexOf(',') + 1).strip())
                .toList();
    }

    /** Key frames every twelve: a span within is widened to those around it, and said. */
    @ParameterizedTest
    @CsvSource({
        "a.mp4, -c:v libx264 -bf 2 -g 12 -sc_threshold 0 -c:a aac, MP4, 15, 40, 12, 48",
        "b.mp4, -c:v libx264 -bf 2 -g 12 -sc_threshold 0 -c:a aac, MKV, 24, 36, 24, 36",
        "c.mkv, -c:v libx265 -x265-params keyint=12:scenecut=0:open-gop=0:log-level=none -c:a flac, MP4, 1, 13, 0, 24",
        "d.mov, -c:v mjpeg -c:a pcm_s16le, MOV, 7, 9, 7, 9",
        "v.mp4, -vf setpts=PTS*1001/1000 -fps_mode passthrough -c:v libx264 -bf 2 -g 10 -sc_threshold 0 -c:a aac, MP4, 15, 40, 10, 40",
        "e.mp4, -c:v libx264 -bf 2 -g 12 -sc_threshold 0 -c:a aac, MOV, 0, 60, 0, 60"
    })
    void everyFrameIsTheSourcesOwn(
            String name, String coding, Container container, int from, int end, int first, int last) {
        Clip clip = made(name, coding);
        var request = request(clip, Recipe.EMPTY, new FrameRange(from, end), container);
        RenderPlan plan = request.plan(machine);
        assertThat(plan.refusals()).isEmpty();
        boolean isExact = from == first && end == last;
        assertThat(plan.warnings().stream().anyMatch(line -> line.contains((from - first) + " frames before the span")))
                .isEqualTo(!isExact);
        var made = new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        assertThat(made.facts().frames()).isEqualTo(last - first);
        assertThat(sums(request.out())).isEqualTo(sums(clip.info().file()).subList(first, last));
        assertThat(made.facts().sounds().getFirst().toDouble()).isCloseTo((last - first) / 25.0, within(0.1));
        assertThat(TestClips.tag(request.out(), "artist")).isEqualTo("Harbour office");
        assertThat(TestClips.tag(request.out(), "title")).isEqualTo("Quay");
    }

    /** A phone held upright: the note that turns the picture goes along where it can, and is asked for where it cannot. */
    @Test
    void turnedPicturesStayTurned() {
        Path plain = folder.resolve("plain.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=160x120:r=25 -frames:v 20 -pix_fmt yuv420p -c:v libx264 -g 10 " + plain);
        Path file = folder.resolve("turned.mp4");
        Clip clip = MadeClips.made(file, "-i " + plain + " -c copy -metadata:s:v rotate=90");
        var request = request(clip, Recipe.EMPTY, new FrameRange(10, 20), Container.MP4);
        var made = new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        assertThat(made.facts().info().video().format().height()).isEqualTo(160);
        assertThat(request(clip, Recipe.EMPTY, new FrameRange(10, 20), Container.MKV)
                        .plan(machine)
                        .refusals())
                .anyMatch(line -> line.contains("choose MP4 or MOV"));
    }

    /** What is shown before a key frame and coded behind it leans on both sides: no cut there. */
    @Test
    void openGroupsAreNotTornApart() {
        Clip clip =
                made("open.mkv", "-c:v libx264 -bf 3 -x264-params keyint=12:min-keyint=12:scenecut=0:open-gop=1 -an");
        var request = request(clip, Recipe.EMPTY, new FrameRange(20, 30), Container.MKV);
        new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        List<String> all = sums(clip.info().file());
        List<String> made = sums(request.out());
        int first = Collections.indexOfSubList(all, made);
        assertThat(first).isBetween(0, 20);
        assertThat(first + made.size()).isGreaterThanOrEqualTo(30);
    }

    @Test
    void whatCannotBeIsRefusedWithWhatWouldWork() {
        Clip clip = made("f.mkv", "-c:v ffv1 -c:a flac");
        var whole = new FrameRange(0, 60);
        assertThat(request(clip, Recipe.EMPTY, whole, Container.MP4)
                        .plan(machine)
                        .refusals())
                .anyMatch(line -> line.contains("FFV1") && line.contains("choose MKV"));
        var sharpened = new Recipe(List.of(Step.parse("enlarge factor=2 model=none")));
        assertThat(request(clip, sharpened, whole, Container.MKV).plan(machine).refusals())
                .anyMatch(line -> line.contains("switch the steps off"));
        var off = new Recipe(List.of(Step.of("enlarge", false, Map.of())));
        assertThat(request(clip, off, whole, Container.MKV).plan(machine).refusals())
                .isEmpty();
    }
}
