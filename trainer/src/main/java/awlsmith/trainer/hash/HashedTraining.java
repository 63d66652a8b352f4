package awlsmith.trainer.hash;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.resample.TapTable;
import awlsmith.core.upscale.GradientHash;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.trainer.pairs.Pair;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;

/**
 * Finds, for every bucket of {@link GradientHash} and every phase, the filter with the least squared error over all
 * samples that fall into the bucket (Romano, Isidoro and Milanfar 2016, section III). The filters see differences from
 * the middle sample only, so none can change the brightness of a flat place. A bucket with few samples leans on the
 * filter of all samples.
 */
public final class HashedTraining {
    private static final int SIDE = HashedFilters.SIDE;
    private static final int MIDDLE = SIDE * SIDE / 2;
    /** Differences a filter weighs: every sample of its square but the middle one. */
    private static final int N = SIDE * SIDE - 1;

    /** Most samples of one bucket taken from one picture, so that skies do not outweigh everything. */
    private static final int MOST = 300;

    /** How many samples' worth of trust the filter of all samples has. */
    private static final double LEAN = 60;

    private final int factor;
    private final int phases;
    private final double[][] products;
    private final double[][] answers;
    private final long[] counts;

    public HashedTraining(int factor) {
        this.factor = factor;
        phases = factor * factor;
        products = new double[GradientHash.BUCKETS][N * N];
        answers = new double[GradientHash.BUCKETS][phases * N];
        counts = new long[GradientHash.BUCKETS];
    }

    /** Takes in what a list of pairs has to teach, in all eight turns. */
    public void learn(List<Pair> pairs, long seed) {
        for (int i = 0; i < pairs.size(); i++) {
            Pair pair = pairs.get(i);
            Plane small = pair.shown().getFirst();
            Plane plain = pair.plain(new Region(0, 0, small.width(), small.height()));
            long pairSeed = seed * 31 + i;
            IntStream.range(0, 8)
                    .parallel()
                    .forEach(turn -> learn(
                            turned(small, turn), turned(plain, turn), turned(pair.sharp(), turn), pairSeed * 8 + turn));
        }
    }

    private void learn(Plane small, Plane plain, Plane sharp, long seed) {
        int[] buckets = HashedFilters.buckets(small);
        int[] all = new int[GradientHash.BUCKETS];
        for (int bucket : buckets) {
            all[bucket]++;
        }
        var random = new SplittableRandom(seed);
        float[] x = new float[N];
        float[] y = new float[phases];
        for (int v = 0; v < small.height(); v++) {
            for (int u = 0; u < small.width(); u++) {
                int bucket = buckets[v * small.width() + u];
                // an eighth from each turn
                if (random.nextDouble() * all[bucket] > MOST / 8.0) {
                    continue;
                }
                differences(small, u, v, x);
                for (int phase = 0; phase < phases; phase++) {
                    int px = u * factor + phase % factor;
                    int py = v * factor + phase / factor;
                    y[phase] = sharp.at(px, py) - plain.at(px, py);
                }
                add(bucket, x, y);
            }
        }
    }

    private void add(int bucket, float[] x, float[] y) {
        double[] a = products[bucket];
        synchronized (a) {
            for (int i = 0; i < N; i++) {
                double xi = x[i];
                for (int j = i; j < N; j++) {
                    a[i * N + j] += xi * x[j];
                }
            }
            double[] b = answers[bucket];
            for (int phase = 0; phase < phases; phase++) {
                for (int i = 0; i < N; i++) {
                    b[phase * N + i] += (double) y[phase] * x[i];
                }
            }
            counts[bucket]++;
        }
    }

    private static void differences(Plane in, int u, int v, float[] x) {
        float middle = in.at(u, v);
        int n = 0;
        for (int i = 0; i < SIDE * SIDE; i++) {
            if (i != MIDDLE) {
                int px = TapTable.mirror(u + i % SIDE - SIDE / 2, in.width());
                int py = TapTable.mirror(v + i / SIDE - SIDE / 2, in.height());
                x[n++] = in.at(px, py) - middle;
            }
        }
    }

    /** Filters in the order {@link HashedFilters} wants. */
    public float[] filters() {
        double[] allProducts = new double[N * N];
        double[] allAnswers = new double[phases * N];
        for (int bucket = 0; bucket < GradientHash.BUCKETS; bucket++) {
            sum(allProducts, products[bucket]);
            sum(allAnswers, answers[bucket]);
        }
        double[] common = LeastSquares.solve(allProducts, allAnswers, N, phases, new double[phases * N], 1e-9);
        float[] filters = new float[GradientHash.BUCKETS * phases * HashedFilters.FILTER];
        IntStream.range(0, GradientHash.BUCKETS).parallel().forEach(bucket -> {
            double trace = 0;
            for (int i = 0; i < N; i++) {
                trace += products[bucket][i * N + i];
            }
            double each = counts[bucket] == 0 ? 1 : trace / N / counts[bucket];
            double[] w = counts[bucket] == 0
                    ? common
                    : LeastSquares.solve(products[bucket], answers[bucket], N, phases, common, LEAN * each + 1e-9);
            write(w, filters, bucket);
        });
        return filters;
    }

    /** How many samples fell into each bucket. */
    public long[] counts() {
        return counts.clone();
    }

    private void write(double[] w, float[] filters, int bucket) {
        for (int phase = 0; phase < phases; phase++) {
            int at = (bucket * phases + phase) * HashedFilters.FILTER;
            double rest = 0;
            int n = 0;
            for (int i = 0; i < SIDE * SIDE; i++) {
                if (i != MIDDLE) {
                    double weight = w[phase * N + n++];
                    filters[at + i / SIDE * HashedFilters.ROW + i % SIDE] = (float) weight;
                    rest -= weight;
                }
            }
            filters[at + MIDDLE / SIDE * HashedFilters.ROW + MIDDLE % SIDE] = (float) rest;
        }
    }

    private static void sum(double[] into, double[] more) {
        for (int i = 0; i < into.length; i++) {
            into[i] += more[i];
        }
    }

    private static Plane turned(Plane p, int turn) {
        boolean swap = (turn & 4) != 0;
        Plane out = Plane.of(swap ? p.height() : p.width(), swap ? p.width() : p.height());
        for (int y = 0; y < out.height(); y++) {
            for (int x = 0; x < out.width(); x++) {
                int u = (turn & 1) == 0 ? x : out.width() - 1 - x;
                int v = (turn & 2) == 0 ? y : out.height() - 1 - y;
                out.set(x, y, swap ? p.at(v, u) : p.at(u, v));
            }
        }
        return out;
    }
}
