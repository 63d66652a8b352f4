package awlsmith.render.cli;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.TestClips;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MainTest {
    @TempDir
    static Path folder;

    private static Path clip;

    private record Run(int code, String out, String err) {}

    @BeforeAll
    static void makeClip() {
        clip = folder.resolve("clip.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=96x64:r=30000/1001:d=3 -f lavfi -i sine=d=3 -pix_fmt yuv420p -c:v libx264 "
                        + "-c:a aac " + clip);
    }

    private static Run run(String... words) {
        var out = new ByteArrayOutputStream();
        var err = new ByteArrayOutputStream();
        int code = Main.run(
                List.of(words),
                new PrintStream(out, true, StandardCharsets.UTF_8),
                new PrintStream(err, true, StandardCharsets.UTF_8),
                new Cancel());
        return new Run(code, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
    }

    @Test
    void rendersLosslesslyWithTheSoundAndReadsItBack() {
        Path out = folder.resolve("out.mkv");
        Run run = run(
                "render",
                clip.toString(),
                out.toString(),
                "--step",
                "enlarge factor=2 kernel=lanczos3",
                "--codec",
                "ffv1");
        assertThat(run.err()).contains("96x64 to 192x128").contains("90 frames").contains("read back and right");
        assertThat(run.code()).isZero();
        assertThat(TestClips.entry(out, "codec_name")).isEqualTo("ffv1");
        assertThat(TestClips.entry(out, "width")).isEqualTo("192");
        assertThat(TestClips.ffprobe("-select_streams a -show_entries stream=codec_name -of csv=p=0 " + out))
                .contains("aac");
    }

    @Test
    void rendersASpanByTime() {
        Path out = folder.resolve("span.mp4");
        Run run = run("render", clip.toString(), out.toString(), "--in", "1", "--out-at", "0:02", "--no-sound");
        assertThat(run.code()).as(run.err()).isZero();
        // frame 29 is shown at 1.0 s (0.968 to 1.001), frame 59 at 2.0 s
        assertThat(TestClips.times(out)).hasSize(30);
        assertThat(TestClips.ffprobe("-show_entries stream=codec_type -of csv=p=0 " + out))
                .doesNotContain("audio");
    }

    /** One that cannot be read does not stop the others; every line for scripts is JSON by itself. */
    @Test
    void sendsSeveralFilesAndSaysWhichFailed() throws IOException {
        Path wrong = Files.writeString(folder.resolve("wrong.mp4"), "no film");
        Path to = folder.resolve("sent/here");
        Run run = run(
                "send",
                clip.toString(),
                wrong.toString(),
                clip.toString(),
                "--to",
                to.toString(),
                "--name",
                "{clip} {lines} {codec}",
                "--preset",
                "small",
                "--in",
                "2.5",
                "--step",
                "enlarge factor=1.5 kernel=lanczos3",
                "--json");
        assertThat(run.code()).isEqualTo(1);
        assertThat(to.resolve("clip 96 H265.mp4")).exists();
        // nothing is overwritten
        assertThat(to.resolve("clip 96 H265 2.mp4")).exists();
        var json = tools.jackson.databind.json.JsonMapper.builder().build();
        var told = run.out().lines().map(json::readTree).toList();
        assertThat(told.stream().map(line -> line.path("tells").asString()))
                .contains("begins", "progress", "made", "failed");
        assertThat(told.stream()
                        .filter(line -> line.path("tells").asString().equals("failed"))
                        .map(line -> line.path("in").asString()))
                .containsExactly(wrong.toString());
    }

    @Test
    void sendsByWhatEachFileSuggests() {
        Path to = folder.resolve("suggested");
        Run run = run("send", clip.toString(), "--to", to.toString(), "--suggest", "--codec", "png", "--in", "2.8");
        assertThat(run.code()).as(run.err()).isZero();
        assertThat(run.err()).contains("clip.mp4: ");
        assertThat(to.toFile().list()).singleElement().asString().endsWith(".zip");
    }

    @Test
    void sendWantsFilesAndAFolder() {
        assertThat(run("send", clip.toString()).code()).isEqualTo(2);
        assertThat(run("send", "--to", folder.toString()).err()).contains("send wants files");
        assertThat(run("send", clip.toString(), "--to", folder.toString(), "--name", "{author}")
                        .err())
                .contains("{author} means nothing");
    }

    /** By what it is for; what is told beside it counts for more. */
    @ParameterizedTest
    @CsvSource({
        "cut.mov, edit, prores, yuv422p10le",
        "small.mp4, small, hevc, yuv420p",
        "keep.mkv, keep, ffv1, yuv420p",
        "deep.mkv, small, hevc, yuv420p10le"
    })
    void sendsOutByAPreset(String name, String preset, String codec, String pixels) {
        Path out = folder.resolve(name);
        var words = new ArrayList<>(
                List.of("render", clip.toString(), out.toString(), "--preset", preset, "--in", "0", "--out-at", "0.4"));
        words.addAll(name.equals("deep.mkv") ? List.of("--depth", "10") : List.of());
        Run run = run(words.toArray(new String[0]));
        assertThat(run.code()).as(run.err()).isZero();
        assertThat(TestClips.entry(out, "codec_name")).isEqualTo(codec);
        assertThat(TestClips.entry(out, "pix_fmt")).isEqualTo(pixels);
    }

    @Test
    void aPresetThatIsNotThereIsNamed() {
        assertThat(run("render", clip.toString(), "o.mp4", "--preset", "tv").err())
                .contains("must be one of watch, small, web, edit, keep, stills");
        assertThat(run("codecs").out()).contains("--preset edit: ").contains("prores");
    }

    @Test
    void usesARecipeFile() throws IOException {
        Path recipe = folder.resolve("recipe.json");
        Files.writeString(recipe, "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"width\":48}}]}");
        Path out = folder.resolve("recipe.mp4");
        Run run = run("render", clip.toString(), out.toString(), "--recipe", recipe.toString());
        assertThat(run.code()).as(run.err()).isZero();
        assertThat(TestClips.entry(out, "height")).isEqualTo("32");
        Files.writeString(recipe, "not json");
        assertThat(run("render", clip.toString(), out.toString(), "--force", "--recipe", recipe.toString())
                        .err())
                .contains("not JSON");
    }

    @Test
    void listsEveryStepWithItsKeysRangesAndDefaults() {
        Run run = run("steps");
        assertThat(run.code()).isZero();
        assertThat(run.out())
                .contains("enlarge:")
                .contains("factor   0.125..8 x")
                .contains("width    2..16384 px")
                .contains("default lanczos3");
    }

    @Test
    void examineTellsWhatIsWrongAndWhatWouldHelp() {
        Run run = run("examine", clip.toString());
        assertThat(run.code()).isZero();
        assertThat(run.out())
                .contains("Noise")
                .contains("of 255")
                .contains("Loudness")
                .contains("suggested:")
                .contains("  enlarge {factor=2.0");
        assertThat(run("examine").code()).isEqualTo(2);
        assertThat(run("examine", folder.resolve("nowhere.mp4").toString()).code())
                .isEqualTo(1);
    }

    /** What the codec's quantisers tell goes into the suggestion as a number, and the suggested recipe can be rendered. */
    @Test
    void strongCompressionIsRepairedByWhatTheCodecTells() {
        Path hard = folder.resolve("hard.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i mandelbrot=s=160x128:r=25 -frames:v 12 -pix_fmt yuv420p -c:v libx264 -qp 38 " + hard);
        Run run = run("examine", hard.toString());
        assertThat(run.out()).contains("compressed: rounded to").containsPattern("  repair \\{rounding=\\d+");
        String step = run.out().replaceAll("(?s).*  repair \\{rounding=([0-9.]+)\\}.*", "repair rounding=$1");
        Path out = folder.resolve("repaired.mkv");
        assertThat(run("render", hard.toString(), out.toString(), "--codec", "ffv1", "--step", step)
                        .code())
                .isZero();
    }

    @Test
    void misuseIsASentenceAndCodeTwo() {
        String in = clip.toString();
        assertThat(run().code()).isEqualTo(2);
        assertThat(run("dance").err()).contains("there are: render, send, join, segment, worker, examine, steps");
        assertThat(run("render", in).err()).contains("usage: awlsmith render");
        assertThat(run("render", in, "o.mp4", "--step", "enlarge factor=9").err())
                .contains("allowed is 0.125..8 x");
        assertThat(run("render", in, "o.mp4", "--step", "grow").err()).contains("there is no step called 'grow'");
        assertThat(run("render", in, "o.mp4", "--quality", "99").err()).contains("quality is 99");
        assertThat(run("render", in, "o.mp4", "--codec", "x").err())
                .contains("must be one of h264, h265, av1, vp9, prores");
        assertThat(run("render", in, "o.mp4", "--in", "5", "--out-at", "4").err())
                .contains("nothing would be rendered");
        assertThat(run("render", in, "o.mp4", "--sharpest").code()).isEqualTo(2);
    }

    @Test
    void failuresAreSentencesAndLeaveNothingBehind() throws IOException {
        Path text = folder.resolve("letter.mp4");
        Files.writeString(text, "no film at all\n".repeat(99));
        Path out = folder.resolve("never.mp4");
        assertThat(run("render", text.toString(), out.toString()).err()).contains("not a video that can be read");
        assertThat(run("render", folder.resolve("gone.mp4").toString(), out.toString())
                        .code())
                .isEqualTo(1);
        assertThat(run("render", clip.toString(), clip.toString(), "--force").err())
                .contains("source would be overwritten");
        assertThat(run("render", clip.toString(), clip.toString()).err())
                .contains("there already; --force replaces it");
        assertThat(run(
                                "render",
                                clip.toString(),
                                folder.resolve("no/such/o.mp4").toString())
                        .err())
                .contains("nothing can be written");
        assertThat(run("render", clip.toString(), out.toString(), "--in", "7").err())
                .contains("the span begins at 7.00 s, the clip ends at 3.00 s");
        assertThat(out).doesNotExist();
        try (var files = Files.list(folder)) {
            assertThat(files.map(file -> file.getFileName().toString()))
                    .noneMatch(name -> name.startsWith(".awlsmith"));
        }
    }
}
