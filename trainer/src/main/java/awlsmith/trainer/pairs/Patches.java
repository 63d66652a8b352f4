package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import java.nio.FloatBuffer;
import java.util.List;
import java.util.SplittableRandom;

/**
 * Draws patches from pairs: what is shown as input, and what has to be added to the plain result as the answer. Where that
 * makes sense turned and mirrored at random, all eight ways. The draw depends on the seed and the iteration alone, so that a run that was
 * stopped goes on with the patches it would have had.
 */
public final class Patches {
    /** Below this mean step between neighbours a patch is as good as flat and mostly drawn anew. */
    private static final float FLAT = 0.006f;

    /** Share of the flat patches that are kept where there is little to learn from them. */
    public static final double FEW_FLAT = 0.15;

    private final List<Weighted> pairs;
    private final double total;
    private final int side;
    private final int factor;
    private final int step;
    private final long seed;
    private final double flat;

    private record Weighted(Pair pair, double upTo) {}

    /**
     * @param pairs drawn from in proportion to their area
     * @param side of the small patch, in samples, a multiple of step
     * @param step samples across that a net reads as one, see {@link awlsmith.trainer.net.NetShape}
     */
    public Patches(List<Pair> pairs, int side, int factor, int step, long seed) {
        this(pairs, side, factor, step, seed, FEW_FLAT);
    }

    /** @param flat share of the flat patches that are kept: what should stay flat has to be learned from them */
    public Patches(List<Pair> pairs, int side, int factor, int step, long seed, double flat) {
        this.flat = flat;
        double sum = 0;
        var all = new java.util.ArrayList<Weighted>();
        for (Pair pair : pairs) {
            if (pair.width() >= side && pair.height() >= side) {
                sum += (double) pair.width() * pair.height();
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
        this.step = step;
        this.seed = seed;
    }

    /**
     * Fills one batch.
     *
     * <p>Squares lie as the net has them: with s = step, or step * factor for the large ones, s² planes of every s-th
     * sample; plane dy * s + dx holds those at (x * s + dx, y * s + dy), the order of ONNX DepthToSpace in CRD mode. Of several small
     * squares of a pair the planes of one phase lie together, in the order of ONNX SpaceToDepth.
     *
     * @param inputs gets count times as many small squares as a pair shows
     * @param plain gets count large squares, the plain enlargement of the inputs
     * @param answers gets count large squares, what has to be added to the plain ones
     */
    public void batch(long iteration, int count, FloatBuffer inputs, FloatBuffer plain, FloatBuffer answers) {
        var random = new SplittableRandom(seed * 0x9E3779B97F4A7C15L + iteration);
        for (int i = 0; i < count; i++) {
            draw(random, i, inputs, plain, answers);
        }
    }

    private void draw(SplittableRandom random, int number, FloatBuffer inputs, FloatBuffer plain, FloatBuffer answers) {
        while (true) {
            Pair pair = pick(random.nextDouble() * total);
            var part = new Region(
                    random.nextInt(pair.width() - side + 1), random.nextInt(pair.height() - side + 1), side, side);
            int turn = random.nextInt(8) & (pair.turns() ? 7 : 0);
            boolean keepFlat = random.nextDouble() < flat;
            List<Plane> shown =
                    pair.shown().stream().map(plane -> plane.window(part)).toList();
            if (!keepFlat && roughness(shown.getFirst()) < FLAT) {
                continue;
            }
            int large = side * factor;
            Plane base = pair.plain(part);
            Plane sharp = pair.sharp().window(new Region(part.x() * factor, part.y() * factor, large, large));
            for (int k = 0; k < shown.size(); k++) {
                Plane from = shown.get(k);
                put(inputs, number, k, shown.size(), side, step, (x, y) -> turned(from, turn, x, y));
            }
            int phases = step * factor;
            put(plain, number, 0, 1, large, phases, (x, y) -> turned(base, turn, x, y));
            put(answers, number, 0, 1, large, phases, (x, y) -> turned(sharp, turn, x, y) - turned(base, turn, x, y));
            return;
        }
    }

    private interface Square {
        float at(int x, int y);
    }

    /**
     * Writes one of the squares of a number in the batch, every s-th sample to a plane of its own.
     *
     * @param which of them; @param all how many there are
     */
    private static void put(FloatBuffer to, int number, int which, int all, int side, int s, Square square) {
        int first = number * all * side * side;
        int small = side / s;
        for (int y = 0; y < side; y++) {
            for (int x = 0; x < side; x++) {
                int plane = (y % s * s + x % s) * all + which;
                to.put(first + (plane * small + y / s) * small + x / s, square.at(x, y));
            }
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
