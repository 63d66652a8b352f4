package awlsmith.core.resample;

/**
 * The curves a picture can be resampled with. Each is a pure function of the distance to a source sample, in source
 * samples when enlarging and in target samples when reducing.
 *
 * <p>Sources: Mitchell and Netravali, "Reconstruction filters in computer graphics", SIGGRAPH 1988 (cubics in B and C);
 * Duchon, "Lanczos filtering in one and two dimensions", J. Applied Meteorology 18, 1979 (windowed sinc). Area is the
 * box: exact mean when reducing, nearest sample when enlarging.
 */
public enum Kernel {
    AREA("area", 0.5, "exact mean when reducing; hard blocks when enlarging") {
        @Override
        public double at(double x) {
            double d = Math.abs(x);
            return d < 0.5 ? 1 : d == 0.5 ? 0.5 : 0;
        }
    },
    BILINEAR("bilinear", 1, "soft and plain, never rings") {
        @Override
        public double at(double x) {
            return Math.max(0, 1 - Math.abs(x));
        }
    },
    MITCHELL("mitchell", 2, "a little soft, almost no haloes") {
        @Override
        public double at(double x) {
            return cubic(x, 1 / 3.0, 1 / 3.0);
        }
    },
    CATMULL_ROM("catmull-rom", 2, "crisp cubic, slight haloes") {
        @Override
        public double at(double x) {
            return cubic(x, 0, 0.5);
        }
    },
    LANCZOS2("lanczos2", 2, "much like the crisp cubic") {
        @Override
        public double at(double x) {
            return lanczos(x, 2);
        }
    },
    LANCZOS3("lanczos3", 3, "sharpest for its haloes; the usual choice") {
        @Override
        public double at(double x) {
            return lanczos(x, 3);
        }
    },
    LANCZOS4("lanczos4", 4, "a trace sharper, rings further") {
        @Override
        public double at(double x) {
            return lanczos(x, 4);
        }
    };

    private final String id;
    private final double reach;
    private final String character;

    Kernel(String id, double reach, String character) {
        this.id = id;
        this.reach = reach;
        this.character = character;
    }

    /** The curve's height at distance x; zero beyond {@link #reach}. */
    public abstract double at(double x);

    /** Half the curve's width. */
    public double reach() {
        return reach;
    }

    /** Name used in recipes and on the command line. */
    public String id() {
        return id;
    }

    /** What it does to a picture, in a few words. */
    public String character() {
        return character;
    }

    /** @throws IllegalArgumentException with a sentence when there is none of this name */
    public static Kernel byId(String id) {
        for (Kernel kernel : values()) {
            if (kernel.id.equals(id)) {
                return kernel;
            }
        }
        throw new IllegalArgumentException("no kernel is called '" + id + "'");
    }

    /** Mitchell and Netravali 1988, equation 8. */
    private static double cubic(double x, double b, double c) {
        double d = Math.abs(x);
        if (d < 1) {
            return ((12 - 9 * b - 6 * c) * d * d * d + (-18 + 12 * b + 6 * c) * d * d + (6 - 2 * b)) / 6;
        }
        if (d < 2) {
            return ((-b - 6 * c) * d * d * d + (6 * b + 30 * c) * d * d + (-12 * b - 48 * c) * d + (8 * b + 24 * c))
                    / 6;
        }
        return 0;
    }

    /** sinc(x) sinc(x / lobes) for |x| below lobes. */
    private static double lanczos(double x, int lobes) {
        return Math.abs(x) < lobes ? sinc(x) * sinc(x / lobes) : 0;
    }

    private static double sinc(double x) {
        if (Math.abs(x) < 1e-9) {
            return 1;
        }
        return Math.sin(Math.PI * x) / (Math.PI * x);
    }
}
