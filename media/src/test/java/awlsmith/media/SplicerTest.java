package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Tags;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
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

    private record Said(double from, double to, String words) {}

    /** What FFmpeg reads of a file's words, in seconds from its first picture. */
    private List<Said> said(Splicer.Piece of, int track) throws IOException {
        Path text = folder.resolve("read.srt");
        TestClips.ffmpeg("-y -i " + of.info().file() + " -map 0:s:" + track + " -c:s srt -f srt " + text);
        double lead = of.index().clock(0).minus(of.info().start()).toDouble();
        return Pattern.compile("00:00:(\\S+) --> 00:00:(\\S+)\\s+(.+?)\\s*\\n\\n", Pattern.DOTALL)
                .matcher(Files.readString(text))
                .results()
                .map(one -> new Said(
                        Double.parseDouble(one.group(1).replace(',', '.')) - lead,
                        Double.parseDouble(one.group(2).replace(',', '.')) - lead,
                        one.group(3).replaceAll("\\s+", " ")))
                .toList();
    }

    private static void assertSaid(Said said, double from, double to, String words) {
        assertThat(said.words()).isEqualTo(words);
        assertThat(said.from()).isCloseTo(from, within(0.025));
        assertThat(said.to()).isCloseTo(to, within(0.025));
    }

    /** Half a second of pictures each, sound longer; the second says nothing, the third says too much. */
    @ParameterizedTest
    @CsvSource({"mkv, srt", "mkv, ass", "mp4, mov_text"})
    void wordsAndChaptersComeWhenTheirPicturesDo(String ending, String form) throws IOException {
        var pieces = new ArrayList<Splicer.Piece>();
        for (int n = 0; n < 3; n++) {
            Path said = Files.writeString(
                    folder.resolve("said-" + n + ".srt"),
                    "1\n00:00:00,100 --> 00:00:00,300\nPier <i>%d</i>\nto starboard\n\n2\n00:00:00,400 --> 00:00:02,000\n2\n"
                            .formatted(n));
            Path marks = Files.writeString(
                    folder.resolve("marks-" + n + ".txt"),
                    ";FFMETADATA1\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=0\nEND=200\ntitle=Off %d=\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=200\nEND=900\ntitle=On %d\n"
                            .formatted(n, n));
            boolean speaks = n != 1;
            pieces.add(piece(
                    "reel-" + n + "." + ending,
                    "-f lavfi -i testsrc2=s=64x64:r=20 -f lavfi -i sine=r=48000:d=0.8 -i " + marks
                            + (speaks ? " -i " + said : "") + " -map 0 -map 1" + (speaks ? " -map 3" : "")
                            + " -map_chapters " + (n == 0 ? "-1" : "2")
                            + " -vf trim=end_frame=10 -pix_fmt yuv420p -c:v libx264 -c:a aac"
                            + (speaks ? " -c:s " + form + " -metadata:s:s:0 language=nor" : "")));
        }
        Splicer.Piece all = joined(pieces);
        assertThat(all.info().extras().subtitles())
                .singleElement()
                .satisfies(track -> assertThat(track.language()).isEqualTo("nor"));
        List<Said> said = said(all, 0);
        assertThat(said).hasSize(4);
        assertSaid(said.get(0), 0.1, 0.3, "Pier <i>0</i> to starboard");
        assertSaid(said.get(1), 0.4, 0.5, "2");
        assertSaid(said.get(2), 1.1, 1.3, "Pier <i>2</i> to starboard");
        assertSaid(said.get(3), 1.4, 1.5, "2");
        assertThat(all.info().extras().chapters())
                .extracting(MediaInfo.Chapter::title)
                .containsExactly("Off 1=", "On 1", "Off 2=", "On 2");
        double first = all.index().clock(0).toDouble();
        var marks = new double[] {0.5, 0.7, 1, 1.2, 1.5};
        for (int n = 0; n < 4; n++) {
            MediaInfo.Chapter chapter = all.info().extras().chapters().get(n);
            assertThat(chapter.start().toDouble() - first).isCloseTo(marks[n], within(0.025));
            assertThat(chapter.end().toDouble() - first).isCloseTo(marks[n + 1], within(0.025));
        }
    }

    @Test
    void whatOfWordsCannotGoAlongIsTold() throws IOException {
        Path said = Files.writeString(folder.resolve("said.srt"), "1\n00:00:00,100 --> 00:00:00,300\nPier\n\n");
        var one = piece(
                "drawn.mkv",
                "-f lavfi -i testsrc2=s=64x64:r=20 -i " + said
                        + " -map 0 -map 1 -map 1 -frames:v 10 -c:v ffv1 -c:s:0 srt" + " -c:s:1 ass");
        var drawn = new MediaInfo.Subtitles(3, "dvd_subtitle", false, "");
        var extras = new MediaInfo.Extras(
                List.of(one.info().extras().subtitles().getFirst(), drawn), List.of(), Optional.empty(), Tags.NONE);
        MediaInfo info = one.info();
        var with = new Splicer.Piece(
                new MediaInfo(
                        info.file(),
                        info.container(),
                        info.bytes(),
                        info.start(),
                        info.duration(),
                        info.bitRate(),
                        info.video(),
                        info.sounds(),
                        extras),
                one.index());
        Path out = folder.resolve("joined.mkv");
        assertThat(Splicer.join(List.of(with, one), folder, out, n -> {}, new Cancel()))
                .hasValue("subtitles that are pictures (dvd_subtitle) are not in the joined file");
        // a second track that only the second file has comes with the second
        MediaInfo joined = Prober.probe(out);
        List<Said> words = said(new Splicer.Piece(joined, Indexer.index(joined, n -> {}, new Cancel())), 1);
        assertThat(words).hasSize(1);
        assertSaid(words.getFirst(), 0.6, 0.8, "Pier");
        assertThat(Splicer.join(List.of(one, one), folder, out, n -> {}, new Cancel()))
                .isEmpty();
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
