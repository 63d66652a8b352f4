package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Numbered pictures, told apart and gathered. */
class SeriesTest {
    @TempDir
    Path folder;

    private static final Rational RATE = Rational.of(24);

    @Test
    void namesThatDifferInTheirNumberAreASeries() {
        var all = Series.among(List.of(
                "quay_0010.png",
                "quay_0002.png",
                "quay_0003.png",
                "notes.txt",
                "deck7.jpg",
                "deck8.JPG",
                "deck9.jpg",
                "one_1.tif",
                "quay_0005.tiff"));
        assertThat(all).hasSize(2);
        Series quay = all.getFirst();
        assertThat(quay.pictures()).extracting(Series.Picture::number).containsExactly(2, 3, 10);
        assertThat(quay.missing()).containsExactly(4, 5, 6, 7, 8, 9);
        assertThat(quay.title()).isEqualTo("quay 2-10.png");
        assertThat(all.getLast().pictures()).hasSize(3);
        assertThat(all.getLast().missing()).isEmpty();
        assertThat(Series.among(List.of("001.png", "002.png", "003.png"))
                        .getFirst()
                        .title())
                .isEqualTo("Pictures 1-3.png");
    }

    private List<Path> pictures(String format, String ending, int count) {
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25 -frames:v " + count + " -pix_fmt " + format + " "
                + folder.resolve("p_%03d." + ending));
        return IntStream.rangeClosed(1, count)
                .mapToObj(n -> folder.resolve("p_%03d.%s".formatted(n, ending)))
                .toList();
    }

    /** Every frame must decode to the code values of its picture, as FFmpeg's frame checksums tell. */
    @ParameterizedTest
    @CsvSource({"rgb24,png,8", "rgb48be,png,16", "yuvj420p,jpg,8", "rgb48le,tiff,16"})
    void gatheredPicturesAreThePicturesThemselves(String format, String ending, int depth) {
        List<Path> pictures = pictures(format, ending, 6);
        Path out = folder.resolve("out.mkv");
        var told = new ArrayList<Long>();
        Gatherer.gather(pictures, RATE, folder, out, told::add, new Cancel());
        MediaInfo info = Prober.probe(out);
        assertThat(info.video().format().depth()).isEqualTo(depth);
        assertThat(info.video().rate()).isEqualTo(RATE);
        assertThat(told).isNotEmpty();
        assertThat(told.getLast()).isEqualTo(6);
        List<String> sums = sums("-i " + out);
        List<String> single = pictures.stream()
                .flatMap(picture -> sums("-i " + picture).stream())
                .toList();
        assertThat(sums).hasSize(6).isEqualTo(single);
    }

    /** MD5 of every decoded frame. */
    private static List<String> sums(String input) {
        return Stream.of(TestClips.ffmpeg("-loglevel error " + input + " -pix_fmt rgb48le -f framemd5 -")
                        .split("\n"))
                .filter(line -> !line.startsWith("#") && line.contains(","))
                .map(line -> line.substring(line.lastIndexOf(',') + 1).strip())
                .toList();
    }

    @Test
    void aPictureOfAnotherSizeIsNamed() {
        List<Path> pictures = new ArrayList<>(pictures("rgb24", "png", 3));
        Path odd = folder.resolve("odd.png");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x64 -frames:v 1 " + odd);
        pictures.add(odd);
        assertThatThrownBy(
                        () -> Gatherer.gather(pictures, RATE, folder, folder.resolve("o.mkv"), n -> {}, new Cancel()))
                .isInstanceOf(MediaException.class)
                .hasMessage(
                        "odd.png is 64x64, the pictures before it are 96x64; the frames of a clip must all have one size");
    }

    /** A file that names others must not be followed, whatever it calls itself. */
    @Test
    void whatIsNoPictureIsRefused() throws IOException {
        List<Path> pictures = new ArrayList<>(pictures("rgb24", "png", 3));
        Path list = Files.writeString(folder.resolve("p_004.webp"), "ffconcat version 1.0\nfile '/etc/passwd'\n");
        pictures.add(list);
        assertThatThrownBy(
                        () -> Gatherer.gather(pictures, RATE, folder, folder.resolve("o.mkv"), n -> {}, new Cancel()))
                .hasMessageContaining("p_004.webp is no picture");
        Path gone = folder.resolve("p_005.png");
        assertThatThrownBy(() ->
                        Gatherer.gather(List.of(gone), RATE, folder, folder.resolve("o.mkv"), n -> {}, new Cancel()))
                .hasMessageContaining("p_005.png is gone");
    }

    @Test
    void gatheringCanBeStopped() {
        var cancel = new Cancel();
        cancel.ask();
        List<Path> pictures = pictures("rgb24", "png", 3);
        assertThatThrownBy(() -> Gatherer.gather(pictures, RATE, folder, folder.resolve("o.mkv"), n -> {}, cancel))
                .isInstanceOf(Cancel.Stopped.class);
    }
}
