package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is read back is what was written, and what is not whole is told. */
class WebpFileTest {
    private static final Rational RATE = Rational.of(25);

    @TempDir
    Path folder;

    private List<Path> stills(int count) throws IOException {
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=40x30:r=25 -frames:v " + count
                + " -c:v libwebp -f image2 -start_number 0 " + folder.resolve("p%07d.webp"));
        var stills = new ArrayList<Path>();
        for (int n = 0; n < count; n++) {
            stills.add(folder.resolve("p%07d.webp".formatted(n)));
        }
        return stills;
    }

    private Path written(int count) throws IOException {
        var times = new ArrayList<Rational>();
        for (int n = 0; n <= count; n++) {
            times.add(new Rational(n * n + 2L * n, 100));
        }
        Path out = folder.resolve("out.webp");
        WebpFile.write(stills(count), times, false, out, new Cancel());
        return out;
    }

    @Test
    void unevenTimesAndEveryFrameComeBack() throws IOException {
        Path out = written(5);
        byte[] second = Files.readAllBytes(stills(5).get(1));
        ReadBack.Facts facts = WebpFile.readBack(out, folder.resolve("back"), RATE, new Cancel());
        assertThat(facts.frames()).isEqualTo(5);
        assertThat(facts.errors()).isZero();
        for (int n = 0; n < 5; n++) {
            assertThat(facts.index().time(n)).isEqualTo(new Rational(n * n + 2L * n, 100));
        }
        assertThat(facts.info().duration()).hasValue(new Rational(35, 100));
        assertThat(Files.readAllBytes(folder.resolve("back/p0000001.webp"))).isEqualTo(second);
    }

    @Test
    void aFileThatIsCutShortOrSpoiledIsTold() throws IOException {
        byte[] whole = Files.readAllBytes(written(4));
        for (int length : new int[] {0, 11, 12, 60, whole.length / 2, whole.length - 1}) {
            Path cut = Files.write(folder.resolve("cut.webp"), Arrays.copyOf(whole, length));
            assertThatThrownBy(() -> WebpFile.readBack(cut, folder.resolve("cut-back"), RATE, new Cancel()))
                    .as("%d bytes", length)
                    .isInstanceOf(MediaException.class);
        }
        var random = new Random(21);
        for (int n = 0; n < 60; n++) {
            byte[] spoiled = whole.clone();
            for (int k = 0; k < 20; k++) {
                spoiled[random.nextInt(spoiled.length)] = (byte) random.nextInt();
            }
            Path file = Files.write(folder.resolve("spoiled.webp"), spoiled);
            try {
                WebpFile.readBack(file, folder.resolve("spoiled-back-" + n), RATE, new Cancel());
            } catch (MediaException e) {
                assertThat(e.getMessage()).isNotBlank();
            }
        }
    }

    @Test
    void whatIsNoPictureIsNotPacked() throws IOException {
        Path text = Files.writeString(folder.resolve("p0000000.webp"), "a ferry, and no picture of it");
        assertThatThrownBy(() -> WebpFile.write(
                        List.of(text),
                        List.of(Rational.ZERO, Rational.ONE),
                        false,
                        folder.resolve("o.webp"),
                        new Cancel()))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("no WebP");
    }
}
