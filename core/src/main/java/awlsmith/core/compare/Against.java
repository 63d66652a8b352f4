package awlsmith.core.compare;

import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.picture.Plane;

/**
 * A picture held against the truth.
 *
 * @param psnr of luma in decibels, infinite for equal pictures
 * @param ssim of luma, 1 for equal pictures
 */
public record Against(double psnr, double ssim) {
    /** Samples left out along each edge, where treatments have to guess. */
    public static final int BORDER = 4;

    /** @param truth luma, at least 19x19; @param made of the same size */
    public static Against of(Plane truth, Plane made) {
        return new Against(Psnr.of(truth, made, BORDER), Ssim.of(truth, made, BORDER));
    }
}
