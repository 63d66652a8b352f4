package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
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
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Recipes that change how many frames there are, as the finished file has them by ffprobe's word. */
class RateTest {
    private static final Deliverable FFV1 = Deliverable.usual(Codecs.FFV1);
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
        assertThat(recipe.on(clip.material()).turned()).isEqualTo(1);
    }

    /** A flash and a beep at 1.0 s, a chapter from 1 s to 2 s. */
    private static Clip flashAndBeep() throws IOException {
        Path file = folder.resolve("flash.mkv");
        Path chapters = Files.writeString(
                folder.resolve("chapters.txt"), ";FFMETADATA1\n[CHAPTER]\nTIMEBASE=1/1\nSTART=1\nEND=2\ntitle=Quay\n");
        TestClips.ffmpeg("-f lavfi -i color=black:s=64x48:r=25:d=3,drawbox=c=white:t=fill:enable='gte(t\\,1)'"
                + " -f lavfi -i aevalsrc=if(gt(t\\,1)\\,sin(2764*t)\\,0):d=3 -f ffmetadata -i " + chapters
                + " -map_chapters 2 -map 0 -map 1 -timecode 01:00:00:00 -pix_fmt yuv420p -c:v libx264 -bf 0 -c:a pcm_s16le "
                + file);
        return indexed(file);
    }

    private static double found(Path file, String filter, String what) {
        return Double.parseDouble(TestClips.ffmpeg("-i " + file + " " + filter + " -f null -")
                .replaceAll("(?s).*" + what + ":? ?([0-9.]+).*", "$1"));
    }

    /** As FFmpeg's detectors find flash and beep: both at their new moment, whatever goes out. */
    @ParameterizedTest
    @CsvSource({"50, 0, 75, mkv", "50, 10, 60, mkv", "250, 0, 75, mkv", "20, 20, 45, mp4"})
    void soundAndChaptersKeepToPicturesThatArePlayedFasterOrSlower(int percent, int from, int end, String ending)
            throws IOException {
        Clip source = flashAndBeep();
        Path scratch = Files.createDirectories(folder.resolve("scratch-" + percent + from));
        Path out = folder.resolve("pace-" + percent + "-" + from + "." + ending);
        var request = new RenderRequest(
                source,
                recipe("speed speed=" + percent),
                new FrameRange(from, end),
                Deliverable.usual(ending.equals("mkv") ? Codecs.FFV1 : Codecs.H264),
                out,
                scratch,
                30);
        assertThat(request.plan(machine).seconds()).isCloseTo((end - from) / 25.0 * 100 / percent, within(1e-6));
        render(request);
        double moment = (1 - from / 25.0) * 100 / percent;
        assertThat(TestClips.times(out)).hasSize(end - from);
        assertThat(found(out, "-vf blackdetect=d=0.01", "black_end")).isCloseTo(moment, within(0.002));
        // stretches of sound are laid over each other, so that an edge is some hundredths of the source's seconds wide
        assertThat(found(out, "-af silencedetect=n=-30dB:d=0.05", "silence_end"))
                .isCloseTo(moment, within(0.06 * Math.max(1, 100.0 / percent)));
        // FFmpeg lets the first chapter of an MP4 file begin at its beginning
        if (ending.equals("mkv")) {
            assertThat(TestClips.ffprobe("-show_entries chapter=start_time -of csv=p=0 " + out)
                            .strip())
                    .startsWith(String.format(java.util.Locale.ROOT, "%.3f", moment));
        }
    }

    /** Against FFmpeg's fps filter, which lets a frame begin at the tick at or behind its time with round=up. */
    @Test
    void unevenFramesComeToAnEvenRateAsFfmpegBringsThemThere() throws IOException {
        Path file = folder.resolve("uneven.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=60:d=2,select='gt(random(1)\\,0.55)' -fps_mode passthrough"
                + " -pix_fmt yuv420p -c:v ffv1 " + file);
        Clip uneven = indexed(file);
        assertThat(uneven.steadyRate()).isEmpty();
        double begins = uneven.index().orElseThrow().clock(0).toDouble();
        for (String rate : List.of("25", "30000/1001", "60")) {
            String name = "even-" + rate.replace('/', '-') + ".mkv";
            Recipe recipe = recipe("rate rate=" + rate);
            var request = request(
                    name,
                    uneven,
                    recipe,
                    new FrameRange(0, uneven.index().orElseThrow().count()),
                    17);
            assertThat(request.outputRate()).contains(Rational.parse(rate));
            render(request);
            List<String> theirs = TestClips.ffmpeg("-v error -i " + file + " -vf fps=" + rate + ":round=up:start_time="
                            + begins + " -map 0:v -pix_fmt yuv420p -f framemd5 -")
                    .lines()
                    .filter(line -> line.startsWith("0,"))
                    .map(line -> line.substring(line.lastIndexOf(',') + 1).strip())
                    .toList();
            List<String> ours = md5(folder.resolve(name));
            // at the very end theirs keeps the last frame for a tick of its own
            int both = Math.min(ours.size(), theirs.size());
            assertThat(Math.abs(ours.size() - theirs.size())).isLessThanOrEqualTo(2);
            assertThat(ours.subList(0, both)).as(rate).isEqualTo(theirs.subList(0, both));
        }
    }
}
