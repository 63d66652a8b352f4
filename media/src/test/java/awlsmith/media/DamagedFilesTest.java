package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Files that were cut short or whose bytes were changed: a sentence or an honest index, never anything else. */
class DamagedFilesTest {
    @TempDir
    static Path folder;

    /** Of each kind; {@code ./awlsmith campaign} tries more. */
    private static final int WAYS = Integer.getInteger("awlsmith.damage", 16);

    private static final long SEED = Long.getLong("awlsmith.damage.seed", 0);
    private static final Map<String, String> CODECS = Map.of(
            "mp4", "-pix_fmt yuv420p -c:v libx264 -g 10",
            "mkv", "-pix_fmt yuv420p -c:v libx264 -g 10",
            "avi", "-pix_fmt yuv420p -c:v mpeg4 -q:v 5",
            "mpg", "-pix_fmt yuv420p -c:v mpeg2video -q:v 5",
            "ts", "-pix_fmt yuv420p -c:v mpeg2video -q:v 5",
            "webm", "-pix_fmt yuv420p -c:v libvpx-vp9 -deadline realtime -cpu-used 8",
            "mxf", "-pix_fmt yuv422p -c:v mpeg2video -q:v 4",
            "mov", "-pix_fmt yuv422p10le -c:v prores_ks",
            "gif", "",
            "dv", "-s 720x576 -pix_fmt yuv420p -c:v dvvideo");

    private static byte[] whole(String ending) throws IOException {
        Path file = folder.resolve("whole." + ending);
        if (!Files.exists(file)) {
            String rate = ending.equals("gif") ? "20" : "25";
            TestClips.moving(folder, "whole." + ending, 96, 64, rate, 12, CODECS.get(ending));
        }
        return Files.readAllBytes(file);
    }

    private static FrameIndex read(Path file) {
        return Indexer.index(Prober.probe(file), frames -> {}, new Cancel());
    }

    /**
     * Many ways for each kind: bytes changed in the header, in the body, everywhere; ends cut off; a stretch taken out. The
     * limit is generous: it is there to find what hangs.
     */
    @ParameterizedTest
    @ValueSource(strings = {"mp4", "mkv", "avi", "mpg", "ts", "webm", "mxf", "mov", "gif", "dv"})
    void everyDamageEndsInASentenceOrAnIndex(String ending) throws IOException {
        byte[] bytes = whole(ending);
        var random = new Random(ending.hashCode() + SEED);
        for (int way = 0; way < WAYS; way++) {
            byte[] damaged = bytes.clone();
            switch (way % 4) {
                case 0 -> scramble(damaged, 0, Math.min(400, bytes.length), 6, random);
                case 1 -> scramble(damaged, 0, bytes.length, 40, random);
                case 2 -> damaged = Arrays.copyOf(bytes, 1 + random.nextInt(bytes.length - 1));
                default -> {
                    int from = random.nextInt(bytes.length / 2);
                    int length = 1 + random.nextInt(bytes.length / 4);
                    System.arraycopy(bytes, from + length, damaged, from, bytes.length - from - length);
                }
            }
            Path file = folder.resolve("damaged-" + way + "." + ending);
            Files.write(file, damaged);
            Assertions.assertThat(Duration.ofNanos(timed(file))).isLessThan(Duration.ofSeconds(60));
            Files.delete(file);
        }
    }

    private static void scramble(byte[] bytes, int from, int end, int times, Random random) {
        for (int i = 0; i < times; i++) {
            bytes[from + random.nextInt(end - from)] = (byte) random.nextInt(256);
        }
    }

    private static long timed(Path file) {
        long begun = System.nanoTime();
        try {
            MediaInfo info = Prober.probe(file);
            FrameIndex index = Indexer.index(info, frames -> {}, new Cancel());
            assertThat(index.count()).isPositive();
            // what decoded once decodes to the same again, wherever one begins
            int last = index.count() - 1;
            var clip = new Clip(info, java.util.Optional.of(index));
            assertThat(DecodingTest.frames(
                            clip,
                            new awlsmith.core.pipeline.FrameRange(last / 2, last + 1L),
                            clip.format().whole()))
                    .hasSize(last + 1 - last / 2);
        } catch (MediaException e) {
            assertThat(e.getMessage())
                    .isNotBlank()
                    .doesNotContain("Exception")
                    .doesNotContain("Generic error")
                    .doesNotContain("Invalid data")
                    .doesNotContain("@ 0x")
                    .doesNotContain(folder.toString());
        }
        return System.nanoTime() - begun;
    }

    @Test
    void damagedPlacesAreNotedAndTheRebuiltFileIsWhole() throws IOException {
        Path file = folder.resolve("long.mkv");
        TestClips.moving(folder, "long.mkv", 160, 120, "25", 100, "-pix_fmt yuv420p -c:v libx264 -g 25 -bf 0");
        byte[] bytes = Files.readAllBytes(file);
        byte[] cut = Arrays.copyOf(bytes, bytes.length * 2 / 3);
        for (int i = 0; i < 120; i++) {
            cut[cut.length / 2 + i] = (byte) (37 * i);
        }
        Path damaged = folder.resolve("cut.mkv");
        Files.write(damaged, cut);
        FrameIndex index = read(damaged);
        assertThat(index.count()).isBetween(40, 80);
        assertThat(index.damaged()).isNotEmpty();
        assertThat(index.damaged()[0]).isBetween(15, 60);
        assertThat(Prober.probe(damaged).expectedFrames()).isEqualTo(100);

        Path saved = folder.resolve("frames");
        index.save(saved);
        assertThat(FrameIndex.load(saved).damaged()).isEqualTo(index.damaged());

        Path rebuilt = folder.resolve("rebuilt");
        Repairer.rebuild(damaged, rebuilt, new Cancel());
        MediaInfo info = Prober.probe(rebuilt);
        FrameIndex again = read(rebuilt);
        // its length is now what it holds
        assertThat((double) info.expectedFrames()).isBetween(again.count() * 0.95, again.count() * 1.05);
        assertThat(Files.readAllBytes(damaged)).isEqualTo(cut);
        assertThat(folder.resolve("part")).doesNotExist();
    }

    @Test
    void whatHoldsNothingCannotBeRebuilt() throws IOException {
        Path file = folder.resolve("letters.mkv");
        Files.writeString(file, "no film\n".repeat(100));
        assertThatThrownBy(() -> Repairer.rebuild(file, folder.resolve("o.mkv"), new Cancel()))
                .isInstanceOf(MediaException.class);
        assertThat(folder.resolve("o")).doesNotExist();
    }
}
