package awlsmith.benchmarks;

import java.util.Arrays;
import java.util.Locale;

/** Times and sentences for the report. */
final class Figures {
    private Figures() {}

    /** Seconds of each of a few runs, sorted. */
    static double[] seconds(int runs, Runnable work) {
        double[] taken = new double[runs];
        for (int i = 0; i < runs; i++) {
            long start = System.nanoTime();
            work.run();
            taken[i] = (System.nanoTime() - start) / 1e9;
        }
        Arrays.sort(taken);
        return taken;
    }

    static double median(double[] sorted) {
        return sorted[sorted.length / 2];
    }

    static String text(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }
}
