package awlsmith.core.steady;

import awlsmith.core.steady.CameraPath.Kind;
import java.util.Optional;

/**
 * Where each steady picture lies in its frame.
 *
 * @param path that was taken; empty while it is not known
 * @param kind of movement that is taken out
 * @param warps for each frame, from the steady picture to it
 * @param rolling share of the time from frame to frame in which a frame's rows were read, to be undone
 */
public record SteadyMoves(Optional<CameraPath> path, Kind kind, Warp[] warps, double rolling) {
    /** Nothing is known yet, and nothing moves. */
    public static final SteadyMoves NONE = new SteadyMoves(Optional.empty(), Kind.SHIFT, new Warp[0], 0);

    private static final double[] STILL = new double[2];

    /** Frames that are moved. */
    public int count() {
        return warps.length;
    }

    Warp warp(long frame) {
        return frame >= 0 && frame < warps.length ? warps[(int) frame] : Warp.NONE;
    }

    /** How far rows lie off, across and down, for each width that they are below the middle. */
    double[] roll(long frame) {
        return frame >= 0 && frame < warps.length ? roll(path.orElseThrow(), (int) frame, rolling) : STILL;
    }

    static double[] roll(CameraPath path, int frame, double rolling) {
        if (rolling == 0) {
            return STILL;
        }
        double[] speed = path.speed(frame);
        return new double[] {speed[0] * rolling / path.height(), speed[1] * rolling / path.height()};
    }

    boolean isOneScene(long one, long other) {
        long low = Math.min(one, other);
        long high = Math.max(one, other);
        return low >= 0 && high < warps.length && path.orElseThrow().isOneScene(low, high);
    }

    /** Where a place of a frame lies in the frame some way off, of the same scene. */
    Warp between(long frame, int off) {
        Warp way = Warp.NONE;
        for (int k = 1; k <= Math.abs(off); k++) {
            way = off > 0
                    ? way.then(path.orElseThrow().to((int) frame + k, kind))
                    : way.then(path.orElseThrow().to((int) frame - k + 1, kind).back());
        }
        return way;
    }
}
