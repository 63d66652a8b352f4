package awlsmith.core.steady;

import awlsmith.core.steady.CameraPath.Kind;
import java.util.Arrays;

/**
 * Where the camera should have looked, and so where each steady picture lies in the shaken one.
 *
 * <p>Source: Y. Matsushita et al., "Full-frame video stabilization with motion inpainting", IEEE Trans. PAMI 28(7), 2006, for the way to the mean of the
 * neighbours, weighed by a bell, with nothing summed up over the clip (from memory); corners are what is averaged here.
 */
public final class Smoothing {
    /** What is made of the way the camera went. */
    public enum Way {
        /** Quick movements go, slow ones stay. */
        SMOOTH,
        /** One even movement over each scene. */
        SWEEP,
        /** All is as in the middle of its scene. */
        STILL
    }

    /** Widths of the bell that are summed on each side; beyond it is next to nothing. */
    private static final int REACH = 3;
    /** Halvings by which it is found how much of a correction fits. */
    private static final int HALVINGS = 20;
    /** Frames over which a correction that does not fit is eased, each way, as a share of the bell's width. */
    private static final double EASED = 0.5;

    private final CameraPath path;
    private final Kind kind;
    private final double deviation;
    private final double rolling;

    /** @param deviation of the bell, frames; @param rolling as {@link SteadyMoves} undoes it */
    public Smoothing(CameraPath path, Kind kind, double deviation, double rolling) {
        this.path = path;
        this.kind = kind;
        this.deviation = deviation;
        this.rolling = rolling;
    }

    /**
     * @param warps for each frame: where a place of the steady picture lies in the frame
     * @param held share of each correction that was kept so that the picture stays within its rim, 1 where all
     */
    public record Moves(Warp[] warps, double[] held) {
        /** Frames whose correction had to be less than wanted. */
        public int cramped() {
            return (int) Arrays.stream(held).filter(one -> one < 0.999).count();
        }
    }

    /** @param rim share of each side that a steady picture may lie beyond the frame's middle part, and at most does */
    public Moves moves(Way way, double rim) {
        double[][] corners = new double[path.frames()][];
        for (int s = 0; s < path.scenes().length; s++) {
            int from = path.scenes()[s];
            int end = path.end(s);
            if (way == Way.SMOOTH) {
                smooth(from, end, corners);
            } else {
                fixed(from, end, way, corners);
            }
        }
        double[] held = new double[path.frames()];
        for (int n = 0; n < held.length; n++) {
            held[n] = fitting(n, corners[n], rim);
        }
        for (int s = 0; s < path.scenes().length; s++) {
            ease(held, path.scenes()[s], path.end(s));
        }
        Warp[] warps = new Warp[path.frames()];
        for (int n = 0; n < warps.length; n++) {
            warps[n] = Warp.ofCorners(between(corners[n], held[n]), path.height());
        }
        return new Moves(warps, held);
    }

    /** Corners of the frame laid on each frame around, their mean by a bell; beyond a scene's ends the way is turned about its end. */
    private void smooth(int from, int end, double[][] corners) {
        int reach = (int) Math.ceil(REACH * deviation);
        double[] rest = Warp.NONE.corners(path.height());
        for (int n = from; n < end; n++) {
            double[][] places = new double[2 * reach + 1][];
            int low = Math.max(from, n - reach);
            int high = Math.min(end - 1, n + reach);
            places[reach] = rest;
            Warp on = Warp.NONE;
            for (int m = n + 1; m <= high; m++) {
                on = on.then(path.to(m, kind));
                places[reach + m - n] = on.corners(path.height());
            }
            Warp back = Warp.NONE;
            for (int m = n - 1; m >= low; m--) {
                back = back.then(path.to(m + 1, kind).inverse());
                places[reach + m - n] = back.corners(path.height());
            }
            double[] sum = new double[8];
            double weights = 0;
            for (int d = -reach; d <= reach; d++) {
                double weight = Math.exp(-d * d / (2 * deviation * deviation));
                weights += weight;
                for (int k = 0; k < 8; k++) {
                    sum[k] += weight * at(places, n + d, n, low, high, reach, k, from, end);
                }
            }
            for (int k = 0; k < 8; k++) {
                sum[k] /= weights;
            }
            corners[n] = steady(sum);
        }
    }

    private static double at(double[][] places, int m, int n, int low, int high, int reach, int k, int from, int end) {
        if (m >= low && m <= high) {
            return places[reach + m - n][k];
        }
        int last = m < low ? from : end - 1;
        int mirrored = Math.clamp(2L * last - m, low, high);
        return 2 * places[reach + last - n][k] - places[reach + mirrored - n][k];
    }

