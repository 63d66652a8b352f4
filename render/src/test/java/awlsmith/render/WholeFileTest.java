package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Tags;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
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

/** Real files through the whole path, in segments; what comes out is held against what went in, by ffprobe's word. */
class WholeFileTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();
    private static final Recipe NOTHING = Recipe.EMPTY;

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

    private static RenderRequest request(Clip clip, Recipe recipe, FrameRange range, String codec, String ending)
            throws IOException {
        int number = NUMBER.incrementAndGet();
        Path scratch = Files.createDirectories(folder.resolve("scratch-" + number));
        return new RenderRequest(
                clip,
                recipe,
                range,
                Deliverable.usual(Codecs.byId(codec)),
                folder.resolve("out-" + number + "." + ending),
                scratch,
                7);
    }

    private static Path render(RenderRequest request) {
        new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        return request.out();
    }

    private static FrameRange whole(Clip clip) {
        return new FrameRange(0, clip.index().orElseThrow().count());
    }

    private static final String HDR =
            "-color_primaries bt2020 -color_trc smpte2084 -colorspace bt2020nc -color_range tv -chroma_sample_location topleft";

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "full.mkv | -vf scale=out_range=pc,setparams=range=pc -pix_fmt yuv420p -c:v ffv1 -color_range pc -colorspace bt709 -color_trc bt709 -color_primaries bt709",
                "hdr.mkv | -pix_fmt yuv420p10le -vf setparams=colorspace=bt2020nc:color_trc=smpte2084:color_primaries=bt2020:range=tv -c:v ffv1 "
                        + HDR,
                "hlg.mp4 | -pix_fmt yuv420p10le -c:v libx265 -x265-params log-level=error:colorprim=bt2020:transfer=arib-std-b67:colormatrix=bt2020nc:range=limited:chromaloc=2",
                "wide.mov | -pix_fmt yuv422p10le -c:v prores_ks -colorspace bt709 -color_trc bt709 -color_primaries bt709 -color_range tv",
                "tape.mpg | -vf setparams=field_mode=tff,setsar=16/15 -c:v mpeg2video -flags +ildct+ilme -top 1 -q:v 3 -colorspace bt470bg -color_trc gamma28 -color_primaries bt470bg",
                "bottom.mkv | -vf setparams=field_mode=bff -pix_fmt yuv420p -c:v ffv1 -field_order bb -top 0",
                "centre.mkv | -pix_fmt yuvj420p -c:v mjpeg -q:v 2",
                "untagged.mp4 | -pix_fmt yuv420p -c:v libx264",
                "grey.mkv | -pix_fmt gray -c:v ffv1",
                "rgb.mkv | -pix_fmt gbrp -c:v ffv1",
                "deep.mkv | -pix_fmt yuv444p12le -c:v ffv1 -colorspace bt709 -color_range tv"
            })
    void whatTheSourceSaysOfItselfTheFilesSayToo(String name, String codec) throws IOException {
        Path source = folder.resolve(name);
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25 -f lavfi -i sine=d=0.8 -frames:v 12 -shortest " + codec
                + " " + source);
        Clip clip = indexed(source);
        Format in = clip.format();
        // one without loss and one with, whose container changes from source to source
        String other = List.of("mp4", "mov", "mkv").get(NUMBER.get() % 3);
        for (String[] out : new String[][] {{"ffv1", "mkv"}, {"h264", other}, {"h265", other}, {"prores", "mov"}}) {
            RenderRequest request = request(clip, NOTHING, whole(clip), out[0], out[1]);
            Format made = Prober.probe(render(request)).video().format();
            String what = name + " as " + out[0] + " in " + out[1];
            boolean mezzanine = out[0].equals("prores");
            int most = out[0].equals("h264") ? 10 : 16;
            assertThat(made.depth()).as(what).isEqualTo(mezzanine ? 10 : Math.min(most, in.depth()));
            // the encoder of H.265 knows whole pictures alone
            assertThat(made.scan()).as(what).isEqualTo(out[0].equals("h265") ? Scan.PROGRESSIVE : in.scan());
            assertThat(made.sar()).as(what).isEqualTo(in.sar());
            if (in.chroma() != Chroma.RGB && in.chroma() != Chroma.GREY) {
                var range = mezzanine ? ColourTags.Range.LIMITED : in.colour().range();
                assertThat(made.colour())
                        .as(what)
                        .isEqualTo(new ColourTags(
                                in.colour().matrix(),
                                range,
                                in.colour().transfer(),
                                in.colour().primaries()));
            }
            if (in.chroma().isSubsampled() && made.chroma() == in.chroma()) {
                assertThat(made.siting().isSame(in.siting(), in.chroma()))
                        .as(what)
                        .isTrue();
            }
            assertThat(TestClips.entry(request.out(), "chroma_location"))
                    .as(what)
                    .isNotEqualTo(made.chroma() == Chroma.S420 ? "unspecified" : "none");
        }
    }

    /** What is read from the tags of files made here, so that the test above cannot pass by reading nothing. */
    @Test
    void theSourcesOfTheseTestsAreWhatTheyShouldBe() {
        Path file = folder.resolve("check.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25 -frames:v 3 -pix_fmt yuv420p10le -vf"
                + " setparams=colorspace=bt2020nc:color_trc=smpte2084:color_primaries=bt2020:range=tv -c:v ffv1 " + HDR
                + " "
                + file);
        assertThat(indexed(file).format().colour())
                .isEqualTo(new ColourTags(
                        ColourTags.Matrix.BT2020NC,
                        ColourTags.Range.LIMITED,
                        ColourTags.Transfer.SMPTE2084,
                        ColourTags.Primaries.BT2020));
        Path fields = folder.resolve("fields.mpg");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25 -frames:v 5 -vf setparams=field_mode=tff -c:v mpeg2video"
                + " -flags +ildct+ilme -top 1 -q:v 3 " + fields);
        assertThat(Prober.probe(fields).video().format().scan()).isEqualTo(Scan.TOP_FIRST);
    }

    private static double start(Path file, String stream) {
        return Double.parseDouble(
                TestClips.ffprobe("-select_streams " + stream + " -show_entries stream=start_time -of csv=p=0 " + file)
                        .lines()
                        .findFirst()
                        .orElseThrow()
                        .replace(",", "")
                        .strip());
    }

    /** A flash at 1.0 s of the pictures, which begin 1 s after the sound, and a beep at 2.0 s of the sound: the same moment. */
    private static Path flashAndBeep(String ending) {
        Path file = folder.resolve("late." + ending);
        TestClips.ffmpeg(
                "-itsoffset 1 -f lavfi -i color=black:s=64x48:r=25:d=3,drawbox=c=white:t=fill:enable='gte(t\\,1)'"
                        + " -f lavfi -i aevalsrc=if(gt(t\\,2)\\,sin(2764*t)\\,0):d=4"
                        + " -fps_mode passthrough -pix_fmt yuv420p -c:v libx264 -bf 0 -c:a "
                        + (ending.equals("mkv") ? "pcm_s16le" : "aac") + " " + file);
        return file;
    }

    /** Seconds from the flash to the beep, as FFmpeg finds them. */
    private static double flashToBeep(Path file) {
        String sound = TestClips.ffmpeg("-copyts -i " + file + " -af silencedetect=n=-30dB:d=0.2 -f null -");
        String light = TestClips.ffmpeg("-copyts -i " + file + " -vf blackdetect=d=0.1 -f null -");
        double beep = Double.parseDouble(sound.replaceAll("(?s).*silence_end: ([0-9.]+).*", "$1"));
        double flash = Double.parseDouble(light.replaceAll("(?s).*black_end:([0-9.]+).*", "$1"));
        return beep - flash;
    }

    @ParameterizedTest
    @CsvSource({"mp4, h264, mp4", "mkv, ffv1, mkv", "mkv, h264, mov", "ts, h264, mp4"})
    void soundStaysInStepWhereThePictureStartsLater(String from, String codec, String to) throws IOException {
        Path source = flashAndBeep(from);
        assertThat(flashToBeep(source)).isCloseTo(0, within(0.05));
        Clip clip = indexed(source);
        Path out = render(request(clip, NOTHING, whole(clip), codec, to));
        assertThat(flashToBeep(out)).as("whole").isCloseTo(0, within(0.05));
        assertThat(start(out, "v:0") - start(out, "a:0"))
                .isCloseTo(start(source, "v:0") - start(source, "a:0"), within(0.03));
        Path streamed = render(request(Clip.streamed(clip.info()), NOTHING, FrameRange.all(), codec, to));
        assertThat(flashToBeep(streamed)).as("streamed").isCloseTo(0, within(0.05));
        Path span = render(request(clip, NOTHING, new FrameRange(10, 60), codec, to));
        assertThat(flashToBeep(span)).as("span").isCloseTo(0, within(0.05));
    }

    /** 1.516 s of pictures, 1.58 s of sound. */
    @ParameterizedTest
    @CsvSource({"h264, mp4", "ffv1, mkv"})
    void aWholeClipKeepsAllItsSoundAndASpanItsOwn(String codec, String ending) throws IOException {
        Path source = folder.resolve("longer-" + ending + ".mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25:d=1.516 -f lavfi -i sine=d=1.58:r=48000"
                + " -pix_fmt yuv420p -c:v libx264 -c:a aac " + source);
        Clip clip = indexed(source);
        Path out = render(request(clip, NOTHING, whole(clip), codec, ending));
        assertThat(packets(out)).isEqualTo(packets(source));
        Path span = render(request(clip, NOTHING, new FrameRange(5, 25), codec, ending));
        // 0.8 s of packets of 1024 samples, one more or less at each end
        assertThat(packets(span)).isBetween(36L, 39L);
    }

    private static long packets(Path file) {
        return TestClips.ffprobe("-select_streams a:0 -show_entries packet=size -of csv=p=0 " + file)
                .lines()
                .filter(line -> !line.isBlank())
                .count();
    }

    /** Untagged standard definition, enlarged past 576 lines: what it was taken for stays, and the tags say so. */
    @Test
    void untaggedColourIsTheSameOnBothSidesAndInTheFile() throws IOException {
        Path source = folder.resolve("sd.mkv");
        TestClips.ffmpeg("-f lavfi -i color=c=0xca4d37:s=96x64:r=25 -frames:v 9 -vf"
                + " scale=out_color_matrix=bt601:out_range=tv,format=yuv420p -c:v ffv1 " + source);
        Clip clip = indexed(source);
        assertThat(clip.info().video().format().colour().matrix()).isEqualTo(ColourTags.Matrix.UNSPECIFIED);
        assertThat(clip.format().colour().matrix()).isEqualTo(ColourTags.Matrix.SMPTE170M);
        var recipe = new Recipe(List.of(Step.parse("enlarge factor=8"), Step.parse("enlarge factor=2")));
        Format treated = recipe.chain(clip.format()).output();
        assertThat(treated.height()).isGreaterThan(576);
        assertThat(treated.colour().matrix()).isEqualTo(ColourTags.Matrix.SMPTE170M);
        Path out = render(request(clip, recipe, new FrameRange(0, 3), "h264", "mp4"));
        assertThat(TestClips.entry(out, "color_space")).isEqualTo("smpte170m");
        assertThat(TestClips.entry(out, "color_range")).isEqualTo("tv");
    }

    @Test
    void aMatrixThatCannotBeTreatedIsRefused() {
        Path source = folder.resolve("ycgco.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=64x48:r=25 -frames:v 3 -pix_fmt yuv444p -c:v ffv1 -colorspace ycgco " + source);
        assertThatThrownBy(() -> Prober.probe(source))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("ycgco")
                .hasMessageContaining("Convert the file");
    }

    /** A quarter turn by the file's own mark: where chroma lies turns too, and the file out says where it is. */
    @ParameterizedTest
    @CsvSource({"90", "180", "270"})
    void chromaOfAPictureTurnedByItsFileLiesWhereItDid(int degrees) throws IOException {
        Path lying = folder.resolve("lying-" + degrees + ".mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25 -frames:v 4 -pix_fmt yuv420p -c:v libx264 -qp 0 " + lying);
        Path marked = folder.resolve("marked-" + degrees + ".mp4");
        Files.write(marked, turnedByItsHeader(Files.readAllBytes(lying), degrees));
        Clip turned = indexed(marked);
        Format format = turned.format();
        Clip plain = indexed(lying);
        // the same turn by our own stage, which moves samples as they are
        var chain = new Recipe(List.of(Step.parse("turn turn=" + degrees))).chain(plain.format());
        assertThat(chain.output().siting()).isEqualTo(format.siting());
        assertThat(chain.output().width()).isEqualTo(format.width());
        Path out = render(request(turned, NOTHING, whole(turned), "h264", "mp4"));
        assertThat(TestClips.entry(out, "chroma_location")).isEqualTo("left");
    }

    /** ISO/IEC 14496-12, tkhd: nine numbers of 16.16 and 2.30 bits, of which a, b, c, d turn. */
    private static byte[] turnedByItsHeader(byte[] mp4, int clockwise) {
        int box = new String(mp4, StandardCharsets.ISO_8859_1).indexOf("tkhd");
        int cos = clockwise == 180 ? -0x10000 : 0;
        int sin = clockwise == 90 ? 0x10000 : clockwise == 270 ? -0x10000 : 0;
        ByteBuffer matrix = ByteBuffer.wrap(mp4).position(box + 44);
        for (int value : new int[] {cos, sin, 0, -sin, cos, 0, 0, 0, 0x40000000}) {
            matrix.putInt(value);
        }
        return mp4;
    }

    /** What ffprobe reads of it; title, artist, date and copyright are FFmpeg's own names for them ("ffmpeg-formats", Metadata). */
    @ParameterizedTest
    @CsvSource({"h264, mp4", "prores, mov", "ffv1, mkv", "vp9, webm"})
    void whatTheSourceTellsOfItselfGoesAlongUnlessSomebodySaysOtherwise(String codec, String ending)
            throws IOException {
        Path file = folder.resolve("told.mkv");
        if (!Files.exists(file)) {
            TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25:d=0.4 -c:v ffv1 -metadata title=Crossing"
                    + " -metadata artist=Pilot -metadata date=1987 -metadata copyright=Line -metadata location=+51+3/ "
                    + file);
        }
        RenderRequest request = request(indexed(file), NOTHING, new FrameRange(0, 10), codec, ending);
        var own = new Tags(Map.of("title", "Night; crossing=2 'ä'", "copyright", "", "description", "as it was"));
        request = new RenderRequest(
                request.clip(),
                NOTHING,
                request.range(),
                request.deliverable()
                        .in(Container.byEnding(ending).orElseThrow())
                        .with(own),
                request.out(),
                request.scratch(),
                7);
        Path out = render(request);
        assertThat(TestClips.tag(out, "title")).isEqualTo("Night; crossing=2 'ä'");
        assertThat(TestClips.tag(out, "artist")).isEqualTo("Pilot");
        assertThat(TestClips.tag(out, "date")).isEqualTo("1987");
        assertThat(TestClips.tag(out, "copyright")).isEmpty();
        assertThat(TestClips.tag(out, "description")).isEqualTo(ending.equals("mov") ? "" : "as it was");
        assertThat(TestClips.tag(out, "location")).isEmpty();
        assertThat(TestClips.tag(out, "comment")).startsWith("Awlsmith");
        assertThat(Prober.probe(out).extras().tags())
                .isEqualTo(own.over(Prober.probe(file).extras().tags())
                        .in(request.deliverable().container()));
    }
}
