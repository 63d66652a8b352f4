package awlsmith.benchmarks;

import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** The most multiply-adds this machine does: independent chains of vector instructions that never leave the registers. */
final class PeakRate {
    private static final VectorSpecies<Float> LANES = FloatVector.SPECIES_PREFERRED;
    private static final int CHAINS = 12;
    private static final int ROUNDS = 20_000_000;

    private PeakRate() {}

    /** Multiply-adds of single precision a second on so many threads at once; the best of a few tries. */
    static double multiplyAdds(int threads) {
        double best = 0;
        try (var pool = Executors.newFixedThreadPool(threads)) {
            for (int i = 0; i < 5; i++) {
                long start = System.nanoTime();
                IntStream.range(0, threads)
                        .mapToObj(t -> pool.submit(() -> chains(ROUNDS)))
                        .toList()
                        .forEach(f -> {
                            try {
                                if (Float.isNaN(f.get())) {
                                    throw new IllegalStateException("not a number");
                                }
                            } catch (InterruptedException | java.util.concurrent.ExecutionException e) {
                                throw new IllegalStateException(e);
                            }
                        });
                double seconds = (System.nanoTime() - start) / 1e9;
                best = Math.max(best, (double) ROUNDS * CHAINS * LANES.length() * threads / seconds);
            }
        }
        return best;
    }

    private static float chains(int rounds) {
        var factor = FloatVector.broadcast(LANES, 0.999f);
        var a = FloatVector.broadcast(LANES, 1);
        var b = a;
        var c = a;
        var d = a;
        var e = a;
        var f = a;
        var g = a;
        var h = a;
        var i = a;
        var j = a;
        var k = a;
        var l = a;
        for (int n = 0; n < rounds; n++) {
            a = a.fma(factor, factor);
            b = b.fma(factor, factor);
            c = c.fma(factor, factor);
            d = d.fma(factor, factor);
            e = e.fma(factor, factor);
            f = f.fma(factor, factor);
            g = g.fma(factor, factor);
            h = h.fma(factor, factor);
            i = i.fma(factor, factor);
            j = j.fma(factor, factor);
            k = k.fma(factor, factor);
            l = l.fma(factor, factor);
        }
        return a.add(b)
                .add(c)
                .add(d)
                .add(e)
                .add(f)
                .add(g)
                .add(h)
                .add(i)
                .add(j)
                .add(k)
                .add(l)
                .lane(0);
    }
}
