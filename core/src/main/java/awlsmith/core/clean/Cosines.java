package awlsmith.core.clean;

/** Constants of the transform of eight samples. */
final class Cosines {
    static final float A = (float) Math.sqrt(1.0 / 8);
    static final float B = half(2);
    static final float C = half(6);
    static final float K1 = half(1);
    static final float K3 = half(3);
    static final float K5 = half(5);
    static final float K7 = half(7);

    private Cosines() {}

    private static float half(int sixteenths) {
        return (float) (0.5 * Math.cos(sixteenths * Math.PI / 16));
    }
}
