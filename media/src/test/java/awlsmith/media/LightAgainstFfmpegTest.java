package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.colour.LookupTable;
import awlsmith.core.colour.TableStage;
import awlsmith.core.colour.TransferCurve;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Curves and levels held against FFmpeg's filters: zscale (the library zimg), colorlevels, lut1d and lut3d. */
class LightAgainstFfmpegTest {
    private static final int SIDE = 256;

    @TempDir
    Path folder;

    private static Format rgb(int width, int height, int depth, ColourTags.Transfer transfer) {
        var tags = new ColourTags(ColourTags.Matrix.RGB, ColourTags.Range.FULL, transfer, ColourTags.Primaries.BT709);
        return new Format(width, height, Chroma.RGB, Siting.LEFT, depth, tags, Rational.ONE);
    }

    /** Every code of 16 bits once, as grey. */
    private static byte[] ramp() {
        var raw = ByteBuffer.allocate(3 * SIDE * SIDE * 2).order(ByteOrder.LITTLE_ENDIAN);
        for (int p = 0; p < 3; p++) {
            for (int code = 0; code < SIDE * SIDE; code++) {
                raw.putShort((short) code);
            }
        }
        return raw.array();
    }

    /**
     * BT.709's curve zimg takes for that of a screen, BT.1886, where we take the camera's; and it scales SMPTE ST 2084 and HLG by what
     * screens show. Those three are held against the standards' points alone (SpaceTest). zimg looks its curves up, a code of 16 bits off at most.
     */
    @ParameterizedTest
    @CsvSource({"IEC61966_2_1, iec61966-2-1", "GAMMA22, bt470m", "GAMMA28, bt470bg", "LOG100, log100", "LOG316, log316"
    })
    void lightIsThatOfZimg(ColourTags.Transfer transfer, String name) throws IOException {
        Path raw = folder.resolve("ramp.raw");
        Path light = folder.resolve("light.raw");
        Files.write(raw, ramp());
        TestClips.ffmpeg("-f rawvideo -pix_fmt gbrp16le -s 256x256 -i " + raw + " -vf zscale=transferin=" + name
                + ":primariesin=709:matrixin=gbr:rangein=full:transfer=linear:primaries=709:matrix=gbr:range=full,format=gbrpf32le"
                + " -f rawvideo -pix_fmt gbrpf32le " + light);
        var floats = ByteBuffer.wrap(Files.readAllBytes(light))
                .order(ByteOrder.LITTLE_ENDIAN)
                .asFloatBuffer();
        var curve = TransferCurve.of(rgb(SIDE, SIDE, 16, transfer));
        // the lowest codes of the logarithmic ones are black to us and the curve's floor to zimg
        for (int code = transfer.name().startsWith("LOG") ? 1 : 0; code < SIDE * SIDE; code += 7) {
            assertThat(curve.toLight(code / 65535.0)).as("code %d", code).isCloseTo(floats.get(code), within(1e-4));
        }
    }

    /** The straight part of levels is FFmpeg's colorlevels, to a code of 16 bits. */
    @Test
    void levelsAreThoseOfColorlevels() throws IOException {
        Path raw = folder.resolve("ramp.raw");
        Path made = folder.resolve("made.raw");
        byte[] ramp = ramp();
        Files.write(raw, ramp);
        TestClips.ffmpeg("-f rawvideo -pix_fmt gbrp16le -s 256x256 -i " + raw
                + " -vf colorlevels=rimin=0.125:gimin=0.125:bimin=0.125:rimax=0.75:gimax=0.75:bimax=0.75"
                + " -f rawvideo -pix_fmt gbrp16le " + made);
        Format format = rgb(SIDE, SIDE, 16, ColourTags.Transfer.BT709);
        var layout = new RawLayout(format);
        var pool = new PlanePool(0);
        Frame in = Frame.blank(format, format.whole(), 0, Rational.ZERO, pool);
        layout.unpack(ramp, in);
        List<Stage> stages = new Recipe(List.of(Step.parse("levels black=12.5 white=75")))
                .chain(format)
                .stages();
        assertThat(stages).hasSize(1);
        Frame out = stages.getFirst().treat(distance -> in, format.whole(), pool, Work.alone());
        byte[] ours = new byte[layout.frameBytes()];
        layout.pack(out, ours);
        var a = ByteBuffer.wrap(ours).order(ByteOrder.LITTLE_ENDIAN).asShortBuffer();
        var b = ByteBuffer.wrap(Files.readAllBytes(made))
                .order(ByteOrder.LITTLE_ENDIAN)
                .asShortBuffer();
        for (int i = 0; i < SIDE * SIDE; i++) {
            assertThat((a.get(i) & 0xffff) - (b.get(i) & 0xffff))
                    .as("code %d", i)
                    .isBetween(-2, 2);
        }
    }

    /** A cube of colours that are turned and bent, on colours by chance: FFmpeg's lut3d with tetrahedra, to a code of 16 bits or two. */
    @ParameterizedTest
    @CsvSource({"LUT_3D_SIZE, lut3d, tetrahedral, 9", "LUT_1D_SIZE, lut1d, linear, 33"})
    void tablesAreThoseOfFfmpeg(String kind, String filter, String interpolation, int size) throws IOException {
        var text = new StringBuilder(kind + " " + size + "\n");
        int count = kind.equals("LUT_3D_SIZE") ? size * size * size : size;
        var random = new Random(5);
        for (int i = 0; i < count; i++) {
            text.append(String.format(
                    Locale.ROOT, "%.6f %.6f %.6f%n", random.nextDouble(), random.nextDouble(), random.nextDouble()));
        }
        Path cube = folder.resolve("t.cube");
        Files.writeString(cube, text);
        byte[] colours = new byte[3 * SIDE * SIDE * 2];
        random.nextBytes(colours);
        Path raw = folder.resolve("colours.raw");
        Path made = folder.resolve("led.raw");
        Files.write(raw, colours);
        TestClips.ffmpeg("-f rawvideo -pix_fmt gbrp16le -s 256x256 -i " + raw + " -vf " + filter + "=file=" + cube
                + ":interp=" + interpolation + " -f rawvideo -pix_fmt gbrp16le " + made);
        Format format = rgb(SIDE, SIDE, 16, ColourTags.Transfer.BT709);
        var layout = new RawLayout(format);
        var pool = new PlanePool(0);
        Frame in = Frame.blank(format, format.whole(), 0, Rational.ZERO, pool);
        layout.unpack(colours, in);
        var stage = new TableStage(format, LookupTable.read(Files.readAllBytes(cube)));
        byte[] ours = new byte[layout.frameBytes()];
        layout.pack(stage.treat(distance -> in, format.whole(), pool, Work.alone()), ours);
        var a = ByteBuffer.wrap(ours).order(ByteOrder.LITTLE_ENDIAN).asShortBuffer();
        var b = ByteBuffer.wrap(Files.readAllBytes(made))
                .order(ByteOrder.LITTLE_ENDIAN)
                .asShortBuffer();
        for (int i = 0; i < 3 * SIDE * SIDE; i++) {
            assertThat((a.get(i) & 0xffff) - (b.get(i) & 0xffff))
                    .as("sample %d", i)
                    .isBetween(-2, 2);
        }
    }
}
