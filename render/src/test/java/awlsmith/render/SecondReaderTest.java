package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import awlsmith.core.recipe.Recipe;
import awlsmith.media.Clip;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What FFmpeg both writes and reads, read by others: MediaInfo (its own readers of MXF, MOV and Matroska) and OpenJPEG's command. */
class SecondReaderTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final int WIDTH = 320;
    private static final int HEIGHT = 192;
    private static final int FRAMES = 12;

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

    private static Clip made(String name, String words) {
        return MadeClips.made(folder.resolve(name), words);
    }

    private static Path render(Clip clip, String codec, Container container, Map<String, ?> settings) {
        Path out = folder.resolve("out-" + codec + "." + container.ending());
        Deliverable deliverable = Deliverable.of(codec, settings, Optional.of(container), Sound.KEPT);
        var whole = new FrameRange(0, clip.index().orElseThrow().count());
        Path scratch = folder.resolve("parts-" + codec + container.ending());
        var request = new RenderRequest(clip, Recipe.EMPTY, whole, deliverable, out, scratch, 5);
        new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        return out;
    }

    private static JsonNode track(Path file, String type) {
        JsonNode all = JSON.readTree(TestClips.other("mediainfo", "--Output=JSON " + file));
        for (JsonNode track : all.path("media").path("track")) {
            if (track.path("@type").asString().equals(type)) {
                return track;
            }
        }
        throw new AssertionError("no track " + type + " in " + all);
    }

    /** Names as MediaInfo 23.04 has them; the pattern is that of SMPTE ST 378. */
    @ParameterizedTest
    @CsvSource({
        "dnxhr, MXF, MXF, OP-1a, VC-3, 4:2:2, 10",
        "jpeg2000, MXF, MXF, OP-1a, JPEG 2000, '', ''",
        "prores, MOV, MPEG-4, QuickTime, ProRes, 4:2:2, ''",
        "h265, MP4, MPEG-4, Base Media, HEVC, 4:2:0, 10",
        "ffv1, MKV, Matroska, '', FFV1, 4:2:2, 10"
    })
    void anotherReaderFindsTheSame(
            String codec,
            Container container,
            String format,
            String profile,
            String video,
            String chroma,
            String depth) {
        Clip clip = made(
                codec + "-source.mov",
                "-f lavfi -i testsrc2=s=320x192:r=24 -f lavfi -i sine=r=48000:d=0.5 -frames:v 12 -timecode 10:00:00:00"
                        + " -vf setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709"
                        + " -pix_fmt yuv422p10le -c:v prores_ks -c:a pcm_s16le -color_range tv -colorspace bt709"
                        + " -color_trc bt709 -color_primaries bt709");
        Path out = render(clip, codec, container, Map.of());
        JsonNode general = track(out, "General");
        assertThat(general.path("Format").asString()).startsWith(format);
        assertThat(general.path("Format_Profile").asString("")).startsWith(profile);
        JsonNode seen = track(out, "Video");
        assertThat(seen.path("Format").asString()).isEqualTo(video);
        assertThat(seen.path("Width").asString()).isEqualTo("" + WIDTH);
        assertThat(seen.path("Height").asString()).isEqualTo("" + HEIGHT);
        assertThat(Double.parseDouble(seen.path("FrameRate").asString())).isEqualTo(24);
        assertThat(seen.path("FrameRate_Mode").asString("CFR")).isEqualTo("CFR");
        if (!chroma.isEmpty()) {
            assertThat(seen.path("ChromaSubsampling").asString()).startsWith(chroma);
        }
        if (!depth.isEmpty()) {
            assertThat(seen.path("BitDepth").asString()).isEqualTo(depth);
        }
        if (seen.has("FrameCount")) {
            assertThat(seen.path("FrameCount").asString()).isEqualTo("" + FRAMES);
        }
        if (seen.has("matrix_coefficients")) {
            assertThat(seen.path("matrix_coefficients").asString()).isEqualTo("BT.709");
        }
        assertThat(track(out, "Audio").path("SamplingRate").asString()).isEqualTo("48000");
        if (container == Container.MXF || container == Container.MOV) {
            assertThat(TestClips.other("mediainfo", "--Full " + out)).contains("10:00:00:00");
        }
    }

    /** The format's own library takes the file apart, and finds its sides, frames and times. */
    @Test
    void anotherReaderFindsAnAnimatedWebpRight() throws IOException {
        Clip clip = made(
                "clear.mkv",
                "-f lavfi -i testsrc2=s=320x192:r=25 -frames:v 5 -vf format=rgba,geq=r='r(X,Y)':g='g(X,Y)':b='b(X,Y)':a='X/2'"
                        + " -pix_fmt bgra -c:v ffv1");
        for (String keeps : List.of("most", "all")) {
            Path out = render(clip, "webp", Container.WEBP, Map.of("keeps", keeps));
            assertThat(TestClips.other("webpinfo", "-quiet " + out)).doesNotContain("rror");
            String said = TestClips.other("webpmux", "-info " + out);
            assertThat(said)
                    .contains("Canvas size: 320 x 192")
                    .contains("Features present: animation transparency")
                    .contains("Loop Count : 0")
                    .contains("Number of frames: 5");
            assertThat(said.lines()
                            .filter(line ->
                                    line.matches("\\s+\\d:\\s+320\\s+192\\s+yes\\s+0\\s+0\\s+40\\s+none\\s+no.*")))
                    .hasSize(5);
        }
    }

    /** ISO/IEC 15444-1, reversible, decoded by OpenJPEG: the very samples that went in. */
    @Test
    void anotherDecoderFindsTheVerySamples() throws IOException {
        Clip clip = made("rgb.mkv", "-f lavfi -i testsrc2=s=320x192:r=24 -frames:v 5 -pix_fmt bgr0 -c:v ffv1");
        Path out = render(clip, "jpeg2000", Container.MKV, Map.of());
        TestClips.ffmpeg("-i " + out + " -c copy -f image2 " + folder.resolve("one-%d.j2k"));
        Path raw = folder.resolve("source.rgb");
        TestClips.ffmpeg("-i " + clip.info().file() + " -pix_fmt rgb24 -f rawvideo " + raw);
        byte[] source = Files.readAllBytes(raw);
        int samples = WIDTH * HEIGHT;
        for (int n = 0; n < 5; n++) {
            Path planes = folder.resolve("planes-" + n + ".raw");
            TestClips.other("opj_decompress", "-i " + folder.resolve("one-" + (n + 1) + ".j2k") + " -o " + planes);
            byte[] decoded = Files.readAllBytes(planes);
            assertThat(decoded).hasSize(3 * samples);
            int wrong = 0;
            for (int i = 0; i < samples; i++) {
                for (int c = 0; c < 3; c++) {
                    wrong += decoded[c * samples + i] == source[3 * (n * samples + i) + c] ? 0 : 1;
                }
            }
            assertThat(wrong).as("frame %d", n).isZero();
        }
    }
}
