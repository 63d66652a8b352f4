package awlsmith.core.steady;

/** Small sets of linear equations. */
final class Solving {
    private static final double NOTHING = 1e-12;

    private Solving() {}

    /** By elimination with the largest pivot first; null where they do not settle it. The arrays are used up. */
    static double[] solve(double[][] rows, double[] right) {
        int n = right.length;
        for (int k = 0; k < n; k++) {
            int pivot = k;
            for (int i = k + 1; i < n; i++) {
                if (Math.abs(rows[i][k]) > Math.abs(rows[pivot][k])) {
                    pivot = i;
                }
            }
            if (!(Math.abs(rows[pivot][k]) > NOTHING)) {
                return null;
            }
            double[] row = rows[k];
            rows[k] = rows[pivot];
            rows[pivot] = row;
            double value = right[k];
            right[k] = right[pivot];
            right[pivot] = value;
            for (int i = k + 1; i < n; i++) {
                double share = rows[i][k] / rows[k][k];
                for (int j = k; j < n; j++) {
                    rows[i][j] -= share * rows[k][j];
                }
                right[i] -= share * right[k];
            }
        }
        double[] found = new double[n];
        for (int k = n - 1; k >= 0; k--) {
            double sum = right[k];
            for (int j = k + 1; j < n; j++) {
                sum -= rows[k][j] * found[j];
            }
            found[k] = sum / rows[k][k];
        }
        return found;
    }
}
