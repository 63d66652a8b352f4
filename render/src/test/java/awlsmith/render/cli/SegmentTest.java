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
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Parts of a render made alone, elsewhere, from their descriptions. */
class SegmentTest {
    private static final List<String> TREATED = List.of(
            "--step",
            "steady over=1 rim=6",
            "--step",
            "speed speed=50",
            "--step",
            "enlarge factor=1.5 kernel=lanczos3",
            "--codec",
            "ffv1");

    @TempDir
    static Path folder;

    private static Path clip;
    private static Path table;

    @BeforeAll
    static void makeClip() {
        clip = folder.resolve("hand.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=160x120:r=25,loop=loop=-1:size=1 -f lavfi -i sine=d=3.6 -frames:v 90 -shortest"
                        + " -vf crop=128:96:x='16+6*sin(n*2.1)':y='12+5*cos(n*1.7)' -pix_fmt yuv420p -c:v ffv1 -c:a pcm_s16le "
                        + clip);
    }

    @BeforeAll
    static void makeTable() throws IOException {
        table = Files.writeString(folder.resolve("warm.cube"), "LUT_1D_SIZE 3\n0 0 0.1\n0.6 0.5 0.4\n1 1 0.9\n");
    }

    private record Run(int code, String err) {}

    private static Run run(List<String> words) {
        var err = new ByteArrayOutputStream();
        int code = Main.run(words, System.out, new PrintStream(err, true, StandardCharsets.UTF_8), new Cancel());
        return new Run(code, err.toString(StandardCharsets.UTF_8));
    }

    private static List<String> render(Path out, String... more) {
        var words = new ArrayList<String>(List.of("render", clip.toString(), out.toString()));
        words.addAll(TREATED);
        // a second analysis behind the first, a value over time, and a file that goes along
        words.addAll(List.of("--step", "denoise frames=1", "--step", "exposure stops=0:0,2:0.5"));
        words.addAll(List.of("--step", "table share=60 file=" + table));
        words.addAll(List.of(more));
        return words;
    }

    private static List<String> md5(Path file) {
        return TestClips.ffmpeg("-v error -i " + file + " -map 0:v -f framemd5 -")
                .lines()
                .filter(line -> line.startsWith("0,"))
                .map(line -> line.substring(line.lastIndexOf(',') + 1).strip())
                .toList();
    }

