package awlsmith.core.detail;

/** What became of a point of light: how a lens, a resize or a moving camera spread it. Lengths in samples. */
public sealed interface PointSpread {
    /** Points per sample and way that a tap is the mean of. */
    int FINE = 8;

    /** Samples from the middle to the last that has any of the light. */
    int reach();

    /** Samples each way that what undoes it should reach. */
    int inverseReach();

    /** Relative light at a place, samples right of and below the middle. */
    double at(double x, double y);

    /** A bell, as of most soft footage. @param across standard deviation along rows; @param down along columns */
    record Bell(double across, double down) implements PointSpread {
        @Override
        public int reach() {
            return (int) Math.ceil(3.5 * Math.max(across, down));
        }

        @Override
        public int inverseReach() {
            return (int) Math.ceil(9 * Math.max(across, down));
        }

        @Override
        public double at(double x, double y) {
            double u = x / Math.max(across, 0.05);
            double v = y / Math.max(down, 0.05);
            return Math.exp(-(u * u + v * v) / 2);
        }
    }

    /** A disc, as of a lens out of focus. */
    record Disc(double radius) implements PointSpread {
        @Override
        public int reach() {
            return (int) Math.ceil(radius);
        }

        /** It has rings that bring back nothing of some frequencies: what undoes it dies away slowly. */
        @Override
        public int inverseReach() {
            return (int) Math.ceil(7 * radius);
        }

        @Override
        public double at(double x, double y) {
            return x * x + y * y <= radius * radius ? 1 : 0;
        }
    }

    /** A line, as of a hand that moved. @param angle degrees, 0 sideways, rising to the right below 90 */
    record Line(double length, double angle) implements PointSpread {
        @Override
        public int reach() {
            return (int) Math.ceil(length / 2);
        }

        @Override
        public int inverseReach() {
            return (int) Math.ceil(4 * length);
        }

        @Override
        public double at(double x, double y) {
            double way = Math.toRadians(angle);
            double along = x * Math.cos(way) - y * Math.sin(way);
            double beside = x * Math.sin(way) + y * Math.cos(way);
            return Math.abs(along) <= length / 2 && Math.abs(beside) <= 0.5 ? 1 : 0;
        }
    }

    /**
     * What an unsharp mask made of a point: the point, stronger, in a dark bell. Undone it needs no more than is there.
     *
     * @param radius of the bell, its standard deviation; @param amount of the mask, 1 for 100 %
     */
    record Sharpened(double radius, double amount) implements PointSpread {
        @Override
        public int reach() {
            return (int) Math.ceil(3.5 * radius);
        }

        @Override
        public int inverseReach() {
            return (int) Math.ceil(8 * radius);
        }

        /** Of the bell alone. */
        @Override
        public double at(double x, double y) {
            return new Bell(radius, radius).at(x, y);
        }

        @Override
        public double[] taps() {
            double[] taps = PointSpread.super.taps();
            for (int i = 0; i < taps.length; i++) {
                taps[i] *= -amount;
            }
            taps[taps.length / 2] += 1 + amount;
            return taps;
        }
    }

    /** Taps of a square of 2 reach + 1 samples, by rows; they add up to 1. */
    default double[] taps() {
        int side = 2 * reach() + 1;
        double[] taps = new double[side * side];
        double sum = 0;
        for (int i = 0; i < taps.length; i++) {
            for (int k = 0; k < FINE * FINE; k++) {
                double x = i % side - reach() + (k % FINE + 0.5) / FINE - 0.5;
                double y = i / side - reach() + (k / FINE + 0.5) / FINE - 0.5;
                taps[i] += at(x, y);
            }
            sum += taps[i];
        }
        for (int i = 0; i < taps.length; i++) {
            taps[i] /= sum;
        }
        return taps;
    }
}
