package awlsmith.core.retime;

/** Sums of least squares where each frame is a mix of two neighbours: then each unknown meets only those beside it. */
final class Mixes {
    private final double[] squares;
    private final double[] beside;

    /** @param count frames that were mixed */
    Mixes(int count) {
        squares = new double[count];
        beside = new double[count - 1];
    }

    /** @param at place among those that were mixed, 0 or more and less than the last */
    void add(double at) {
        int i = (int) Math.floor(at);
        double later = at - i;
        squares[i] += (1 - later) * (1 - later);
        squares[i + 1] += later * later;
        beside[i] += (1 - later) * later;
    }

    /** A price on each step from one to the next. */
    void addSteps(double price) {
        for (int i = 0; i < beside.length; i++) {
            squares[i] += price;
            squares[i + 1] += price;
            beside[i] -= price;
        }
    }

    /** A mix at a place, of these. */
    static double mixed(double[] of, double at) {
        int i = (int) Math.floor(at);
        return of[i] + (at - i) * (of[i + 1] - of[i]);
    }

    /** The right-hand side a mix of some value at a place adds. */
    static void addTo(double[] right, double at, double value) {
        int i = (int) Math.floor(at);
        right[i] += (1 - at + i) * value;
        right[i + 1] += (at - i) * value;
    }

    /** By elimination along the diagonal, which is never nothing once steps have a price. @return as many as were mixed */
    double[] solve(double[] right) {
        int n = squares.length;
        double[] share = new double[n];
        double[] found = right.clone();
        double pivot = squares[0];
        for (int i = 1; i < n; i++) {
            share[i - 1] = beside[i - 1] / pivot;
            found[i - 1] /= pivot;
            pivot = squares[i] - beside[i - 1] * share[i - 1];
            found[i] -= beside[i - 1] * found[i - 1];
        }
        found[n - 1] /= pivot;
        for (int i = n - 2; i >= 0; i--) {
            found[i] -= share[i] * found[i + 1];
        }
        return found;
    }
}
