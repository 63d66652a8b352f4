package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Tags;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class EncodingTest {
    private static final ColourTags HD = new ColourTags(
            ColourTags.Matrix.BT709, ColourTags.Range.LIMITED, ColourTags.Transfer.BT709, ColourTags.Primaries.BT709);
    private static final Deliverable H264 = Deliverable.usual(Codecs.H264);
    private static final Deliverable FFV1 = Deliverable.usual(Codecs.FFV1);

    @TempDir
    Path folder;

    private static byte[] random(RawLayout layout, int seed) {
        byte[] raw = new byte[layout.frameBytes()];
        new Random(seed).nextBytes(raw);
        int depth = layout.format().depth();
        if (depth > 8 && depth < 16) {
            for (int i = 1; i < raw.length; i += 2) {
                raw[i] &= (byte) ((1 << (depth - 8)) - 1);
            }
        }
        return raw;
    }

    private static void write(Path file, Format format, Optional<Rational> rate, Deliverable codec, Rational... times) {
        var layout = new RawLayout(format);
        try (var encoding = new Encoding(file, format, rate, codec, 2)) {
            for (int i = 0; i < times.length; i++) {
                encoding.write(random(layout, i), times[i]);
            }
            encoding.finish(new Cancel());
        }
    }

    private static Rational[] every(Rational rate, int count) {
        var times = new Rational[count];
        for (int i = 0; i < count; i++) {
            times[i] = Rational.of(i).dividedBy(rate);
        }
        return times;
    }

    @ParameterizedTest
    @CsvSource({
        "S420, 8",
        "S420, 10",
        "S422, 10",
        "S444, 12",
        "S444, 16",
        "RGB, 8",
        "RGB, 12",
        "RGB, 16",
        "GREY, 8",
        "GREY, 16"
    })
    void losslessFilesReadBackBitForBit(Chroma chroma, int depth) {
        var format = new Format(
                35, 21, chroma, Siting.LEFT, depth, chroma == Chroma.RGB ? ColourTags.UNKNOWN : HD, Rational.ONE);
        Path file = folder.resolve("lossless.mkv");
        write(file, format, Optional.of(Rational.of(25)), FFV1, every(Rational.of(25), 3));
        Clip clip = Clip.streamed(Prober.probe(file));
        assertThat(clip.format().chroma()).isEqualTo(chroma);
        assertThat(clip.format().depth()).isEqualTo(depth);
        var layout = new RawLayout(clip.format());
        List<Frame> frames = DecodingTest.frames(clip, FrameRange.all(), format.whole());
        assertThat(frames).hasSize(3);
        for (int i = 0; i < 3; i++) {
            byte[] back = new byte[layout.frameBytes()];
            layout.pack(frames.get(i), back);
            assertThat(back).as("frame %d", i).isEqualTo(random(layout, i));
        }
    }

    @ParameterizedTest
    @CsvSource({
        "BT709, LIMITED, BT709, BT709, bt709, tv, bt709, bt709",
        "BT470BG, LIMITED, GAMMA28, BT470BG, bt470bg, tv, bt470bg, bt470bg",
        "SMPTE170M, FULL, SMPTE170M, SMPTE170M, smpte170m, pc, smpte170m, smpte170m",
        "BT2020NC, LIMITED, SMPTE2084, BT2020, bt2020nc, tv, smpte2084, bt2020"
    })
    void tagsReachTheFileAsFfprobeReadsThem(
            ColourTags.Matrix matrix,
            ColourTags.Range range,
            ColourTags.Transfer transfer,
            ColourTags.Primaries primaries,
            String space,
            String rangeWord,
            String trc,
            String prim) {
        var tags = new ColourTags(matrix, range, transfer, primaries);
        for (Deliverable codec : List.of(H264, FFV1)) {
            var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, tags, new Rational(16, 15));
            Path file = folder.resolve(codec == H264 ? "tags.mp4" : "tags.mkv");
            write(file, format, Optional.of(Rational.of(25)), codec, every(Rational.of(25), 4));
            assertThat(TestClips.entry(file, "color_space")).isEqualTo(space);
            assertThat(TestClips.entry(file, "color_range")).isEqualTo(rangeWord);
            assertThat(TestClips.entry(file, "color_transfer")).isEqualTo(trc);
            assertThat(TestClips.entry(file, "color_primaries")).isEqualTo(prim);
            assertThat(TestClips.entry(file, "sample_aspect_ratio")).isEqualTo("16:15");
            assertThat(Prober.probe(file).video().format().colour()).isEqualTo(tags);
        }
    }

    @Test
    void h264IsHighProfileWithTheGopAskedFor() {
        var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        Path file = folder.resolve("gop.mp4");
        var codec = Deliverable.of("h264", java.util.Map.of("quality", 30, "depth", 8, "gop", 6), true);
        write(file, format, Optional.of(Rational.of(25)), codec, every(Rational.of(25), 20));
        assertThat(TestClips.entry(file, "profile")).isEqualTo("High");
        String flags = TestClips.ffprobe("-select_streams v:0 -show_entries packet=flags -of csv=p=0 " + file);
        assertThat(flags.lines().filter(line -> line.contains("K")).count()).isGreaterThanOrEqualTo(4);
    }

    @Test
    void unevenTimesReachTheFile() {
        var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        Rational[] times = {
            Rational.ZERO,
            new Rational(1, 30),
            new Rational(1, 10),
            new Rational(11, 60),
            new Rational(1, 2),
            new Rational(7, 3)
        };
        Path file = folder.resolve("uneven.mp4");
        write(file, format, Optional.empty(), H264, times);
        List<Double> got = TestClips.times(file);
        for (int i = 0; i < times.length; i++) {
            assertThat(got.get(i) - got.getFirst()).isCloseTo(times[i].toDouble(), within(2e-6));
        }
    }

    /** 30000/1001 material cut into segments and joined again: every time is where it was, and so is the sound. */
    @Test
    void joinedSegmentsKeepEveryTimeAndTheSoundInStep() {
        Path source = folder.resolve("source.mp4");
        // silence, then a tone from 3.0 s on
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=64x48:r=30000/1001:d=6 -f lavfi -i aevalsrc=if(gt(t\\,3)\\,sin(2764*t)\\,0):d=6 "
                        + "-pix_fmt yuv420p -c:v libx264 -g 30 -c:a aac " + source);
        Clip clip = DecodingTest.indexed(source);
        Rational rate = new Rational(30000, 1001);
        int from = 60;
        int[] cuts = {60, 83, 84, 131, 170};
        var segments = new ArrayList<Joiner.Segment>();
        for (int s = 0; s + 1 < cuts.length; s++) {
            Path file = folder.resolve("s" + s + ".mp4");
            int count = cuts[s + 1] - cuts[s];
            var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
            write(file, format, Optional.of(rate), H264, every(rate, count));
            segments.add(new Joiner.Segment(file, Rational.of(count).dividedBy(rate)));
        }
        Path out = folder.resolve("out.mp4");
        var along = new Joiner.Along(
                clip.info(),
                clip.index().orElseThrow().clock(from),
                Rational.of(110).dividedBy(rate),
                true,
                Optional.empty());
        assertThat(Joiner.join(segments, clip.format(), Codecs.H264, along, out, folder, new Cancel()))
                .isEmpty();
        List<Double> times = TestClips.times(out);
        assertThat(times).hasSize(110);
        for (int i = 0; i < times.size(); i++) {
            assertThat(times.get(i) - times.getFirst()).as("frame %d", i).isCloseTo(i * 1001 / 30000.0, within(2e-5));
        }
        assertThat(TestClips.entry(out, "r_frame_rate")).isEqualTo("30000/1001");
        // the tone began at 3.0 s, the span at 60 * 1001 / 30000 = 2.002 s; AAC frames are 23 ms long
        String heard = TestClips.ffmpeg("-i " + out + " -af silencedetect=n=-30dB:d=0.2 -f null -");
        double begins = Double.parseDouble(heard.replaceAll("(?s).*silence_end: ([0-9.]+).*", "$1"));
        double pictureStart = times.getFirst();
        assertThat(begins - pictureStart).isCloseTo(3.0 - 2.002, within(0.05));
    }

    @Test
    void soundThatTheContainerCannotHoldIsCodedAndSaidSo() {
        Path source = folder.resolve("pcm.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=64x48:r=25:d=1 -f lavfi -i sine=d=1 -c:v ffv1 -c:a pcm_s16le " + source);
        MediaInfo info = Prober.probe(source);
        var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        Path segment = folder.resolve("s.mp4");
        write(segment, format, Optional.of(Rational.of(25)), H264, every(Rational.of(25), 25));
        Path out = folder.resolve("out.mp4");
        var note = Joiner.join(
                List.of(new Joiner.Segment(segment, Rational.ONE)),
                format,
                Codecs.H264,
                new Joiner.Along(info, Rational.ZERO, Rational.ONE, true, Optional.empty()),
                out,
                folder,
                new Cancel());
        assertThat(note)
                .hasValueSatisfying(
                        words -> assertThat(words).contains("pcm_s16le").contains("AAC"));
        assertThat(Prober.probe(out).sounds())
                .singleElement()
                .satisfies(s -> assertThat(s.codec()).isEqualTo("aac"));
        assertThat(ReadBack.of(out, new Cancel()).frames()).isEqualTo(25);
    }

    /** Told beforehand as it will be done: samples stand in MOV and not in MP4, layer II sound in neither, Matroska holds all. */
    @Test
    void whatWillBecomeOfSoundIsToldBeforehand() {
        for (String codec : List.of("pcm_s16le", "mp2", "aac")) {
            Path source = folder.resolve("told-" + codec + ".mkv");
            TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25:d=0.2 -f lavfi -i sine=r=48000:d=0.2 -c:v ffv1 -c:a "
                    + codec + " " + source);
            MediaInfo info = Prober.probe(source);
            assertThat(Joiner.recoded(info, Path.of("a.mp4"))).hasSize(codec.equals("aac") ? 0 : 1);
            assertThat(Joiner.recoded(info, Path.of("a.mov"))).hasSize(codec.equals("mp2") ? 1 : 0);
            assertThat(Joiner.recoded(info, Path.of("a.mkv"))).isEmpty();
        }
    }

    /** Two seconds of a film that begins with the label 10:00:00:00, from its second second on. */
    @ParameterizedTest
    @ValueSource(strings = {"mkv", "mp4"})
    void subtitlesChaptersAndTimeCodeGoAlong(String ending) throws IOException {
        Path words = Files.writeString(
                folder.resolve("words.srt"),
                "1\n00:00:00,200 --> 00:00:00,800\nbefore\n\n2\n00:00:01,500 --> 00:00:02,500\nwithin\n\n");
        Path chapters = Files.writeString(
                folder.resolve("marks.txt"),
                ";FFMETADATA1\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=0\nEND=1500\ntitle=Quay\n"
                        + "[CHAPTER]\nTIMEBASE=1/1000\nSTART=1500\nEND=3500\ntitle=Deck \\= sea\n"
                        + "[CHAPTER]\nTIMEBASE=1/1000\nSTART=3500\nEND=4000\ntitle=Beyond\n");
        Path source = folder.resolve("film.mov");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25:d=4 -i " + words + " -f ffmetadata -i " + chapters
                + " -map 0:v -map 1:s -map_chapters 2 -pix_fmt yuv420p -c:v libx264 -c:s mov_text"
                + " -metadata:s:s:0 language=nor -timecode 10:00:00:00 " + source);
        MediaInfo info = Prober.probe(source);
        assertThat(info.extras().timecode()).contains("10:00:00:00");
        assertThat(info.extras().subtitles()).singleElement().satisfies(track -> {
            assertThat(track.text()).isTrue();
            assertThat(track.language()).isEqualTo("nor");
        });
        assertThat(info.extras().chapters())
                .extracting(MediaInfo.Chapter::title)
                .containsExactly("Quay", "Deck = sea", "Beyond");
        var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        Path segment = folder.resolve("segment.mp4");
        write(segment, format, Optional.of(Rational.of(25)), H264, every(Rational.of(25), 50));
        Path out = folder.resolve("out." + ending);
        var along = new Joiner.Along(info, Rational.ONE, Rational.of(2), true, Optional.of("10:00:01:00"));
        assertThat(Joiner.join(
                        List.of(new Joiner.Segment(segment, Rational.of(2))),
                        format,
                        Codecs.H264,
                        along,
                        out,
                        folder,
                        new Cancel()))
                .isEmpty();
        MediaInfo.Extras got = Prober.probe(out).extras();
        assertThat(got.timecode()).contains("10:00:01:00");
        assertThat(got.chapters()).extracting(MediaInfo.Chapter::title).containsExactly("Quay", "Deck = sea");
        assertThat(got.chapters().getFirst().end().toDouble()).isCloseTo(0.5, within(0.002));
        assertThat(got.chapters().getLast().end().toDouble()).isCloseTo(2.0, within(0.002));
        assertThat(got.subtitles()).hasSize(1);
        Path read = folder.resolve("read.srt");
        TestClips.ffmpeg("-i " + out + " -map 0:s " + read);
        assertThat(Files.readString(read)).contains("within").contains("00:00:00,500 --> 00:00:01,500");
    }

    /** A stretch where nobody speaks has none to take along, and is no fault. */
    @ParameterizedTest
    @ValueSource(strings = {"mkv", "mp4"})
    void aSpanWithoutWordsIsJoinedAllTheSame(String ending) throws IOException {
        Path words = Files.writeString(folder.resolve("early.srt"), "1\n00:00:00,200 --> 00:00:00,800\nbefore\n\n");
        Path source = folder.resolve("early.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25:d=4 -i " + words
                + " -map 0:v -map 1:s -pix_fmt yuv420p -c:v libx264 -c:s srt " + source);
        Path out = folder.resolve("silent." + ending);
        joinedSecondSecond(Prober.probe(source), out);
        assertThat(ReadBack.of(out, new Cancel()).frames()).isEqualTo(25);
        assertThat(TestClips.ffprobe("-select_streams s -show_entries packet=pts_time -of csv=p=0 " + out)
                        .strip())
                .isEmpty();
    }

    /** Pictures that took hours must not be lost for words that cannot be read. */
    @Test
    void subtitlesThatCannotBeTakenAlongCostNothingElse() {
        Path source = folder.resolve("plain.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25:d=3 -pix_fmt yuv420p -c:v libx264 " + source);
        var extras = new MediaInfo.Extras(
                List.of(new MediaInfo.Subtitles(9, "dvb_teletext", true, "")), List.of(), Optional.empty(), Tags.NONE);
        Path out = folder.resolve("left.mkv");
        assertThat(joinedSecondSecond(with(Prober.probe(source), extras), out))
                .hasValueSatisfying(
                        note -> assertThat(note).contains("dvb_teletext").contains("left out"));
        assertThat(ReadBack.of(out, new Cancel()).frames()).isEqualTo(25);
    }

    private Optional<String> joinedSecondSecond(MediaInfo info, Path out) {
        Path segment = folder.resolve("second.mp4");
        var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        write(segment, format, Optional.of(Rational.of(25)), H264, every(Rational.of(25), 25));
        var along = new Joiner.Along(info, Rational.ONE, Rational.ONE, true, Optional.empty());
        return Joiner.join(
                List.of(new Joiner.Segment(segment, Rational.ONE)),
                format,
                Codecs.H264,
                along,
                out,
                folder,
                new Cancel());
    }

    private static MediaInfo with(MediaInfo plain, MediaInfo.Extras extras) {
        return new MediaInfo(
                plain.file(),
                plain.container(),
                plain.bytes(),
                plain.start(),
                plain.duration(),
                plain.bitRate(),
                plain.video(),
                plain.sounds(),
                extras);
    }

    @Test
    void subtitlesThatArePicturesAreLeftOutOfMp4AndSaidSo() {
        var extras = new MediaInfo.Extras(
                List.of(new MediaInfo.Subtitles(2, "dvd_subtitle", false, "")), List.of(), Optional.empty(), Tags.NONE);
        Path segment = folder.resolve("segment.mp4");
        var format = new Format(64, 48, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        write(segment, format, Optional.of(Rational.of(25)), H264, every(Rational.of(25), 5));
        MediaInfo info = with(Prober.probe(segment), extras);
        var along = new Joiner.Along(info, Rational.ZERO, new Rational(1, 5), true, Optional.empty());
        assertThat(Joiner.join(
                        List.of(new Joiner.Segment(segment, new Rational(1, 5))),
                        format,
                        Codecs.H264,
                        along,
                        folder.resolve("out.mp4"),
                        folder,
                        new Cancel()))
                .hasValueSatisfying(
                        note -> assertThat(note).contains("dvd_subtitle").contains("left out"));
    }

    @Test
    void anEncoderKilledFromOutsideIsASentence() {
        var format = new Format(640, 480, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        var layout = new RawLayout(format);
        try (var encoding = new Encoding(folder.resolve("k.mp4"), format, Optional.of(Rational.of(25)), H264, 2)) {
            encoding.write(random(layout, 0), Rational.ZERO);
            ProcessHandle.of(encoding.pid()).orElseThrow().destroyForcibly();
            assertThatThrownBy(() -> {
                        for (int i = 0; i < 200; i++) {
                            encoding.write(random(layout, i), Rational.ZERO);
                        }
                    })
                    .isInstanceOf(MediaException.class)
                    .hasMessageContaining("was killed while encoding");
        }
    }

    /** A device that is always full stands for a full disk. */
    @Test
    void aFullDiskIsASentence() {
        var format = new Format(640, 480, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
        Path full = folder.resolve("full.mkv");
        assertThatThrownBy(() -> {
                    java.nio.file.Files.createSymbolicLink(full, Path.of("/dev/full"));
                    write(full, format, Optional.of(Rational.of(25)), FFV1, every(Rational.of(25), 40));
                })
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("disk is full");
    }
}
