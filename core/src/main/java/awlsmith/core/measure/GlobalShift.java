package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * How far the whole picture has moved since the one before, from its row and column sums: the sums of two pictures are laid
 * over each other where they fit best (common practice, no source). It sees shifts, not turns or zooms.
 *
 * @param dx samples to the right, @param dy samples down
 * @param trust how much better the best place fits than none at all, 0..1
 */
public record GlobalShift(double dx, double dy, double trust) {
    /** Largest shift looked for, as a share of the side. */
    private static final double REACH = 0.12;
    /** How much worse a fit counts at the end of the reach. */
    private static final double NEARER = 0.3;

    /** Both of one size. */
    public static GlobalShift between(Profiles before, Profiles here) {
        Match across = match(before.columns(), here.columns());
        Match down = match(before.rows(), here.rows());
        return new GlobalShift(across.shift(), down.shift(), Math.min(across.trust(), down.trust()));
    }

    /** Sums of a picture's columns and rows, as means. */
    public record Profiles(float[] columns, float[] rows) {
        public static Profiles of(Plane luma) {
            float[] columns = new float[luma.width()];
            float[] rows = new float[luma.height()];
            for (int y = 0; y < luma.height(); y++) {
                rows[y] = RowSums.CHOSEN.addRow(columns, luma.data(), luma.row(y), luma.width()) / luma.width();
            }
            for (int x = 0; x < columns.length; x++) {
                columns[x] /= luma.height();
            }
            return new Profiles(columns, rows);
        }
    }

    private record Match(double shift, double trust) {}

    private static Match match(float[] before, float[] here) {
        int reach = Math.max(1, (int) (REACH * here.length));
        double[] misfit = new double[2 * reach + 1];
        int best = 0;
        for (int s = -reach; s <= reach; s++) {
            // of two places that fit alike, as in a fence, the nearer one is the likelier
            misfit[s + reach] = misfit(before, here, s) * (1 + NEARER * Math.abs(s) / reach);
            if (misfit[s + reach] < misfit[best]) {
                best = s + reach;
            }
        }
        double shift = best - reach;
        if (best > 0 && best < misfit.length - 1) {
            double left = misfit[best - 1];
            double right = misfit[best + 1];
            double curve = left - 2 * misfit[best] + right;
            shift += curve > 0 ? Math.clamp((left - right) / (2 * curve), -0.5, 0.5) : 0;
        }
        double mean = java.util.Arrays.stream(misfit).average().orElse(0);
        return new Match(shift, mean <= 0 ? 0 : Math.clamp(1 - misfit[best] / mean, 0, 1));
    }

    /** Mean squared difference of the slopes where both overlap, which a change of exposure does not touch. */
    private static double misfit(float[] before, float[] here, int shift) {
        int from = Math.max(1, 1 + shift);
        int end = Math.min(here.length, before.length + shift);
        double sum = 0;
        for (int i = from; i < end; i++) {
            double d = here[i] - here[i - 1] - (before[i - shift] - before[i - shift - 1]);
            sum += d * d;
        }
        return sum / Math.max(1, end - from);
    }
}
