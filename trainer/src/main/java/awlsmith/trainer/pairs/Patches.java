package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import java.nio.FloatBuffer;
import java.util.List;
import java.util.SplittableRandom;

/**
 * Draws patches from pairs: a small one as input, and what has to be added to its plain enlargement as the answer. Turned
 * and mirrored at random, all eight ways. The draw depends on the seed and the iteration alone, so that a run that was
 * stopped goes on with the patches it would have had.
 */
public final class Patches {
    /** Below this mean step between neighbours a patch is as good as flat and mostly drawn anew. */
    private static final float FLAT = 0.006f;

    private static final float KEEP_FLAT = 0.15f;

    private final List<Weighted> pairs;
    private final double total;
    private final int side;
    private final int factor;
    private final long seed;

    private record Weighted(Pair pair, double upTo) {}

    /**
     * @param pairs drawn from in proportion to their area
     * @param side of the small patch, in samples
     */
    public Patches(List<Pair> pairs, int side, int factor, long seed) {
        double sum = 0;
        var all = new java.util.ArrayList<Weighted>();
        for (Pair pair : pairs) {
            if (pair.small().width() >= side && pair.small().height() >= side) {
                sum += (double) pair.small().width() * pair.small().height();
                all.add(new Weighted(pair, sum));
            }
        }
        if (all.isEmpty()) {
            throw new IllegalArgumentException("no picture is at least " + side + " samples wide and high");
        }
        this.pairs = List.copyOf(all);
        this.total = sum;
        this.side = side;
        this.factor = factor;
        this.seed = seed;
    }

    /**
     * Fills one batch.
     *
     * @param inputs gets count x side x side samples
     * @param answers gets count x factor² x side x side samples: plane dy * factor + dx holds the sample at (x * factor +
     *     dx, y * factor + dy), the order of ONNX DepthToSpace in CRD mode
     */
    public void batch(long iteration, int count, FloatBuffer inputs, FloatBuffer answers) {
        var random = new SplittableRandom(seed * 0x9E3779B97F4A7C15L + iteration);
        for (int i = 0; i < count; i++) {
            draw(random, inputs, i * side * side, answers, i * factor * factor * side * side);
        }
    }

    private void draw(SplittableRandom random, FloatBuffer inputs, int in, FloatBuffer answers, int out) {
        while (true) {
            Pair pair = pick(random.nextDouble() * total);
            Plane small = pair.small();
            var part = new Region(
                    random.nextInt(small.width() - side + 1), random.nextInt(small.height() - side + 1), side, side);
            int turn = random.nextInt(8);
            boolean keepFlat = random.nextDouble() < KEEP_FLAT;
            if (!keepFlat && roughness(small.window(part)) < FLAT) {
                continue;
            }
            Plane plain = pair.plain(part);
            int large = side * factor;
            Plane sharp = pair.sharp().window(new Region(part.x() * factor, part.y() * factor, large, large));
            Plane from = small.window(part);
            for (int y = 0; y < side; y++) {
                for (int x = 0; x < side; x++) {
                    inputs.put(in + y * side + x, turned(from, turn, x, y));
                }
            }
            for (int y = 0; y < large; y++) {
                for (int x = 0; x < large; x++) {
                    int phase = y % factor * factor + x % factor;
                    answers.put(
                            out + (phase * side + y / factor) * side + x / factor,
                            turned(sharp, turn, x, y) - turned(plain, turn, x, y));
                }
            }
            return;
        }
    }

    private Pair pick(double at) {
        for (Weighted w : pairs) {
            if (at < w.upTo()) {
                return w.pair();
            }
        }
        return pairs.getLast().pair();
    }

    /** A square's sample after turning it one of eight ways: bit 0 mirrors x, bit 1 mirrors y, bit 2 swaps them. */
    private static float turned(Plane square, int turn, int x, int y) {
        int last = square.width() - 1;
        int u = (turn & 1) == 0 ? x : last - x;
        int v = (turn & 2) == 0 ? y : last - y;
        return (turn & 4) == 0 ? square.at(u, v) : square.at(v, u);
    }

    private static float roughness(Plane p) {
        float sum = 0;
        for (int y = 0; y + 1 < p.height(); y += 2) {
            for (int x = 0; x + 1 < p.width(); x += 2) {
                sum += Math.abs(p.at(x + 1, y) - p.at(x, y)) + Math.abs(p.at(x, y + 1) - p.at(x, y));
            }
        }
        return sum / (p.width() / 2 * (p.height() / 2) * 2);
    }
}
