package awlsmith.core.steady;

import java.util.List;

/**
 * How long a sensor takes to read its rows, told by the clip itself: while the camera's speed changes, rows lean by the share of that change that falls
 * between the first row and the last. (That rows are read one after the other is C.-K. Liang et al., "Analysis and compensation of rolling shutter
 * effect", IEEE Trans. Image Processing 17(8), 2008, from memory; the fit over the clip is ours.)
 */
public final class RollingShutter {
    /** Frames that must tell. */
    private static final int LEAST = 12;
    /** Mean squared change of speed, widths a frame, below which nothing leans. */
    private static final double SHAKEN = 4e-7;
    /** Correlation of leaning with the change of speed that is believed. */
    private static final double BELIEVED = 0.5;

    private RollingShutter() {}

    /**
     * @param fits for each frame, from the one before
     * @param path of the same frames
     * @return 0..1, the share of the time from frame to frame; 0 where the clip does not tell
     */
    public static double of(List<CameraFit> fits, CameraPath path) {
        double both = 0;
        double changes = 0;
        double leans = 0;
        int count = 0;
        for (int n = 3; n + 2 < path.frames(); n++) {
            if (path.isOneScene(n - 3, n + 2)) {
                CameraFit here = fits.get(n);
                double[] before = path.speed(n - 1);
                double[] after = path.speed(n);
                double across = after[0] - before[0];
                double down = after[1] - before[1];
                both += across * here.lean() + down * here.stretch();
                changes += across * across + down * down;
                leans += here.lean() * here.lean() + here.stretch() * here.stretch();
                count++;
            }
        }
        if (count < LEAST || changes / count < SHAKEN || both / Math.sqrt(changes * leans) < BELIEVED) {
            return 0;
        }
        return Math.clamp(path.height() * both / changes, 0, 1);
    }
}
