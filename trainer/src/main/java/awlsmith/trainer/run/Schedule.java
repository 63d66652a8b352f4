package awlsmith.trainer.run;

/**
 * The learning rate over one run: a short rise, then half a cosine down. A model is trained by several runs after each
 * other, each going on from the last one's weights (warm restarts, Loshchilov and Hutter 2017, "SGDR").
 *
 * @param peak highest rate
 * @param iterations of the whole run
 */
public record Schedule(double peak, long iterations) {
    private static final int RISE = 300;
    private static final double LEAST = 0.01;

    /** The rate at an iteration, 0 to iterations - 1. */
    public double at(long iteration) {
        double rise = Math.min(1, (iteration + 1) / (double) Math.min(RISE, iterations));
        double along = Math.min(1, iteration / (double) iterations);
        return peak * rise * (LEAST + (1 - LEAST) * 0.5 * (1 + Math.cos(Math.PI * along)));
    }
}
