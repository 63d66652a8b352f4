package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.compare.Scopes;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import java.nio.file.Path;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ScopesTest {
    @TempDir
    Path folder;

    /** Against FFmpeg's signalstats filter on the same frame: extremes, mean, and the share beyond black and white (BRNG). */
    @Test
    void scopesCountAsSignalstatsDoes() {
        Path file = folder.resolve("levels.mkv");
        // more contrast than fits between black and white, and no colour, so that BRNG speaks of luma alone
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=320x240:r=25 -frames:v 1 -vf "
                + "format=yuv420p,lutyuv=y=clip(val*1.3-30\\,0\\,255):u=128:v=128 -c:v ffv1 -color_range tv " + file);
        String[] told = TestClips.ffprobe("-f lavfi -i movie=" + file + ",signalstats=stat=brng -show_entries "
                        + "frame_tags=lavfi.signalstats.YMIN,lavfi.signalstats.YAVG,lavfi.signalstats.YMAX,"
                        + "lavfi.signalstats.BRNG -of csv=p=0")
                .strip()
                .split(",");
        Clip clip = Clip.streamed(Prober.probe(file));
        Scopes scopes;
        try (var stream = clip.open(FrameRange.all(), clip.format().whole(), new PlanePool(0), new Cancel())) {
            scopes = Scopes.of(stream.next().orElseThrow(), 100);
        }
        int[] histogram = scopes.histogram();
        int low = IntStream.range(0, 256)
                .filter(code -> histogram[code] > 0)
                .min()
                .orElseThrow();
        int high = IntStream.range(0, 256)
                .filter(code -> histogram[code] > 0)
                .max()
                .orElseThrow();
        double mean = IntStream.range(0, 256)
                        .mapToDouble(code -> (double) code * histogram[code])
                        .sum()
                / scopes.samples();
        double beyond = (double) (scopes.below() + scopes.above()) / scopes.samples();
        assertThat(low).isEqualTo(Integer.parseInt(told[0]));
        assertThat(mean).isCloseTo(Double.parseDouble(told[1]), within(0.01));
        assertThat(high).isEqualTo(Integer.parseInt(told[2]));
        assertThat(beyond).isCloseTo(Double.parseDouble(told[3]), within(0.001)).isPositive();
    }
}
