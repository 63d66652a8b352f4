package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.MediaInfo;
import awlsmith.media.TestClips;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Sound alone against FFmpeg's decoder, sample by sample; one picture and sheets of them against the numbered ones, by ImageIO. */
class AloneTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();
    private static final int RATE = 48_000;

    @TempDir
    static Path folder;

    private static Machine machine;
    /** Two seconds, whose two tracks last longer. */
    private static Clip clip;

    @BeforeAll
    static void open() {
        machine = Machine.of(2);
        clip = made(
                // its clock counts samples; Matroska's counts thousandths of a second, by which sound may lie off
                "source.mov",
                "-f lavfi -i testsrc2=s=320x180:r=25 -f lavfi -i anoisesrc=r=48000:d=4:seed=5"
                        + " -f lavfi -i sine=r=48000:d=4 -map 0 -map 1 -map 2 -vf trim=end_frame=50 -pix_fmt yuv420p"
                        + " -c:v libx264 -c:a pcm_s16le");
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    private static Clip made(String name, String words) {
        return MadeClips.made(folder.resolve(name), words);
    }

    private static RenderRequest request(Clip of, Recipe recipe, FrameRange range, Deliverable deliverable) {
        int number = NUMBER.incrementAndGet();
        Path out =
                folder.resolve("out-" + number + "." + deliverable.container().ending());
        return new RenderRequest(of, recipe, range, deliverable, out, folder.resolve("scratch-" + number), 7);
    }

    private static List<Renderer.Made> all(RenderRequest... requests) {
        return new Renderer(List.of(requests), machine, RenderWatch.SILENT, new Cancel())
                .renderAll((number, made) -> {});
    }

    private static Deliverable in(String codec, Container container, Sound sound, Map<String, ?> settings) {
        return Deliverable.of(codec, settings, Optional.of(container), sound);
    }

    private static byte[] samples(Path file, String words) {
        Path raw = folder.resolve("raw-" + NUMBER.incrementAndGet());
        TestClips.ffmpeg("-i " + file + " " + words + " -f s16le " + raw);
        try {
            return Files.readAllBytes(raw);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @ParameterizedTest
    @CsvSource({"WAV, 0, 50", "FLAC, 0, 50", "WAV, 11, 37", "FLAC, 11, 37"})
    void soundKeepsEverySampleFromTheFirstPictureToTheLast(Container container, int from, int end) {
        var request =
                request(clip, Recipe.EMPTY, new FrameRange(from, end), in("sound", container, Sound.KEPT, Map.of()));
        var made = (Renderer.Sounded) all(request).getFirst();
        assertThat(made.facts().tracks()).hasSize(1);
        byte[] source = samples(clip.info().file(), "-map 0:1");
        int first = 2 * from * RATE / 25;
        byte[] wanted = Arrays.copyOfRange(source, first, first + 2 * (end - from) * RATE / 25);
        assertThat(Arrays.mismatch(samples(request.out(), ""), wanted)).isEqualTo(-1);
    }

    @Test
    void matroskaHoldsAllTracksAndOneTrackIsSaidWhereOneGoes() {
        var range = new FrameRange(0, 50);
        var all = request(clip, Recipe.EMPTY, range, in("sound", Container.MKA, Sound.KEPT, Map.of()));
        assertThat(((Renderer.Sounded) all(all).getFirst()).facts().tracks()).hasSize(2);
        var one = request(clip, Recipe.EMPTY, range, in("sound", Container.M4A, Sound.AAC, Map.of()));
        assertThat(one.plan(machine).warnings()).anyMatch(line -> line.contains("2 sound tracks"));
        var made = (Renderer.Sounded) all(one).getFirst();
        assertThat(made.facts().tracks()).extracting(MediaInfo.Sound::codec).containsExactly("aac");
        assertThat(made.facts().seconds().getFirst().toDouble()).isCloseTo(2, within(0.05));
    }

    @Test
    void soundGoesAtThePicturesPaceAndSilenceStandsWhereThereIsNone() {
        var slow = new Recipe(List.of(Step.parse("speed speed=50")));
        var paced = request(clip, slow, new FrameRange(0, 50), in("sound", Container.WAV, Sound.PCM, Map.of()));
        var made = (Renderer.Sounded) all(paced).getFirst();
        assertThat(made.facts().seconds().getFirst().toDouble()).isCloseTo(4, within(0.001));

        Clip late = made(
                "late.mkv",
                "-f lavfi -i testsrc2=s=64x64:r=25 -itsoffset 0.4 -f lavfi -i anoisesrc=r=48000:d=0.6:seed=5 -frames:v 50"
                        + " -c:v ffv1 -c:a pcm_s16le");
        var request =
                request(late, Recipe.EMPTY, new FrameRange(0, 50), in("sound", Container.WAV, Sound.KEPT, Map.of()));
        all(request);
        byte[] got = samples(request.out(), "");
        assertThat(got).hasSize(2 * 2 * RATE);
        int first = 0;
        while (got[first] == 0) {
            first++;
        }
        assertThat(first / 2.0 / RATE).isCloseTo(0.4, within(0.001));
        byte[] silence = new byte[4 * RATE];
        assertThat(Arrays.mismatch(got, 2 * RATE + 2, 4 * RATE, silence, 2 * RATE + 2, 4 * RATE))
                .isEqualTo(-1);
    }

    @Test
    void soundAloneOfASilentClipIsRefused() {
        Clip silent = made("silent.mkv", "-f lavfi -i testsrc2=s=64x64:r=25 -frames:v 5 -c:v ffv1");
        var request =
                request(silent, Recipe.EMPTY, new FrameRange(0, 5), in("sound", Container.WAV, Sound.KEPT, Map.of()));
        assertThat(request.plan(machine).refusals()).anyMatch(line -> line.contains("no sound"));
        var mute = request(clip, Recipe.EMPTY, new FrameRange(0, 5), in("sound", Container.WAV, Sound.NONE, Map.of()));
        assertThat(mute.plan(machine).refusals()).anyMatch(line -> line.contains("wants sound"));
    }

    private static List<BufferedImage> numbered(Path zip) throws IOException {
        var images = new ArrayList<BufferedImage>();
        try (var in = new ZipInputStream(Files.newInputStream(zip))) {
            while (in.getNextEntry() != null) {
                images.add(ImageIO.read(new ByteArrayInputStream(in.readAllBytes())));
            }
        }
        return images;
    }

    private static int[] pixels(BufferedImage image) {
        return image.getRGB(0, 0, image.getWidth(), image.getHeight(), null, 0, image.getWidth());
    }

    /** One treatment, as a film, as numbered pictures and as one of them. */
    @ParameterizedTest
    @CsvSource({"first, 0", "middle, 5", "last, 10"})
    void onePictureIsThatOfTheNumberedOnes(String which, int number) throws IOException {
        var range = new FrameRange(20, 31);
        var recipe = new Recipe(List.of(Step.parse("enlarge factor=2 model=none")));
        var many = request(clip, recipe, range, in("png", Container.ZIP, Sound.NONE, Map.of()));
        var one = request(clip, recipe, range, in("png", Container.PNG, Sound.NONE, Map.of("which", which)));
        var sound = request(clip, recipe, range, in("sound", Container.FLAC, Sound.KEPT, Map.of()));
        var made = all(many, one, sound);
        assertThat(made.get(0)).isInstanceOf(Renderer.Result.class);
        assertThat(made.get(2)).isInstanceOf(Renderer.Sounded.class);
        assertThat(((Renderer.Result) made.get(1)).facts().frames()).isOne();
        var image = ImageIO.read(one.out().toFile());
        assertThat(pixels(image)).isEqualTo(pixels(numbered(many.out()).get(number)));
    }

    /** Large pictures too: FFmpeg tells those of some codecs only by their names. */
    @ParameterizedTest
    @ValueSource(strings = {"png", "tiff", "jpeg", "exr"})
    void everyKindGoesAlone(String codec) {
        Clip large = made("large-" + codec + ".mkv", "-f lavfi -i testsrc2=s=1280x720:r=25 -frames:v 2 -c:v ffv1");
        Container alone = awlsmith.core.plan.Codecs.byId(codec).containers().get(1);
        for (Container container : codec.equals("jpeg") ? List.of(alone, Container.ZIP) : List.of(alone)) {
            var request =
                    request(large, Recipe.EMPTY, new FrameRange(0, 2), in(codec, container, Sound.NONE, Map.of()));
            assertThat(all(request).getFirst()).isInstanceOf(Renderer.Result.class);
        }
    }

    /** Each place shows the frame that it should: the grey of each is its number. */
    @ParameterizedTest
    @ValueSource(strings = {"PNG", "JPEG"})
    void sheetsShowFramesFromAllOverTheSpan(Container container) throws IOException {
        Clip greys = made(
                "greys-" + container + ".mkv",
                "-f lavfi -i color=black:s=320x240:r=25,geq=lum='16+2*N':cb=128:cr=128,setsar=4/3 -frames:v 100"
                        + " -pix_fmt yuv420p -c:v ffv1 -color_range tv");
        var request = request(
                greys,
                Recipe.EMPTY,
                new FrameRange(0, 100),
                in("sheet", container, Sound.NONE, Map.of("columns", 4, "rows", 2, "width", 800)));
        all(request);
        var sheet = ImageIO.read(request.out().toFile());
        assertThat(sheet.getWidth()).isBetween(790, 800);
        int across = sheet.getWidth() / 4;
        int down = sheet.getHeight() / 2;
        // frames of 16:9 with figures below them
        assertThat(down).isBetween(across * 9 / 16, across * 9 / 16 + 24);
        for (int n = 0; n < 8; n++) {
            int frame = 100 * (2 * n + 1) / 16;
            // full range of what limited range holds (ITU-R BT.601-7)
            int wanted = Math.min(255, (int) Math.round(2 * frame * 255 / 219.0));
            int got = sheet.getRGB(n % 4 * across + across / 2, n / 4 * down + down / 3) & 0xff;
            assertThat(got).as("place %d", n).isCloseTo(wanted, within(3));
        }
        int light = 0;
        for (int y = down - 16; y < down; y++) {
            for (int x = 0; x < across / 2; x++) {
                light += (sheet.getRGB(x, y) & 0xff) > 128 ? 1 : 0;
            }
        }
        assertThat(light).as("figures below the first").isPositive();
    }

    /** By way of FFV1, of which FFmpeg makes one slice only in what CIF holds. */
    @ParameterizedTest
    @ValueSource(strings = {"180x320", "640x96", "1280x16", "18x400", "352x288", "354x290"})
    void picturesOfEveryShapeGoAlone(String size) {
        Clip odd = made("shape-" + size + ".mkv", "-f lavfi -i testsrc2=s=" + size + ":r=25 -frames:v 2 -c:v png");
        var request = request(
                odd, Recipe.EMPTY, new FrameRange(0, 2), in("png", Container.PNG, Sound.NONE, Map.of("which", "last")));
        var made = (Renderer.Result) all(request).getFirst();
        var format = made.facts().info().video().format();
        assertThat(format.width() + "x" + format.height()).isEqualTo(size);
    }

    @Test
    void aShortSpanMakesASmallSheet() {
        var request = request(
                clip, Recipe.EMPTY, new FrameRange(3, 6), in("sheet", Container.PNG, Sound.NONE, Map.of("width", 640)));
        var made = (Renderer.Result) all(request).getFirst();
        var format = made.facts().info().video().format();
        assertThat(format.width()).isBetween(630, 640);
        assertThat(format.height()).isLessThan(format.width() / 3);
    }
}
