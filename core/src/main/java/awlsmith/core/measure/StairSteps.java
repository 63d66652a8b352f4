package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * Whether lines or columns were doubled: then every second step between neighbours is missing, and slanting edges climb in
 * stairs. Our own measure, no source.
 */
public final class StairSteps {
    private StairSteps() {}

    /** 0 where all steps are alike, 1 where every second one is missing; the stronger of both ways. */
    public static double of(Plane luma) {
        return Math.max(
                doubled(luma, luma.stride(), luma.height(), 1, luma.width()),
                doubled(luma, 1, luma.width(), luma.stride(), luma.height()));
    }

    private static double doubled(Plane luma, int step, int length, int lineStep, int lines) {
        double[] sums = new double[2];
        float[] d = luma.data();
        int pairs = (length - 1) / 2;
        for (int line = 0; line < lines; line += 2) {
            int at = luma.row(0) + line * lineStep;
            for (int i = 0; i < pairs; i++, at += 2 * step) {
                sums[0] += Math.abs(d[at + step] - d[at]);
                if (i + 1 < pairs) {
                    sums[1] += Math.abs(d[at + 2 * step] - d[at + step]);
                }
            }
        }
        double more = Math.max(sums[0], sums[1]);
        return more == 0 ? 0 : 1 - Math.min(sums[0], sums[1]) / more;
    }
}
