package awlsmith.core.compare;

import awlsmith.core.measure.GlobalShift;
import awlsmith.core.picture.Plane;

/**
 * How far a picture jerks: the way from the first of three frames to the second held against that from the second to the
 * third. A steady pan has none, a shaken one much (common practice, no source).
 */
public final class Unsteadiness {
    /** Matches this poor say nothing: there was no common motion. */
    private static final double LEAST_TRUST = 0.2;

    private Unsteadiness() {}

    /**
     * @param first luma of three frames in a row, all of one size
     * @return samples by which the middle frame lies beside its steady place; NaN where no motion of the whole can be told
     */
    public static double of(Plane first, Plane second, Plane third) {
        var middle = GlobalShift.Profiles.of(second);
        GlobalShift before = GlobalShift.between(GlobalShift.Profiles.of(first), middle);
        GlobalShift after = GlobalShift.between(middle, GlobalShift.Profiles.of(third));
        if (Math.min(before.trust(), after.trust()) < LEAST_TRUST) {
            return Double.NaN;
        }
        // the middle one is off by half of how much the two ways differ
        return Math.hypot(before.dx() - after.dx(), before.dy() - after.dy()) / 2;
    }
}
