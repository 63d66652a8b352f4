package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Coder;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** With a stand-in for a machine that has such a circuit: no test of ours may want one. */
class HardwareCodersTest {
    @TempDir
    Path folder;

    private Path standIn;

    @BeforeEach
    void begin() throws IOException {
        standIn = folder.resolve("ffmpeg");
        try (InputStream script = HardwareCodersTest.class.getResourceAsStream("/stand-in/ffmpeg")) {
            Files.copy(script, standIn);
        }
        // FFmpeg may be run with fewer rights than the tests
        Files.setPosixFilePermissions(standIn, PosixFilePermissions.fromString("rwxr-xr-x"));
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxrwxrwx"));
        System.setProperty("awlsmith.ffmpeg", standIn.toString());
        HardwareCoders.forget();
    }

    @AfterEach
    void end() {
        System.clearProperty("awlsmith.ffmpeg");
        HardwareCoders.forget();
    }

    private static Format format(int depth) {
        return new Format(
                320,
                180,
                Chroma.S420,
                Siting.LEFT,
                depth,
                ColourTags.UNKNOWN,
                Rational.ONE,
                Scan.PROGRESSIVE,
                Alpha.NONE);
    }

    private static Deliverable by(Coder coder, String codec, Map<String, String> more) {
        var values = new java.util.HashMap<String, String>(more);
        values.put("coder", coder.id());
        return Deliverable.of(codec, values, Optional.of(Container.MKV), Sound.NONE);
    }

    @Test
    void whatWorksIsOffered() {
        assertThat(HardwareCoders.of(Codecs.H264)).containsExactly(Coder.CORES, Coder.NVENC);
        assertThat(HardwareCoders.of(Codecs.H265)).containsExactly(Coder.CORES, Coder.NVENC);
        assertThat(HardwareCoders.of(Codecs.AV1)).containsExactly(Coder.CORES);
        assertThat(HardwareCoders.words()).isEqualTo("the cores, or NVENC (H.264 and H.265)");
    }

    @Test
    void whatDoesNotIsRefusedWithWhatWould() {
        assertThat(HardwareCoders.refusal(by(Coder.NVENC, "h264", Map.of()), format(8)))
                .isEmpty();
        assertThat(HardwareCoders.refusal(by(Coder.NVENC, "h265", Map.of()), format(10)))
                .isEmpty();
        assertThat(HardwareCoders.refusal(by(Coder.NVENC, "h264", Map.of()), format(10)))
                .hasValueSatisfying(sentence -> assertThat(sentence).contains("of 10 bits", "depth of 8"));
        assertThat(HardwareCoders.refusal(by(Coder.QSV, "h264", Map.of()), format(8)))
                .hasValueSatisfying(sentence -> assertThat(sentence).contains("Quick Sync", "Let the cores code it"));
        assertThat(HardwareCoders.refusal(Deliverable.of("ffv1", Map.of(), false), format(8)))
                .isEmpty();
    }

    @Test
    void aFileIsCodedByIt() throws IOException {
        Path file = folder.resolve("out.mkv");
        try (var encoding = new Encoding(
                file,
                format(8),
                Optional.of(new Rational(25, 1)),
                by(Coder.NVENC, "h264", Map.of("quality", "23")),
                1)) {
            for (int n = 0; n < 30; n++) {
                encoding.write(new byte[320 * 180 * 3 / 2], new Rational(n, 25));
            }
            encoding.finish(new Cancel());
        }
        assertThat(Files.readAllLines(folder.resolve("coded"))).contains("h264");
        assertThat(Prober.probe(file).video().codec()).isEqualTo("h264");
        assertThat(PacketSizes.of(file, new Cancel()).bytes()).hasSize(30);
    }

    /** As FFmpeg 5.1's own help names them: {@code ffmpeg -h encoder=h264_nvenc} and so on. */
    @Test
    void theWordsAreThoseFFmpegKnows() throws Exception {
        System.clearProperty("awlsmith.ffmpeg");
        int known = 0;
        for (String codec : List.of("h264", "h265")) {
            for (Coder coder : List.of(Coder.NVENC, Coder.QSV, Coder.VAAPI)) {
                String name = HardwareWords.encoder(Codecs.byId(codec), coder);
                String help = new String(new ProcessBuilder("ffmpeg", "-hide_banner", "-h", "encoder=" + name)
                        .redirectErrorStream(true)
                        .start()
                        .getInputStream()
                        .readAllBytes());
                if (help.contains("not recognized")) {
                    continue;
                }
                known++;
                for (Map<String, String> more : List.of(
                        Map.of("quality", "20", "effort", "quick"), Map.of("bitrate", "8", "effort", "thorough"))) {
                    Deliverable deliverable = by(coder, codec, more);
                    long bits = more.containsKey("bitrate") ? 8_000_000 : 0;
                    List<String> words = HardwareWords.of(
                            folder.resolve("x.mkv"), format(8), deliverable, new CodecWords.Rate(bits, 0));
                    for (int n = 0; n + 1 < words.size(); n += 2) {
                        assertKnown(help, words.get(n), words.get(n + 1));
                    }
                }
            }
        }
        // Debian's FFmpeg has them all
        assertThat(known).isPositive();
    }

    /** Options of every encoder are not in an encoder's help. */
    private static void assertKnown(String help, String option, String value) {
        if (List.of("-c:v", "-b:v", "-global_quality").contains(option)) {
            return;
        }
        String plain = option.replace(":v", "");
        assertThat(help).containsPattern("(?m)^\\s+" + plain + "\\s");
        if (!value.matches("\\d+")) {
            assertThat(help).containsPattern("(?m)^\\s+" + value + "\\s");
        }
    }
}
