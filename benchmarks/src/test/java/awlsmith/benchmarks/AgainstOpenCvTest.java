package awlsmith.benchmarks;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import nu.pattern.OpenCV;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.opencv.core.CvType;
import org.opencv.core.Mat;
import org.opencv.core.Size;
import org.opencv.imgproc.Imgproc;

/** Our resampling against OpenCV 4.9's resize on the same float picture. */
class AgainstOpenCvTest {
    @BeforeAll
    static void load() {
        OpenCV.loadLocally();
    }

    private static Plane picture(int width, int height) {
        Plane plane = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double rings = Math.sin((x * x + y * y) / 900.0);
                plane.set(x, y, (float) (0.5 + 0.3 * rings + 0.2 * Math.sin(x * 0.9) * Math.cos(y * 1.1)));
            }
        }
        return plane;
    }

    /**
     * OpenCV's linear, and its exact area mean when reducing, are our curves; it repeats the edge where we mirror, which is
     * the same for these short curves but for rounding. Floats on both sides: 100 dB is a difference of 1e-5.
     */
    @ParameterizedTest
    @CsvSource({
        "BILINEAR, 1, 160, 120, 320, 240",
        "BILINEAR, 1, 160, 120, 411, 333",
        "AREA, 3, 160, 120, 80, 60",
        "AREA, 3, 160, 120, 64, 45",
        "AREA, 3, 161, 119, 40, 17"
    })
    void resamplesLikeOpenCv(Kernel kernel, int interpolation, int w, int h, int w2, int h2) {
        Plane src = picture(w, h);
        var in = new Mat(h, w, CvType.CV_32FC1);
        in.put(0, 0, src.packed());
        var out = new Mat();
        Imgproc.resize(in, out, new Size(w2, h2), 0, 0, interpolation);
        float[] theirs = new float[w2 * h2];
        out.get(0, 0, theirs);
        Plane ours = Plane.of(w2, h2);
        new PlaneResampler(TapTable.forAxis(kernel, w, w2, 1, 0), TapTable.forAxis(kernel, h, h2, 1, 0))
                .resample(src, 0, 0, ours, 0, 0, Work.alone());
        assertThat(Psnr.of(ours, new Plane(theirs, 0, w2, h2, w2), 2)).isGreaterThan(80);
    }
}
