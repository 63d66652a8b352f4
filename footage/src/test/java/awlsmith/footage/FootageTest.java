package awlsmith.footage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FootageTest {
    @TempDir
    Path folder;

    private static Plane texture(int width, int height, int shift) {
        Plane p = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int u = x + shift;
                p.set(x, y, (float)
                        (0.5 + 0.2 * Math.sin(u * 0.5) * Math.cos(y * 0.4) + 0.15 * Math.sin(u * y * 0.02)));
            }
        }
        return p;
    }

    private static List<Plane> clip() {
        return List.of(texture(96, 72, 0), texture(96, 72, 2), texture(96, 72, 4), texture(96, 72, 6));
    }

    private Path picture(Color... rows) throws IOException {
        var image = new BufferedImage(9, 4 * rows.length, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < 9; x++) {
                image.setRGB(x, y, rows[y / 4].getRGB());
            }
        }
        Path file = folder.resolve("picture.png");
        ImageIO.write(image, "png", file.toFile());
        return file;
    }

    /** ITU-R BT.709-6, item 3.2: luma of the primaries; item 3.3: colour differences of red and blue are 0.5 at most. */
    @Test
    void picturesBecomeLumaAndColourDifferences() throws IOException {
        Frame frame = Pictures.colour(picture(Color.RED, Color.GREEN, Color.BLUE, Color.WHITE));
        assertThat(frame.format().width()).isEqualTo(8);
        double[][] expected = {
            {0.2126, -0.1146, 0.5}, {0.7152, -0.3854, -0.4542}, {0.0722, 0.5, -0.0458}, {1, 0, 0},
        };
        for (int row = 0; row < 4; row++) {
            assertThat(frame.plane(0).at(3, row * 4 + 1)).isCloseTo((float) expected[row][0], within(1e-4f));
            for (int p = 1; p < 3; p++) {
                assertThat(frame.plane(p).at(1, row * 2)).isCloseTo((float) expected[row][p], within(1e-4f));
            }
        }
        assertThat(Pictures.luma(folder.resolve("picture.png")).at(8, 0)).isCloseTo(0.2126f, within(1e-4f));
    }

    @Test
    void whatIsNoPictureSaysSo() throws IOException {
        Path text = Files.writeString(folder.resolve("letter.png"), "dear ferry");
        assertThatThrownBy(() -> Pictures.luma(text)).hasMessage("letter.png is not a picture that can be read");
        assertThatThrownBy(() -> Pictures.colour(text)).hasMessage("letter.png is not a picture that can be read");
    }

    /** Eight-bit video has 219 steps from black to white (ITU-R BT.709-6, item 4.6). */
    @Test
    void roomBelowBlackAndAboveWhiteIsKeptWhereItIsAskedFor() {
        Plane p = new Plane(new float[] {-1, -3.2f / 219, 0.5f, 230 / 219f, 2}, 0, 5, 1, 5);
        assertThat(Pictures.eightBitsWithRoom(p).packed())
                .containsExactly(-15 / 219f, -3 / 219f, 110 / 219f, 230 / 219f, 238 / 219f);
    }

    @Test
    void eightBitsAreTwoHundredAndTwentyValues() {
        Plane p = new Plane(new float[] {-0.2f, 0, 0.0022f, 0.0024f, 0.5f, 1.3f}, 0, 6, 1, 6);
        assertThat(Pictures.eightBits(p).packed()).containsExactly(0, 0, 0, 1 / 219f, 110 / 219f, 1);
    }

    @Test
    void conditionsMakeFootageSmallerAndTheWorseTheStronger() {
        for (Condition condition : List.of(Condition.BICUBIC, Condition.AREA, Condition.THIRD, Condition.QUARTER)) {
            Plane small = condition.of(clip()).getFirst();
            assertThat(small.width()).isEqualTo(96 / condition.divisor());
            assertThat(small.height()).isEqualTo(72 / condition.divisor());
        }
        List<Plane> clean = Condition.BICUBIC.of(clip());
        double fine = Psnr.of(Condition.CRF_20.of(clip()).get(2), clean.get(2), 2);
        double coarse = Psnr.of(Condition.CRF_30.of(clip()).get(2), clean.get(2), 2);
        assertThat(coarse).isBetween(20.0, fine - 3);
        // noise of a standard deviation of 8 of 255 alone would be 30 dB
        double grainy = Psnr.of(Condition.GRAIN.of(clip()).get(2), clean.get(2), 2);
        assertThat(grainy).isBetween(25.0, 33.0);
        assertThat(Condition.CRF_20.heading()).isEqualTo("Bicubic /2, H.264 CRF 20");
    }

    @Test
    void aCodecKeepsCountAndOrderAndALosslessOneEverything() {
        List<Plane> eight = clip().stream().map(Pictures::eightBits).toList();
        List<Plane> back = Codec.through(eight, "ffv1");
        assertThat(back).hasSize(4);
        for (int i = 0; i < 4; i++) {
            assertThat(Psnr.of(back.get(i), eight.get(i), 0)).isGreaterThan(120);
        }
        List<Plane> mirrored = Codec.filtered(eight, "hflip");
        assertThat(mirrored.get(1).at(0, 5)).isCloseTo(eight.get(1).at(95, 5), within(1e-6f));
        assertThatThrownBy(() -> Codec.through(eight, "no-such-codec")).hasMessageContaining("FFmpeg failed");
    }

    @Test
    void materialIsCutToSidesThatHalvesThirdsAndQuartersDivide() {
        Material still = Material.of("still", texture(100, 75, 0));
        assertThat(still.frames().getFirst().width()).isEqualTo(96);
        assertThat(still.frames().getFirst().height()).isEqualTo(72);
        assertThat(still.moves()).isFalse();
    }

    @Test
    void heldOutPicturesAreNeverLearnedFrom() {
        var gathering = new PictureSet.Gathering();
        gathering.add(texture(600, 480, 0), false);
        gathering.add(texture(600, 480, 9), true);
        gathering.add(texture(120, 96, 9), true);
        PictureSet set = gathering.done("textures");
        assertThat(set.learn()).hasSize(1);
        assertThat(set.check()).extracting(Plane::width).containsExactly(384, 96);
        // the middle of the picture
        assertThat(set.check().getFirst().at(0, 0))
                .isEqualTo(texture(600, 480, 9).at(108, 48));
        assertThat(PictureSet.side(479.9)).isEqualTo(468);
    }

    @Test
    void aResizedPictureKeepsItsMean() {
        Plane p = texture(96, 72, 0);
        double mean = 0;
        Plane small = Pictures.resized(p, 32, 24, Kernel.AREA);
        for (float v : p.packed()) {
            mean += v / (96 * 72);
        }
        for (float v : small.packed()) {
            mean -= v / (32 * 24);
        }
        assertThat(mean).isCloseTo(0, within(1e-4));
    }
}
