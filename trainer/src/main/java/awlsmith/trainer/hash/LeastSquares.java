package awlsmith.trainer.hash;

/** Linear least squares by Cholesky's decomposition. */
final class LeastSquares {
    private LeastSquares() {}

    /**
     * Minimises |X w - y|² + ridge |w - towards|² for several y at once.
     *
     * @param products X'X, n x n, its upper half
     * @param answers X'y, n numbers for each y after the other
     * @param towards as many numbers as answers
     * @return w for each y after the other
     */
    static double[] solve(double[] products, double[] answers, int n, int count, double[] towards, double ridge) {
        double[] l = new double[n * n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j <= i; j++) {
                double sum = products[j * n + i] + (i == j ? ridge : 0);
                for (int k = 0; k < j; k++) {
                    sum -= l[i * n + k] * l[j * n + k];
                }
                // a direction that no sample has taken gives rounding below 0
                l[i * n + j] = i == j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / l[j * n + j];
            }
        }
        double[] w = new double[n * count];
        for (int c = 0; c < count; c++) {
            int at = c * n;
            for (int i = 0; i < n; i++) {
                double sum = answers[at + i] + ridge * towards[at + i];
                for (int k = 0; k < i; k++) {
                    sum -= l[i * n + k] * w[at + k];
                }
                w[at + i] = sum / l[i * n + i];
            }
            for (int i = n - 1; i >= 0; i--) {
                double sum = w[at + i];
                for (int k = i + 1; k < n; k++) {
                    sum -= l[k * n + i] * w[at + k];
                }
                w[at + i] = sum / l[i * n + i];
            }
        }
        return w;
    }
}
