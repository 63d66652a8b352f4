package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Rational;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ProberTest {
    @TempDir
    Path folder;

    @Test
    void readsSizeRateTagsAndSound() {
        Path file = folder.resolve("a.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=320x180:r=24000/1001:d=1 -f lavfi -i sine=r=44100:d=1 -pix_fmt yuv420p "
                        + "-c:v libx264 -colorspace bt709 -color_primaries bt709 -color_trc bt709 -color_range tv -vf setsar=4/3 "
                        + file);
        MediaInfo info = Prober.probe(file);
        assertThat(info.video().format().width()).isEqualTo(320);
        assertThat(info.video().format().sar()).isEqualTo(new Rational(4, 3));
        assertThat(info.video().rate()).isEqualTo(new Rational(24000, 1001));
        assertThat(info.video().steady()).isTrue();
        assertThat(info.video().format().colour())
                .isEqualTo(new ColourTags(
                        ColourTags.Matrix.BT709,
                        ColourTags.Range.LIMITED,
                        ColourTags.Transfer.BT709,
                        ColourTags.Primaries.BT709));
        assertThat(info.sounds()).singleElement().satisfies(sound -> {
            assertThat(sound.codec()).isEqualTo("aac");
            assertThat(sound.rate()).isEqualTo(44100);
        });
    }

    /** Matroska tells how long all of it lasts: words or sound beyond the last picture do not make frames that are missing. */
    @Test
    void whatLastsLongerThanThePicturesPromisesNoFrames() throws IOException {
        Path words = folder.resolve("words.srt");
        Files.writeString(words, "1\n00:00:01,000 --> 00:00:04,500\nAhoy\n");
        Path file = folder.resolve("longer.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=30:d=3 -f lavfi -i sine=d=4 -i " + words
                + " -c:v libx264 -c:a pcm_s16le -c:s srt " + file);
        MediaInfo info = Prober.probe(file);
        assertThat(info.duration().orElseThrow().toDouble())
                .isCloseTo(3, org.assertj.core.api.Assertions.within(0.001));
        assertThat(info.expectedFrames()).isEqualTo(90);
    }

    @ParameterizedTest
    @CsvSource({
        "yuv420p, S420, 8, yuv420p",
        "yuvj420p, S420, 8, yuvj420p",
        "yuv422p10le, S422, 10, yuv422p10le",
        "yuv444p12le, S444, 12, yuv444p12le",
        "gbrp, RGB, 8, gbrp",
        "rgb24, RGB, 8, gbrp",
        "bgra, RGB, 8, gbrp",
        "rgb48le, RGB, 16, gbrp16le",
        "gray, GREY, 8, gray",
        "gray16be, GREY, 16, gray16le",
        "nv12, S420, 8, yuv420p",
        "p010le, S420, 10, yuv420p10le",
        "yuyv422, S422, 8, yuv422p",
        "pal8, RGB, 8, gbrp",
        "yuv411p, S444, 8, yuv444p",
        "yuva420p, S420, 8, yuv420p"
    })
    void everyPixelFormatHasAPlanarNearest(String name, Chroma chroma, int depth, String decodeAs) {
        PixelLayout layout = PixelLayout.decoding(name);
        assertThat(layout.chroma()).isEqualTo(chroma);
        assertThat(layout.depth()).isEqualTo(depth);
        assertThat(layout.name()).isEqualTo(decodeAs);
    }

    @Test
    void anEmptyFileSaysSo() throws IOException {
        Path file = Files.createFile(folder.resolve("empty.mp4"));
        assertThatThrownBy(() -> Prober.probe(file))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("0 bytes");
    }

    @Test
    void textWithAVideosNameSaysSo() throws IOException {
        Path file = folder.resolve("text.mp4");
        Files.writeString(file, "this is a letter, not a film\n".repeat(400));
        assertThatThrownBy(() -> Prober.probe(file))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("not a video that can be read");
    }

    @Test
    void aFileWithoutItsIndexSaysItWasCutShort() throws IOException {
        Path whole = TestClips.moving(folder, "whole.mp4", 320, 240, "25", 50, "-pix_fmt yuv420p");
        Path cut = folder.resolve("cut.mp4");
        byte[] bytes = Files.readAllBytes(whole);
        Files.write(cut, java.util.Arrays.copyOf(bytes, bytes.length / 2));
        assertThatThrownBy(() -> Prober.probe(cut)).hasMessageContaining("cut short");
    }

    @Test
    void soundAloneSaysThereIsNoPicture() {
        Path file = folder.resolve("sound.mp4");
        TestClips.ffmpeg("-f lavfi -i sine=d=1 " + file);
        assertThatThrownBy(() -> Prober.probe(file)).hasMessageContaining("no picture, only sound (aac)");
    }

    @Test
    void aHeaderThatLiesAboutTheSizeIsRefusedByItsFigures() throws IOException {
        // a GIF header promises twenty thousand pixels a side, forty bytes follow
        Path file = folder.resolve("huge.gif");
        byte[] head = "GIF89a\u0020\u004e\u0020\u004e".getBytes(java.nio.charset.StandardCharsets.ISO_8859_1);
        Files.write(file, java.util.Arrays.copyOf(head, 50));
        assertThatThrownBy(() -> Prober.probe(file))
                .hasMessageContaining("20000x20000")
                .hasMessageContaining("16384");
    }

    @Test
    void listsThatLeadElsewhereAreNotFollowed() throws IOException {
        Path secret = TestClips.moving(folder, "secret.mp4", 64, 64, "25", 5, "-pix_fmt yuv420p");
        Path list = folder.resolve("list.mp4");
        Files.writeString(list, "ffconcat version 1.0\nfile '" + secret + "'\n");
        assertThatThrownBy(() -> Prober.probe(list)).isInstanceOf(MediaException.class);
        Path playlist = folder.resolve("list.m3u8");
        Files.writeString(
                playlist, "#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\nfile://" + secret + "\n#EXT-X-ENDLIST\n");
        assertThatThrownBy(() -> Prober.probe(playlist)).isInstanceOf(MediaException.class);
    }

    @Test
    void hostileNamesAreJustNames() throws IOException {
        Path plain = TestClips.moving(folder, "plain.mp4", 64, 64, "25", 5, "-pix_fmt yuv420p");
        for (String name : new String[] {"-i '; rm -rf x' \".mp4", "two\nlines.mp4", "concat:a|b.mp4", "%d %n.mp4"}) {
            Path file = Files.copy(plain, folder.resolve(name));
            assertThat(Prober.probe(file).video().format().width()).isEqualTo(64);
        }
    }
}