    /** In a process of its own, as another machine would. */
    private static void elsewhere(Path source, Path description, Path into) throws Exception {
        Process process = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElseThrow(),
                        "--add-modules",
                        "jdk.incubator.vector",
                        "--enable-native-access=ALL-UNNAMED",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Main.class.getName(),
                        "segment",
                        source.toString(),
                        description.toString(),
                        into.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(2, TimeUnit.MINUTES)).isTrue();
        assertThat(process.exitValue()).as(said).isZero();
    }

    @Test
    void partsMadeElsewhereMakeTheSameFile() throws Exception {
        Path whole = folder.resolve("whole.mkv");
        assertThat(run(render(whole)).code()).isZero();
        Path parts = folder.resolve("parts");
        Path out = folder.resolve("out.mkv");
        Run told = run(render(out, "--parts", parts.toString(), "--part-frames", "40", "--describe"));
        assertThat(told.code()).as(told.err()).isZero();
        assertThat(told.err()).contains("3 parts are to be made");
        String description = Files.readString(parts.resolve("segment-000002.json"));
        assertThat(description).doesNotContain(folder.toString()).contains("camera-path", "noise/1", "warm.cube#");
        // the same file by another name, in another folder
        Path there = Files.createDirectories(folder.resolve("there"));
        Path copy = Files.copy(clip, there.resolve("copy.mkv"));
        Path sent = Files.writeString(there.resolve("part.json"), description);
        elsewhere(copy, sent, there);
        for (String name : List.of("segment-000002.nut", "segment-000002.bytes")) {
            Files.move(there.resolve(name), parts.resolve(name));
        }
        assertThat(run(List.of(
                                "segment",
                                clip.toString(),
                                parts.resolve("segment-000000.json").toString()))
                        .code())
                .isZero();
        var made = Files.getLastModifiedTime(parts.resolve("segment-000000.nut"));
        Run joined = run(render(out, "--parts", parts.toString(), "--part-frames", "40"));
        assertThat(joined.code()).as(joined.err()).isZero();
        assertThat(Files.getLastModifiedTime(parts.resolve("segment-000000.nut")))
                .isEqualTo(made);
        assertThat(md5(out)).hasSize(90).isEqualTo(md5(whole));
        assertThat(TestClips.times(out)).isEqualTo(TestClips.times(whole));
        Run again = run(
                render(folder.resolve("again.mkv"), "--parts", parts.toString(), "--part-frames", "40", "--describe"));
        assertThat(again.err()).contains("0 parts are to be made");
    }

    @Test
    void whatDoesNotFitIsASentence() throws IOException {
        Path parts = folder.resolve("others");
        assertThat(run(render(folder.resolve("others.mkv"), "--parts", parts.toString(), "--describe"))
                        .code())
                .isZero();
        Path description = parts.resolve("segment-000000.json");
        Path other = folder.resolve("other.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=160x120:r=25 -frames:v 9 -pix_fmt yuv420p -c:v ffv1 " + other);
        assertThat(run(List.of("segment", other.toString(), description.toString()))
                        .err())
                .contains("this is not the file that the segment is of");
        String text = Files.readString(description);
        for (String[] change : new String[][] {
            {"\"pixels\" : ", "\"pixels\" : 9"},
            {"\"number\" : 0", "\"number\" : 77"},
            {"\"nets\" : \"", "\"nets\" : \"X"},
            {"\"found\" : {", "\"founds\" : {"},
            {"{", "["}
        }) {
            Path wrong = Files.writeString(folder.resolve("wrong.json"), text.replace(change[0], change[1]));
            Run run = run(List.of("segment", clip.toString(), wrong.toString()));
            assertThat(run.code()).as(change[1]).isEqualTo(1);
            assertThat(run.err()).startsWith("awlsmith: ").doesNotContain("Exception");
        }
        assertThat(run(List.of("segment", clip.toString())).code()).isEqualTo(2);
        assertThat(run(render(folder.resolve("x.mkv"), "--describe")).err()).contains("--parts");
    }

    /** What is computed once and goes into two files is in each what it is alone. */
    @Test
    void oneTreatmentGoesIntoSeveralFiles() {
        Path master = folder.resolve("master.mkv");
        Path screen = folder.resolve("screen.mp4");
        Path alone = folder.resolve("alone.mkv");
        Path parts = folder.resolve("both");
        Run both = run(render(master, "--also", screen.toString(), "--parts", parts.toString(), "--part-frames", "35"));
        assertThat(both.code()).as(both.err()).isZero();
        assertThat(both.err()).contains("master.mkv: 168x126").contains("screen.mp4: 168x126");
        assertThat(run(render(alone)).code()).isZero();
        assertThat(md5(master)).hasSize(90).isEqualTo(md5(alone));
        assertThat(TestClips.entry(screen, "codec_name")).isEqualTo("h264");
        assertThat(TestClips.times(screen)).hasSize(90);
        // one part of one of them is lost: the others are not made again
        Path lost = parts.resolve("also-1/segment-000001.mp4");
        assertThat(lost.toFile().delete()).isTrue();
        long kept = parts.resolve("segment-000002.nut").toFile().lastModified();
        assertThat(run(render(
                                master,
                                "--also",
                                screen.toString(),
                                "--parts",
                                parts.toString(),
                                "--part-frames",
                                "35",
                                "--force"))
                        .code())
                .isZero();
        assertThat(lost).exists();
        assertThat(parts.resolve("segment-000002.nut").toFile().lastModified()).isEqualTo(kept);
        assertThat(TestClips.times(screen)).hasSize(90);
        assertThat(run(render(folder.resolve("y.mkv"), "--also", clip.toString()))
                        .err())
                .contains("is there already");
    }
}
