package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.pipeline.Cancel;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Joined files hold the very frames of their pieces, by what FFmpeg decodes of both. */
class SplicerTest {
    @TempDir
    Path folder;

    private Splicer.Piece piece(String name, String words) {
        Path file = folder.resolve(name);
        TestClips.ffmpeg(words + " " + file);
        MediaInfo info = Prober.probe(file);
        return new Splicer.Piece(info, Indexer.index(info, n -> {}, new Cancel()));
    }

    private Splicer.Piece joined(List<Splicer.Piece> pieces) {
        Path out = folder.resolve("joined.mkv");
        Splicer.join(pieces, folder, out, n -> {}, new Cancel());
        MediaInfo info = Prober.probe(out);
        FrameIndex index = Indexer.index(info, n -> {}, new Cancel());
        Splicer.prove(pieces.stream().map(Splicer.Piece::index).toList(), index);
        return new Splicer.Piece(info, index);
    }

    /** As a camera cuts a recording: the same coding, sound a little longer than the pictures. */
    @ParameterizedTest
    @CsvSource({
        "mp4, -c:v libx264 -bf 2 -g 12 -c:a aac",
        "mov, -c:v prores_ks -c:a pcm_s16le",
        "mpg, -c:v mpeg2video -bf 2 -g 12 -c:a mp2",
        "mkv, -c:v libx265 -x265-params log-level=none -c:a flac"
    })
    void everyFrameIsWhatItWasAndComesInTime(String ending, String coding) {
        var pieces = new ArrayList<Splicer.Piece>();
        for (int n = 0; n < 3; n++) {
            pieces.add(piece(
                    "card-" + n + "." + ending,
                    "-f lavfi -i testsrc2=s=320x240:r=25 -f lavfi -i sine=" + (300 + 100 * n)
                            + ":r=48000:d=1.3 -vf trim=end_frame=30,hue=h=" + 40 * n + " -pix_fmt "
                            + (ending.equals("mov") ? "yuv422p10le" : "yuv420p") + " " + coding));
        }
        Splicer.Piece all = joined(pieces);
        assertThat(all.index().count()).isEqualTo(90);
        for (int n = 0; n < 90; n++) {
            assertThat(all.index().time(n).toDouble()).as("frame %d", n).isCloseTo(n / 25.0, within(0.003));
        }
        assertThat(all.info().sounds()).hasSize(1);
        double sound = SoundLength.of(all.info(), all.info().sounds().getFirst(), Optional.empty(), new Cancel())
                .toDouble();
        assertThat(sound).isCloseTo(3.6, within(0.4));
    }

    @Test
    void filesOfOtherKindsAreRefusedWithWhatWouldWork() {
        var small = piece("small.mp4", "-f lavfi -i testsrc2=s=320x240:r=25 -frames:v 5 -pix_fmt yuv420p");
        var large = piece("large.mp4", "-f lavfi -i testsrc2=s=640x480:r=25 -frames:v 5 -pix_fmt yuv420p");
        var quick = piece("quick.mp4", "-f lavfi -i testsrc2=s=320x240:r=50 -frames:v 5 -pix_fmt yuv420p");
        var other = piece("other.mkv", "-f lavfi -i testsrc2=s=320x240:r=25 -frames:v 5 -pix_fmt yuv420p -c:v ffv1");
        var heard = piece(
                "heard.mp4", "-f lavfi -i testsrc2=s=320x240:r=25 -f lavfi -i sine=d=0.2 -frames:v 5 -pix_fmt yuv420p");
        assertThat(Splicer.apart(List.of(small.info(), large.info())).orElseThrow())
                .contains("large.mp4 has 640x480, the first 320x240")
                .contains("Send them all out");
        assertThat(Splicer.apart(List.of(small.info(), quick.info()))).isPresent();
        assertThat(Splicer.apart(List.of(small.info(), other.info())).orElseThrow())
                .contains("FFV1, the first H.264");
        assertThat(Splicer.apart(List.of(small.info(), heard.info())).orElseThrow())
                .contains("1 sound tracks, the first 0");
        assertThatThrownBy(() -> joined(List.of(small, large))).isInstanceOf(MediaException.class);
    }

    @Test
    void whatDoesNotComeBackIsFound() {
        var one = piece("one.mkv", "-f lavfi -i testsrc2=s=64x64:r=25 -frames:v 5 -c:v ffv1");
        var two = piece("two.mkv", "-f lavfi -i testsrc2=s=64x64:r=25 -vf hue=h=90 -frames:v 5 -c:v ffv1");
        Splicer.prove(List.of(one.index()), one.index());
        assertThatThrownBy(() -> Splicer.prove(List.of(two.index()), one.index()))
                .hasMessageContaining("not every frame comes back");
        assertThatThrownBy(() -> Splicer.prove(List.of(one.index(), two.index()), one.index()))
                .hasMessageContaining("5 of 10 frames");
    }
}
