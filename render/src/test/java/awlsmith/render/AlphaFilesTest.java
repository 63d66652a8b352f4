package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Transparent pictures in real files through the whole path, held against FFmpeg's word on them. */
class AlphaFilesTest {
    /** A disc of moving colour; clear around it, half clear at its rim, and black where it is clear. */
    private static final String DISC = "-f lavfi -i testsrc2=s=96x64:r=25,format=gbrap,"
            + "geq=r='if(gt(hypot(X-48,Y-32),28),0,r(X,Y))':g='if(gt(hypot(X-48,Y-32),28),0,g(X,Y))'"
            + ":b='if(gt(hypot(X-48,Y-32),28),0,b(X,Y))':a='255*clip(29-hypot(X-48,Y-32),0,1)' ";

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

    private static Clip indexed(Path file) {
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private static RenderRequest request(Clip clip, String codec, String name, String... steps) {
        var recipe = new Recipe(Arrays.stream(steps).map(Step::parse).toList());
        return new RenderRequest(
                clip,
                recipe,
                new FrameRange(0, clip.index().orElseThrow().count()),
                Deliverable.usual(Codecs.byId(codec)),
                folder.resolve(name),
                folder.resolve(name + ".parts"),
                5);
    }

    private static Path render(RenderRequest request) {
        new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        return request.out();
    }

    /** Checksums of every frame's samples in a layout, as FFmpeg decodes them. */
    private static String sums(Path file, String pixels) {
        return TestClips.ffmpeg("-i " + file + " -vf format=" + pixels + " -f framemd5 -")
                .lines()
                .filter(line -> line.matches("\\d+,.*[0-9a-f]{32}"))
                .map(line -> line.substring(line.lastIndexOf(',') + 1).trim())
                .reduce("", (a, b) -> a + "\n" + b);
    }

    @ParameterizedTest
    @CsvSource({
        "png, qtrle, mov, argb, rgba, bgra",
        "rgba64, png, mov, rgba64be, gbrap16le, gbrap16le",
        "yuva420, ffv1, mkv, yuva420p, yuva420p, yuva420p",
        "yuva422, ffv1, mkv, yuva422p10le, yuva422p10le, yuva422p10le",
        "yuva444, prores_ks, mov, yuva444p10le, yuva444p12le, yuva444p16le"
    })
    void everySampleOfTransparencyComesOutAsItWentIn(
            String name, String codec, String container, String stored, String seen, String made) {
        Path source = folder.resolve(name + "." + container);
        String profile = codec.equals("prores_ks") ? " -profile:v 4 -alpha_bits 16" : "";
        TestClips.ffmpeg(DISC + "-frames:v 7 -pix_fmt " + stored + " -c:v " + codec + profile + " " + source);
        Clip clip = indexed(source);
        assertThat(clip.format().alpha()).isEqualTo(Alpha.STRAIGHT);
        Path out = render(request(clip, "ffv1", name + "-out.mkv"));
        assertThat(TestClips.entry(out, "pix_fmt")).isEqualTo(made);
        if (seen.equals(made) || codec.equals("qtrle")) {
            assertThat(sums(out, seen)).isEqualTo(sums(source, seen));
        } else {
            // FFV1 holds no 12 bits with transparency; the file has 16
            assertThat(farthest(clip, indexed(out))).isLessThan(0.51 / 65535);
        }
    }

    /** The largest difference of any sample of any frame. */
    private static double farthest(Clip one, Clip other) {
        double most = 0;
        int count = 0;
        try (var a = one.open(FrameRange.all(), one.format().whole(), new PlanePool(0), new Cancel());
                var b = other.open(FrameRange.all(), other.format().whole(), new PlanePool(0), new Cancel())) {
            for (var frame = a.next(); frame.isPresent(); frame = a.next(), count++) {
                Frame held = b.next().orElseThrow();
                for (int p = 0; p < 4; p++) {
                    float[] x = frame.get().plane(p).packed();
                    float[] y = held.plane(p).packed();
                    for (int i = 0; i < x.length; i++) {
                        most = Math.max(most, Math.abs(x[i] - y[i]));
                    }
                }
            }
        }
        assertThat(count).isEqualTo(7);
        return most;
    }

    @Test
    void anEnlargedDiscHasNoRimInTheFile() {
        Path source = folder.resolve("flat.mov");
        TestClips.ffmpeg("-f lavfi -i color=0xd08040:s=96x64:r=25,format=gbrap,"
                + "geq=r='if(gt(hypot(X-48,Y-32),29),0,208)':g='if(gt(hypot(X-48,Y-32),29),0,128)'"
                + ":b='if(gt(hypot(X-48,Y-32),29),0,64)':a='255*clip(29-hypot(X-48,Y-32),0,1)' -frames:v 4 -c:v qtrle -pix_fmt argb "
                + source);
        Clip out = indexed(render(request(indexed(source), "ffv1", "flat-out.mkv", "enlarge factor=2")));
        assertThat(out.format().width()).isEqualTo(192);
        try (var frames = out.open(FrameRange.all(), out.format().whole(), new PlanePool(0), new Cancel())) {
            int seen = 0;
            for (var frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                seen += edge(frame.get());
            }
            assertThat(seen).isGreaterThan(100);
        }
    }

    /** Half seen pixels are of the disc's own colour. */
    private static int edge(Frame frame) {
        int seen = 0;
        for (int y = 0; y < frame.window().height(); y++) {
            for (int x = 0; x < frame.window().width(); x++) {
                float opacity = frame.plane(3).at(x, y);
                if (opacity > 0.1 && opacity < 0.9) {
                    seen++;
                    assertThat(frame.plane(0).at(x, y)).isBetween(200 / 255f, 216 / 255f);
                    assertThat(frame.plane(2).at(x, y)).isBetween(56 / 255f, 72 / 255f);
                }
            }
        }
        return seen;
    }

    @Test
    void whatCouldBeTransparentAndNeverIsCountsAsOpaque() throws IOException {
        Path source = folder.resolve("opaque.mov");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25,format=argb -frames:v 4 -c:v qtrle " + source);
        Clip clip = indexed(source);
        assertThat(clip.format().alpha()).isEqualTo(Alpha.NONE);
        Path out = render(request(clip, "ffv1", "opaque-out.mkv"));
        assertThat(TestClips.entry(out, "pix_fmt")).isEqualTo("bgr0");
        assertThat(sums(out, "gbrp")).isEqualTo(sums(source, "gbrp"));
        // and from disk
        Path kept = folder.resolve("opaque.index");
        clip.index().orElseThrow().save(kept);
        assertThat(new Clip(clip.info(), Optional.of(FrameIndex.load(kept)))
                        .format()
                        .alpha())
                .isEqualTo(Alpha.NONE);
        assertThat(Files.size(kept)).isPositive();
    }

    @Test
    void aCodecWithoutTransparencyGetsItOverBlackAndIsToldSo() {
        Path source = folder.resolve("told.mov");
        TestClips.ffmpeg(DISC + "-frames:v 4 -c:v qtrle -pix_fmt argb " + source);
        RenderRequest request = request(indexed(source), "h264", "told.mp4");
        assertThat(request.plan(machine).warnings()).anyMatch(words -> words.contains("they go out over black"));
        assertThat(request(indexed(source), "ffv1", "kept.mkv").plan(machine).warnings())
                .noneMatch(words -> words.contains("transparen"));
        Path out = render(request);
        Clip made = indexed(out);
        try (var frames = made.open(FrameRange.single(0), made.format().whole(), new PlanePool(0), new Cancel())) {
            assertThat(frames.next().orElseThrow().plane(0).at(2, 2)).isBetween(-0.03f, 0.03f);
        }
    }

    @Test
    void aPictureLaidOverAColourHasItWhereItWasClear() {
        Path source = folder.resolve("laid.mov");
        TestClips.ffmpeg(DISC + "-frames:v 2 -c:v qtrle -pix_fmt argb " + source);
        Path out = render(request(
                indexed(source), "ffv1", "laid.mkv", "enlarge factor=2", "transparency leaves=opaque behind=#336699"));
        Clip made = indexed(out);
        assertThat(made.format().alpha()).isEqualTo(Alpha.NONE);
        try (var frames = made.open(FrameRange.single(0), made.format().whole(), new PlanePool(0), new Cancel())) {
            Frame frame = frames.next().orElseThrow();
            assertThat(frame.plane(0).at(1, 1) * 255).isBetween(0x32 * 1f, 0x34 * 1f);
            assertThat(frame.plane(2).at(1, 1) * 255).isBetween(0x98 * 1f, 0x9a * 1f);
        }
    }

    /** Frames of uneven length go to the encoder with their times, whatever their layout. */
    @ParameterizedTest
    @CsvSource({"rgba, bgra", "yuva420p, yuva420p", "yuva444p10le, yuva444p10le"})
    void transparentFramesOfUnevenLengthKeepTheirTimes(String pixels, String made) {
        Path source = folder.resolve("uneven-" + pixels + ".mkv");
        TestClips.ffmpeg(DISC + "-frames:v 8 -vf select='not(eq(n\\,3))' -fps_mode passthrough -pix_fmt " + made
                + " -c:v ffv1 " + source);
        Clip clip = indexed(source);
        assertThat(clip.steadyRate()).isEmpty();
        Path out = render(request(clip, "ffv1", "uneven-" + pixels + "-out.mkv"));
        assertThat(TestClips.entry(out, "pix_fmt")).isEqualTo(made);
        assertThat(TestClips.times(out)).isEqualTo(TestClips.times(source));
        assertThat(sums(out, pixels)).isEqualTo(sums(source, pixels));
    }
}
