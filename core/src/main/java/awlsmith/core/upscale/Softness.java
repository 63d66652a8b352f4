package awlsmith.core.upscale;

/**
 * How soft footage is, for models that can be told: 0 as sharp as pixels can be (reduced by area, or binned on a sensor; stairs and
 * moire along edges), 0.5 smoothly reduced as by a good resize, 1 blurred by some 1.2 samples of the enlarged picture more. What a
 * model takes for sharp it sharpens less.
 */
public final class Softness {
    /** Told values lie well apart from 0, which says that nothing is known. */
    private static final float LEAST = 0.4f;

    private final float sample;

    private Softness(float sample) {
        this.sample = sample;
    }

    /** Nothing is told: the model judges by itself. */
    public static Softness unknown() {
        return new Softness(0);
    }

    /** @param value 0..1 */
    public static Softness of(double value) {
        if (!(value >= 0 && value <= 1)) {
            throw new IllegalArgumentException("softness is " + value + ", must be 0..1");
        }
        return new Softness((float) (LEAST + (1 - LEAST) * value));
    }

    /** What every sample of the plane is that a model reads beside the light. */
    public float sample() {
        return sample;
    }
}
