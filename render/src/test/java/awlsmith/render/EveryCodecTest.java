package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import awlsmith.core.recipe.Recipe;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.media.TestClips;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Every codec in every container that it may stand in, made of one real clip in parts; what comes out is told by ffprobe and ImageIO. */
class EveryCodecTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();
    private static final int FRAMES = 12;
    private static final String TAGS =
            " -color_range tv -colorspace bt709 -color_trc bt709 -color_primaries bt709 -chroma_sample_location left";

    @TempDir
    static Path folder;

    private static Machine machine;
    private static Clip clip;
    /** Four seconds that take many bits. */
    private static Clip longer;

    @BeforeAll
    static void open() {
        machine = Machine.of(2);
        clip = made(
                "source.mkv",
                "-f lavfi -i testsrc2=s=320x192:r=24 -f lavfi -i sine=r=48000:d=0.6 -frames:v " + FRAMES
                        + " -vf setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709"
                        + " -pix_fmt yuv422p10le -c:v ffv1 -c:a pcm_s16le -shortest" + TAGS);
        longer = made(
                "longer.mkv",
                "-f lavfi -i testsrc2=s=320x192:r=25 -f lavfi -i sine=r=48000:d=4 -frames:v 100 -vf noise=alls=20:allf=t"
                        + " -pix_fmt yuv420p -c:v ffv1 -c:a pcm_s16le -shortest");
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    private static Clip made(String name, String words) {
        return MadeClips.made(folder.resolve(name), words);
    }

    private static Path render(Clip of, Deliverable deliverable) {
        int number = NUMBER.incrementAndGet();
        Path out =
                folder.resolve("out-" + number + "." + deliverable.container().ending());
        var whole = new FrameRange(0, of.index().orElseThrow().count());
        var request =
                new RenderRequest(of, Recipe.EMPTY, whole, deliverable, out, folder.resolve("scratch-" + number), 7);
        new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        return out;
    }

    private static Deliverable in(Codec codec, Container container, Sound sound, Map<String, ?> settings) {
        return Deliverable.of(codec.id(), settings, Optional.of(container), sound);
    }

    static Stream<Object[]> films() {
        return Codecs.all().stream()
                .filter(Codec::tellsColour)
                .flatMap(codec -> codec.containers().stream().map(container -> new Object[] {codec, container}));
    }

    /** What FFmpeg calls each of them. */
    private static final Map<String, String> NAMES =
            Map.of("h265", "hevc", "dnxhr", "dnxhd", "h264", "h264", "av1", "av1", "vp9", "vp9");

    @ParameterizedTest
    @MethodSource("films")
    void everyPairIsWhatItSays(Codec codec, Container container) {
        Path out = render(clip, in(codec, container, Sound.KEPT, Map.of()));
        assertThat(TestClips.entry(out, "codec_name")).isEqualTo(NAMES.getOrDefault(codec.id(), codec.id()));
        assertThat(TestClips.entry(out, "color_space")).isEqualTo("bt709");
        assertThat(TestClips.entry(out, "color_transfer")).isEqualTo("bt709");
        assertThat(TestClips.entry(out, "color_primaries")).isEqualTo("bt709");
        assertThat(TestClips.entry(out, "pix_fmt")).contains("10");
        assertThat(times(out))
                .hasSize(FRAMES)
                .allSatisfy(time ->
                        assertThat(Math.abs(time * 24 - Math.rint(time * 24))).isLessThan(0.03));
        String sound = TestClips.ffprobe("-select_streams a -show_entries stream=codec_name -of csv=p=0 " + out)
                .strip()
                .replace(",", "");
        assertThat(sound)
                .isEqualTo(
                        switch (container) {
                            case MP4 -> "aac";
                            case WEBM -> "opus";
                            default -> "pcm_s16le";
                        });
    }

    /** Times of the pictures, from the first. */
    private static List<Double> times(Path file) {
        var times = new ArrayList<Double>();
        TestClips.ffprobe("-select_streams v:0 -show_entries frame=pts_time -of csv=p=0 " + file)
                .lines()
                .map(line -> line.replace(",", "").strip())
                .filter(line -> !line.isEmpty())
                .forEach(line -> times.add(Double.parseDouble(line)));
        return times.stream().map(time -> time - times.getFirst()).toList();
    }

    /** Its last frames would have no sound. */
    @Test
    void mxfWaitsWithItsEndForThePicturesNotForTheSound() {
        Clip shorter = made(
                "shorter.mkv",
                "-f lavfi -i testsrc2=s=320x192:r=25 -f lavfi -i sine=r=44100:d=0.3 -frames:v 25 -pix_fmt yuv420p"
                        + " -c:v ffv1 -c:a pcm_s16le");
        Path out = render(shorter, in(Codecs.DNXHR, Container.MXF, Sound.KEPT, Map.of()));
        assertThat(times(out)).hasSize(25);
        assertThat(TestClips.ffprobe(
                                "-select_streams a -show_entries stream=codec_name,sample_rate,duration -of csv=p=0 "
                                        + out)
                        .strip())
                .isEqualTo("pcm_s24le,48000,1.000000");
    }

    /** ISO/IEC 15444-1, reversible: the very samples, as FFmpeg's own checksums tell. */
    @ParameterizedTest
    @CsvSource({"jpeg2000, MKV", "jpeg2000, MXF", "ffv1, MKV"})
    void whatIsWithoutLossComesBackSampleForSample(String codec, Container container) {
        Path out = render(clip, in(Codecs.byId(codec), container, Sound.KEPT, Map.of()));
        assertThat(sums(out, "v:0")).isEqualTo(sums(clip.info().file(), "v:0"));
        if (container == Container.MKV) {
            assertThat(sums(out, "a:0")).isEqualTo(sums(clip.info().file(), "a:0"));
        }
    }

    private static String sums(Path file, String stream) {
        String form = stream.startsWith("a") ? " -c:a pcm_s16le -f md5 -" : " -f md5 -";
        return TestClips.ffmpeg("-v error -i " + file + " -map 0:" + stream + form);
    }

    @ParameterizedTest
    @CsvSource({
        "h264, MP4, AAC, aac",
        "h264, MP4, OPUS, opus",
        "h265, MKV, FLAC, flac",
        "h264, MOV, PCM, pcm_s24le",
        "dnxhr, MXF, PCM, pcm_s24le",
        "vp9, WEBM, OPUS, opus",
        "h264, MP4, NONE, ''"
    })
    void soundGoesAsItWasChosen(String codec, Container container, Sound sound, String name) {
        Path out = render(clip, in(Codecs.byId(codec), container, sound, Map.of()));
        assertThat(TestClips.ffprobe("-select_streams a -show_entries stream=codec_name -of csv=p=0 " + out)
                        .strip()
                        .replace(",", ""))
                .isEqualTo(name);
    }

    @Test
    void soundThatAContainerDoesNotHoldIsRefusedWithWhatItHolds() {
        assertThatThrownBy(() -> in(Codecs.H264, Container.MP4, Sound.PCM, Map.of()))
                .hasMessageContaining("MP4")
                .hasMessageContaining("AAC");
        assertThat(in(Codecs.byId("gif"), Container.GIF, Sound.KEPT, Map.of()).hasSound())
                .isFalse();
    }

    /** Pictures as Java's own reader sees them: every sample without loss, numbered from where it was told. */
    @ParameterizedTest
    @CsvSource({"png, 8, png", "png, 16, png", "tiff, 8, tif", "tiff, 16, tif"})
    void picturesWithoutLossAreWhatFfmpegMakesOfTheSource(String codec, String depth, String form) throws IOException {
        Clip rgb = made(
                codec + depth + ".mkv",
                "-f lavfi -i testsrc2=s=64x48:r=25 -frames:v 9 -pix_fmt " + (depth.equals("8") ? "bgr0" : "gbrp16le")
                        + " -c:v ffv1");
        Path out = render(rgb, in(Codecs.byId(codec), Container.ZIP, Sound.NONE, Map.of("depth", depth, "first", 41)));
        Map<String, byte[]> pictures = unpacked(out);
        assertThat(pictures).hasSize(9);
        for (int n : new int[] {0, 4, 8}) {
            Path one = folder.resolve("one-" + NUMBER.incrementAndGet() + ".png");
            TestClips.ffmpeg("-i " + rgb.info().file() + " -vf select=eq(n\\," + n + ") -frames:v 1 -pix_fmt "
                    + (depth.equals("8") ? "rgb24" : "rgb48be") + " " + one);
            String name = out.getFileName().toString().replace(".zip", "") + "_%06d.".formatted(41 + n) + codec;
            BufferedImage made = ImageIO.read(new ByteArrayInputStream(pictures.get(name)));
            BufferedImage wanted = ImageIO.read(one.toFile());
            assertThat(samples(made)).as(form + " " + n).isEqualTo(samples(wanted));
        }
    }

    private static int[] samples(BufferedImage image) {
        return image.getRaster().getPixels(0, 0, image.getWidth(), image.getHeight(), (int[]) null);
    }

    private static Map<String, byte[]> unpacked(Path archive) throws IOException {
        var files = new HashMap<String, byte[]>();
        try (var zip = new ZipInputStream(Files.newInputStream(archive))) {
            for (var entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                files.put(entry.getName(), zip.readAllBytes());
            }
        }
        return files;
    }

    /** Transparency goes into every kind of picture that holds it, sample for sample as FFmpeg reads the source. */
    @ParameterizedTest
    @CsvSource({"png, rgba", "png, gbrap12le", "tiff, rgba", "exr, rgba", "apng, rgba", "apng, gbrap12le", "gif, rgba"})
    void picturesKeepWhatIsClear(String codec, String pixels) throws IOException {
        Clip clear = made(
                codec + pixels + ".mkv",
                "-f lavfi -i testsrc2=s=64x48:r=25 -frames:v 4 -vf format=gbrap16le,geq=r='r(X,Y)':g='g(X,Y)':b='b(X,Y)'"
                        + ":a='if(lt(X,32),65535,0)' -pix_fmt " + pixels + " -c:v ffv1");
        Codec known = Codecs.byId(codec);
        Path out = render(clear, in(known, known.containers().getFirst(), Sound.NONE, Map.of()));
        Path first = out;
        if (known.containers().getFirst() == Container.ZIP) {
            first = folder.resolve("clear-" + codec + pixels + "." + codec);
            Files.write(first, unpacked(out).values().iterator().next());
        }
        Path alpha = folder.resolve("clear-" + codec + pixels + ".raw");
        TestClips.ffmpeg("-i " + first + " -vf format=rgba,alphaextract,format=gray -frames:v 1 -f rawvideo " + alpha);
        byte[] plane = Files.readAllBytes(alpha);
        assertThat(plane[10] & 255).isEqualTo(255);
        // swscale makes 8 of 4095 of nothing where it goes from 16 bits to 12
        assertThat(plane[50] & 255).isLessThanOrEqualTo(1);
    }

    /** JFIF (ITU-T T.871): BT.601 luma of full range; grey bars of known code values come back within a step or two. */
    @Test
    void jpegPicturesHaveTheColoursOfTheSource() throws IOException {
        Clip colour = made(
                "red.mkv",
                "-f lavfi -i color=c=0xc04020:s=64x48:r=25 -frames:v 5 -vf"
                        + " scale=out_color_matrix=bt709:out_range=tv,format=yuv444p -c:v ffv1" + TAGS);
        Path out = render(colour, in(Codecs.byId("jpeg"), Container.ZIP, Sound.NONE, Map.of()));
        byte[] first = unpacked(out).values().iterator().next();
        int[] middle = ImageIO.read(new ByteArrayInputStream(first)).getRaster().getPixel(32, 24, (int[]) null);
        assertThat(middle[0]).isBetween(0xbd, 0xc3);
        assertThat(middle[1]).isBetween(0x3d, 0x43);
        assertThat(middle[2]).isBetween(0x1d, 0x23);
    }

    /** BT.709 item 1.2 undone: 0.5 in the signal is 0.2598 of the light; halves have 11 bits. */
    @Test
    void openExrIsInLinearLight() throws IOException {
        Clip grey = made(
                "half.mkv",
                "-f lavfi -i color=c=0x808080:s=64x48:r=25 -frames:v 3 -vf format=bgr0 -c:v ffv1"
                        + " -color_trc bt709 -color_primaries bt709");
        Path out = render(grey, in(Codecs.byId("exr"), Container.ZIP, Sound.NONE, Map.of()));
        Path one = folder.resolve("one.exr");
        Files.write(one, unpacked(out).values().iterator().next());
        Path raw = folder.resolve("one.raw");
        TestClips.ffmpeg("-i " + one + " -f rawvideo -pix_fmt gbrpf32le " + raw);
        var floats = java.nio.ByteBuffer.wrap(Files.readAllBytes(raw)).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        double light = Math.pow((128 / 255.0 + 0.099) / 1.099, 1 / 0.45);
        assertThat(floats.getFloat(100)).isCloseTo((float) light, org.assertj.core.api.Assertions.within(0.002f));
    }

    @Test
    void aGifHoldsItsTimesAndAnAnimatedPngEverySample() {
        Clip rgb = made("moving.mkv", "-f lavfi -i testsrc2=s=64x48:r=25 -frames:v 13 -pix_fmt bgr0 -c:v ffv1");
        Path gif = render(rgb, in(Codecs.byId("gif"), Container.GIF, Sound.NONE, Map.of("loop", "once")));
        assertThat(times(gif)).hasSize(13);
        assertThat(times(gif).getLast()).isEqualTo(12 / 25.0);
        Path png = render(rgb, in(Codecs.byId("apng"), Container.APNG, Sound.NONE, Map.of()));
        String want = TestClips.ffmpeg("-v error -i " + rgb.info().file() + " -pix_fmt rgb24 -f md5 -");
        assertThat(TestClips.ffmpeg("-v error -i " + png + " -pix_fmt rgb24 -f md5 -"))
                .isEqualTo(want);
    }

    /** Its chunks as RFC 9649 has them; its pictures each for itself, as FFmpeg reads a WebP by itself. */
    @ParameterizedTest
    @CsvSource({"all, bgr0", "all, bgra", "most, bgr0", "most, bgra"})
    void anAnimatedWebpHoldsItsPicturesAndTimes(String keeps, String pixels) throws IOException {
        Clip rgb = made(
                "webp-" + keeps + pixels + ".mkv",
                "-f lavfi -i testsrc2=s=66x50:r=24000/1001 -frames:v 13 -vf format=rgba,geq=r='r(X,Y)':g='g(X,Y)':b='b(X,Y)':a='"
                        + (pixels.equals("bgra") ? "if(lt(X,33),255,0)" : "255") + "' -pix_fmt " + pixels
                        + " -c:v ffv1");
        Path out = render(
                rgb, in(Codecs.byId("webp"), Container.WEBP, Sound.NONE, Map.of("keeps", keeps, "loop", "once")));
        ByteBuffer file = ByteBuffer.wrap(Files.readAllBytes(out)).order(ByteOrder.LITTLE_ENDIAN);
        assertThat(file.getInt(4)).isEqualTo(file.capacity() - 8);
        assertThat(new String(file.array(), 0, 16, StandardCharsets.US_ASCII).replaceAll("[^A-Z0-9]", ""))
                .startsWith("RIFF")
                .endsWith("WEBPVP8X");
        boolean clear = pixels.equals("bgra");
        assertThat(file.get(20)).isEqualTo((byte) (clear ? 0x12 : 0x02));
        assertThat(file.getShort(24)).isEqualTo((short) 65);
        assertThat(file.getShort(27)).isEqualTo((short) 49);
        // shown once
        assertThat(file.getShort(42)).isEqualTo((short) 1);
        var times = new ArrayList<Integer>();
        double worst = 0;
        for (int at = 44; at < file.capacity(); at += 8 + file.getInt(at + 4)) {
            assertThat(new String(file.array(), at, 4, StandardCharsets.US_ASCII))
                    .isEqualTo("ANMF");
            int lasts = file.getShort(at + 20) & 0xFFFF;
            int end = at + 8 + file.getInt(at + 4);
            Path alone =
                    Files.write(folder.resolve("alone.webp"), still(file, at + 24, end, clear && !keeps.equals("all")));
            Path got = folder.resolve("got.raw");
            Path want = folder.resolve("want.raw");
            TestClips.ffmpeg("-y -i " + alone + " -pix_fmt rgba -f rawvideo " + got);
            TestClips.ffmpeg("-y -i " + rgb.info().file() + " -vf select=eq(n\\," + times.size()
                    + ") -frames:v 1 -pix_fmt rgba -f rawvideo " + want);
            worst = Math.max(worst, meanError(Files.readAllBytes(got), Files.readAllBytes(want)));
            times.add(lasts);
        }
        assertThat(times).containsExactly(42, 41, 42, 42, 42, 41, 42, 42, 41, 42, 42, 42, 41);
        if (keeps.equals("all")) {
            assertThat(worst).isZero();
        } else {
            // quality 80 on a test picture of hard edges, with halved chroma: by what it is here
            assertThat(worst).isBetween(0.1, 12.0);
        }
    }

    /** A frame's chunks as a file by itself; with its transparency apart it wants the extended header. */
    private static byte[] still(ByteBuffer file, int from, int end, boolean extended) {
        ByteBuffer out =
                ByteBuffer.allocate(12 + (extended ? 18 : 0) + end - from).order(ByteOrder.LITTLE_ENDIAN);
        out.put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(out.capacity() - 8);
        out.put("WEBP".getBytes(StandardCharsets.US_ASCII));
        if (extended) {
            out.put("VP8X".getBytes(StandardCharsets.US_ASCII)).putInt(10).putInt(0x10);
            out.put(new byte[] {65, 0, 0, 49, 0, 0});
        }
        return out.put(file.array(), from, end - from).array();
    }

    /** In code values, over what is not clear in the wanted one. */
    private static double meanError(byte[] got, byte[] want) {
        assertThat(got).hasSameSizeAs(want);
        double sum = 0;
        int count = 0;
        for (int i = 0; i < got.length; i += 4) {
            assertThat(got[i + 3]).isEqualTo(want[i + 3]);
            for (int c = 0; c < 3 && want[i + 3] != 0; c++) {
                sum += Math.abs((got[i + c] & 255) - (want[i + c] & 255));
                count++;
            }
        }
        return sum / count;
    }

    @Test
    void moreFramesThanAGifCanShowAreRefused() {
        Clip quick = made("quick.mkv", "-f lavfi -i testsrc2=s=64x48:r=60 -frames:v 13 -pix_fmt bgr0 -c:v ffv1");
        assertThatThrownBy(() -> render(quick, in(Codecs.byId("gif"), Container.GIF, Sound.NONE, Map.of())))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("50 frames a second")
                .hasMessageContaining("Frame rate");
    }

    @ParameterizedTest
    @CsvSource({"h264, MP4", "vp9, WEBM", "av1, MP4"})
    void aSizeIsKeptAndUsed(String codec, Container container) throws IOException {
        Path out = render(longer, in(Codecs.byId(codec), container, Sound.KEPT, Map.of("size", 0.5)));
        assertThat(Files.size(out)).isLessThanOrEqualTo(500_000).isGreaterThan(330_000);
    }

    @Test
    void aBitRateIsTheMean() throws IOException {
        Path out = render(longer, in(Codecs.H264, Container.MP4, Sound.NONE, Map.of("bitrate", 1.5, "peak", 2.0)));
        assertThat(Files.size(out) * 8 / 4.0).isBetween(1.2e6, 1.65e6);
    }

    /** At a rate factor that would take many times as much; two seconds of it may wait (ITU-T H.264 annex C). */
    @ParameterizedTest
    @CsvSource({"h264, 3", "h265, 3"})
    void aPeakHoldsDownWhatQualityWouldTake(String codec, int quality) throws IOException {
        Path out = render(
                longer, in(Codecs.byId(codec), Container.MP4, Sound.NONE, Map.of("quality", quality, "peak", 1.0)));
        assertThat(Files.size(out) * 8 / 4.0).isBetween(0.5e6, 1.6e6);
    }

    @Test
    void aSizeThatCannotBeIsSaidToBeSo() {
        assertThatThrownBy(() -> render(longer, in(Codecs.H264, Container.MOV, Sound.PCM, Map.of("size", 0.2))))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("cannot be made as small")
                .hasMessageContaining("sound");
    }
}
