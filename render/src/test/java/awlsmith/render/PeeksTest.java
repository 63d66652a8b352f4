package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.IntConsumer;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Small pictures to look along a clip with. */
class PeeksTest {
    private static final Machine MACHINE = Machine.of(2);

    @TempDir
    Path folder;

    @AfterAll
    static void end() {
        MACHINE.close();
    }

    /** Every frame is one level of grey brighter than the one before, so a picture tells which frame it is of. */
    private Clip brightening(String size, int frames, String more) {
        Path file = folder.resolve("source.mp4");
        TestClips.ffmpeg("-f lavfi -i color=c=black:s=" + size + ":r=25 -frames:v " + frames
                + " -vf geq=lum='16+mod(4*N\\,200)':cb=128:cr=128" + more
                + " -c:v libx264 -preset ultrafast -crf 10 -g 250 -bf 3 -pix_fmt yuv420p " + file);
        var info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private void make(Clip clip, IntConsumer told, Cancel cancel) throws IOException {
        Peeks.make(clip, folder, told, new PlanePool(1 << 24), MACHINE.work(cancel), cancel);
    }

    private static BufferedImage read(Peeks peeks, int number) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(peeks.picture(number)));
    }

    @Test
    void eachPictureIsOfItsFrame() throws IOException {
        make(brightening("1280x720", 40, ""), n -> {}, new Cancel());
        Peeks peeks = Peeks.in(folder).orElseThrow();
        assertThat(peeks.count()).isEqualTo(40);
        assertThat(peeks.every()).isOne();
        for (int n = 0; n < 40; n += 3) {
            BufferedImage picture = read(peeks, n);
            assertThat(picture.getWidth()).isEqualTo(peeks.width()).isEqualTo(480);
            assertThat(picture.getHeight()).isEqualTo(peeks.height()).isEqualTo(270);
            // code value 16 is black and 235 white, ITU-R BT.709-6 item 4.6
            assertThat((double) (picture.getRGB(200, 100) & 255))
                    .as("frame " + n)
                    .isCloseTo(4 * n * 255 / 219.0, within(2.6));
        }
    }

    @Test
    void samplesAreSquareAndNothingIsEnlarged() throws IOException {
        // 4:3 from 704 wide samples of 12:11, ITU-R BT.601 as broadcasters use it in 625 lines
        make(brightening("704x576", 3, ",setsar=12/11"), n -> {}, new Cancel());
        Peeks peeks = Peeks.in(folder).orElseThrow();
        assertThat(peeks.width()).isEqualTo(360);
        assertThat(peeks.height()).isEqualTo(270);
        make(brightening("64x48", 3, ""), n -> {}, new Cancel());
        assertThat(Peeks.in(folder).orElseThrow().width()).isEqualTo(64);
    }

    @Test
    void aLongClipHasAPictureOfEverySoManyFrames() throws IOException {
        make(brightening("16x16", Peeks.MOST + 1, ""), n -> {}, new Cancel());
        Peeks peeks = Peeks.in(folder).orElseThrow();
        assertThat(peeks.every()).isEqualTo(2);
        assertThat(peeks.count()).isEqualTo(Peeks.MOST / 2 + 1);
        // picture 30 is of frame 60: 240 beyond black, and those over 200 begin anew
        assertThat((double) (read(peeks, 30).getRGB(8, 8) & 255)).isCloseTo(40 * 255 / 219.0, within(4.0));
    }

    @Test
    void stoppedHalfWayNothingIsLeftBehind() {
        Clip clip = brightening("64x48", 40, "");
        var cancel = new Cancel();
        assertThatThrownBy(() -> make(
                        clip,
                        n -> {
                            if (n == 10) {
                                cancel.ask();
                            }
                        },
                        cancel))
                .isInstanceOf(Cancel.Stopped.class);
        assertThat(Peeks.in(folder)).isEmpty();
        assertThat(folder)
                .isDirectoryNotContaining(file -> file.getFileName().toString().contains("peeks"));
    }

    @Test
    void damagedOnesCountAsNone() throws IOException {
        make(brightening("64x48", 10, ""), n -> {}, new Cancel());
        Path pictures;
        try (Stream<Path> files = Files.list(folder)) {
            pictures = files.filter(f -> f.toString().endsWith(".mjpeg"))
                    .findFirst()
                    .orElseThrow();
        }
        byte[] all = Files.readAllBytes(pictures);
        Files.write(pictures, java.util.Arrays.copyOf(all, all.length - 1));
        assertThat(Peeks.in(folder)).isEmpty();
        Files.write(pictures, all);
        assertThat(Peeks.in(folder)).isPresent();
        Files.write(folder.resolve("peeks-list"), new byte[7]);
        assertThat(Peeks.in(folder)).isEmpty();
    }
}
