package awlsmith.footage;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import java.util.List;
import java.util.SplittableRandom;

/**
 * A known way to make small, worse footage of the truth.
 *
 * @param divisor times smaller both ways
 * @param reducer kernel of the reduction, anti-aliased
 * @param blur standard deviation of a Gaussian blur before the reduction, samples of the truth, by FFmpeg's gblur
 * @param grain standard deviation of Gaussian noise added, of 255
 * @param crf of H.264, or below 0 for none
 */
public record Condition(String name, int divisor, Kernel reducer, double blur, double grain, int crf) {
    public static final Condition BICUBIC = new Condition("bicubic /2", 2, Kernel.CATMULL_ROM, 0, 0, -1);
    public static final Condition AREA = new Condition("area /2", 2, Kernel.AREA, 0, 0, -1);
    public static final Condition SOFT = new Condition("blurred by 0.7, bicubic /2", 2, Kernel.CATMULL_ROM, 0.7, 0, -1);
    public static final Condition THIRD = new Condition("bicubic /3", 3, Kernel.CATMULL_ROM, 0, 0, -1);
    public static final Condition QUARTER = new Condition("bicubic /4", 4, Kernel.CATMULL_ROM, 0, 0, -1);
    public static final Condition CRF_20 = new Condition("bicubic /2, H.264 CRF 20", 2, Kernel.CATMULL_ROM, 0, 0, 20);
    public static final Condition CRF_30 = new Condition("bicubic /2, H.264 CRF 30", 2, Kernel.CATMULL_ROM, 0, 0, 30);
    public static final Condition GRAIN =
            new Condition("bicubic /2, grain 8, H.264 CRF 25", 2, Kernel.CATMULL_ROM, 0, 8, 25);

    public String heading() {
        return Character.toUpperCase(name.charAt(0)) + name.substring(1);
    }

    /** The truth made smaller, in eight bits, with the faults. */
    public List<Plane> of(List<Plane> truth) {
        var random = new SplittableRandom(1);
        List<Plane> soft = blur > 0 ? Codec.filtered(truth, "gblur=sigma=" + blur) : truth;
        List<Plane> small = soft.stream()
                .map(t -> {
                    Plane p = Pictures.resized(t, t.width() / divisor, t.height() / divisor, reducer);
                    if (grain > 0) {
                        for (int i = 0; i < p.data().length; i++) {
                            p.data()[i] += (float) (random.nextGaussian() * grain / 255);
                        }
                    }
                    return Pictures.eightBits(p);
                })
                .toList();
        return crf < 0 ? small : Codec.through(small, "libx264 -preset medium -crf " + crf);
    }
}
