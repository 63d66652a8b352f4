package awlsmith.benchmarks;

import awlsmith.core.motion.Flow;
import awlsmith.core.picture.Plane;
import java.util.ArrayList;
import java.util.List;

/**
 * How one picture lies in another of the same scene, to some hundredths of a sample: by the light itself, from small sizes to the full one (B. D.
 * Lucas and T. Kanade 1981, with weights against what differs). It shares nothing with the motion that the steps use.
 */
final class Registration {
    private static final int LEAST = 40;
    private static final int PASSES = 10;
    /** Samples of the full size that are asked, one of so many across and down. */
    private static final int STEP = 3;

    /** Difference of luma beyond which a sample is of something else. */
    private static final double OTHER = 0.12;

    private static final double BLACK = 0.004;

    private final double[] now = {1, 0, 0, 0, 1, 0};

    private Registration() {}

    /** Where x, y from the middle of the first lie from the middle of the second: a x + b y + c, d x + e y + f, samples. */
    static double[] between(Plane of, Plane in) {
        var ofs = new ArrayList<>(List.of(of));
        var ins = new ArrayList<>(List.of(in));
        while (Math.min(ofs.getLast().width(), ofs.getLast().height()) >= 2 * LEAST) {
            ofs.add(halved(ofs.getLast()));
            ins.add(halved(ins.getLast()));
        }
        var registration = new Registration();
        for (int k = ofs.size() - 1; k >= 0; k--) {
            registration.fit(ofs.get(k), ins.get(k));
            if (k > 0) {
                registration.now[2] *= 2;
                registration.now[5] *= 2;
            }
        }
        return registration.now;
    }

    private void fit(Plane of, Plane in) {
        for (int pass = 0; pass < PASSES; pass++) {
            double[][] rows = new double[6][6];
            double[] right = new double[6];
            int every = of.width() > 200 ? STEP : 1;
            for (int y = 3; y < of.height() - 3; y += every) {
                for (int x = 3; x < of.width() - 3; x += every) {
                    add(of, in, x, y, rows, right);
                }
            }
            double[] step = solve(rows, right);
            double moved = 0;
            for (int i = 0; i < 6; i++) {
                now[i] += step[i];
                moved += Math.abs(step[i]) * (i % 3 == 2 ? 1 : of.width() / 2.0);
            }
            if (moved < 5e-3) {
                return;
            }
        }
    }

    private void add(Plane of, Plane in, int x, int y, double[][] rows, double[] right) {
        double px = x - (of.width() - 1) / 2.0;
        double py = y - (of.height() - 1) / 2.0;
        float u = (float) (now[0] * px + now[1] * py + now[2] + (in.width() - 1) / 2.0);
        float v = (float) (now[3] * px + now[4] * py + now[5] + (in.height() - 1) / 2.0);
        if (u < 2 || v < 2 || u > in.width() - 3 || v > in.height() - 3 || of.at(x, y) < BLACK) {
            return;
        }
        double differs = of.at(x, y) - Flow.sample(in, u, v);
        double near = 1 - differs * differs / (OTHER * OTHER);
        if (near <= 0) {
            return;
        }
        double gx = (Flow.sample(in, u + 1, v) - Flow.sample(in, u - 1, v)) / 2;
        double gy = (Flow.sample(in, u, v + 1) - Flow.sample(in, u, v - 1)) / 2;
        double[] slope = {gx * px, gx * py, gx, gy * px, gy * py, gy};
        for (int i = 0; i < 6; i++) {
            for (int j = 0; j < 6; j++) {
                rows[i][j] += near * near * slope[i] * slope[j];
            }
            right[i] += near * near * slope[i] * differs;
        }
    }

    private static double[] solve(double[][] rows, double[] right) {
        var matrix = org.apache.commons.math3.linear.MatrixUtils.createRealMatrix(rows);
        return new org.apache.commons.math3.linear.SingularValueDecomposition(matrix)
                .getSolver()
                .solve(org.apache.commons.math3.linear.MatrixUtils.createRealVector(right))
                .toArray();
    }

    private static Plane halved(Plane p) {
        Plane half = Plane.of(p.width() / 2, p.height() / 2);
        for (int y = 0; y < half.height(); y++) {
            for (int x = 0; x < half.width(); x++) {
                half.set(
                        x,
                        y,
                        (p.at(2 * x, 2 * y)
                                        + p.at(2 * x + 1, 2 * y)
                                        + p.at(2 * x, 2 * y + 1)
                                        + p.at(2 * x + 1, 2 * y + 1))
                                / 4);
            }
        }
        return half;
    }
}