    /**
     * What lies at a place in this frame lies on the mean of its way at the place's mean: so the steady picture is the frame's own corners led to
     * their means, and its corner is seen where that lead comes from.
     */
    private double[] steady(double[] means) {
        return inverse(Warp.ofCorners(means, path.height())).corners(path.height());
    }

    private static Warp inverse(Warp warp) {
        try {
            return warp.inverse();
        } catch (ArithmeticException e) {
            return Warp.NONE;
        }
    }

    /** All frames of a scene laid over its middle one; where they lie there is evened, or is one place. */
    private void fixed(int from, int end, Way way, double[][] corners) {
        int middle = (from + end) / 2;
        Warp[] there = new Warp[end - from];
        there[middle - from] = Warp.NONE;
        for (int n = middle + 1; n < end; n++) {
            there[n - from] = inverse(path.to(n, kind)).then(there[n - 1 - from]);
        }
        for (int n = middle - 1; n >= from; n--) {
            there[n - from] = path.to(n + 1, kind).then(there[n + 1 - from]);
        }
        double[][] lines = new double[8][];
        for (int k = 0; k < 8; k++) {
            lines[k] =
                    way == Way.SWEEP ? line(there, k) : new double[] {Warp.NONE.corners(path.height())[k], 0};
        }
        for (int n = from; n < end; n++) {
            double[] wanted = new double[8];
            for (int k = 0; k < 8; k++) {
                wanted[k] = lines[k][0] + lines[k][1] * (n - middle);
            }
            // from the steady picture to the middle frame, and from there to this one
            corners[n] = Warp.ofCorners(wanted, path.height())
                    .then(inverse(there[n - from]))
                    .corners(path.height());
        }
    }

    /** The straight line nearest to a corner's places: its value at the middle frame, and what it gains in a frame. */
    private double[] line(Warp[] there, int k) {
        int middle = there.length / 2;
        double sum = 0;
        double mean = 0;
        double times = 0;
        for (int i = 0; i < there.length; i++) {
            sum += there[i].corners(path.height())[k];
            times += i - middle;
        }
        mean = sum / there.length;
        double at = times / there.length;
        double along = 0;
        double spread = 0;
        for (int i = 0; i < there.length; i++) {
            double d = i - middle - at;
            along += d * (there[i].corners(path.height())[k] - mean);
            spread += d * d;
        }
        double slope = spread > 0 ? along / spread : 0;
        return new double[] {mean - slope * at, slope};
    }

    private double[] between(double[] corners, double share) {
        double[] rest = Warp.NONE.corners(path.height());
        double[] out = new double[8];
        for (int k = 0; k < 8; k++) {
            out[k] = rest[k] + share * (corners[k] - rest[k]);
        }
        return out;
    }

    /** The largest share of a correction by which a picture within its rim stays in the frame. */
    private double fitting(int frame, double[] corners, double rim) {
        double[] roll = SteadyMoves.roll(path, frame, rolling);
        if (fits(corners, roll, 1, rim)) {
            return 1;
        }
        double good = 0;
        double bad = 1;
        for (int i = 0; i < HALVINGS; i++) {
            double middle = (good + bad) / 2;
            if (fits(corners, roll, middle, rim)) {
                good = middle;
            } else {
                bad = middle;
            }
        }
        return good;
    }

    private boolean fits(double[] corners, double[] roll, double share, double rim) {
        Warp warp = Warp.ofCorners(between(corners, share), path.height());
        double inX = 0.5 - rim;
        double inY = (0.5 - rim) * path.height();
        for (int[] sign : Warp.CORNERS) {
            double x = sign[0] * inX;
            double y = sign[1] * inY;
            double down = warp.y(x, y);
            // what the rows' time moves cannot be helped, at rest neither
            double most = 0.5 + (share == 0 ? 1 : 0);
            if (!(Math.abs(warp.x(x, y) + roll[0] * down) <= most
                    && Math.abs(down + roll[1] * down) <= most * path.height())) {
                return false;
            }
        }
        return true;
    }

    /** What must be less somewhere is less around too, so that nothing jerks there. */
    private void ease(double[] held, int from, int end) {
        int reach = (int) Math.ceil(EASED * deviation);
        double[] least = new double[end - from];
        for (int n = from; n < end; n++) {
            least[n - from] = 1;
            for (int m = Math.max(from, n - reach); m <= Math.min(end - 1, n + reach); m++) {
                least[n - from] = Math.min(least[n - from], held[m]);
            }
        }
        for (int n = from; n < end; n++) {
            double sum = 0;
            int count = 0;
            for (int m = Math.max(from, n - reach); m <= Math.min(end - 1, n + reach); m++) {
                sum += least[m - from];
                count++;
            }
            held[n] = sum / count;
        }
    }
}
