package awlsmith.core.steady;

import awlsmith.core.steady.CameraPath.Kind;
import java.util.Arrays;
import java.util.function.DoublePredicate;

/**
 * Where the camera should have looked, and so where each steady picture lies in the shaken one.
 *
 * <p>Source: Y. Matsushita et al., "Full-frame video stabilization with motion inpainting", IEEE Trans. PAMI 28(7), 2006, for the way to the mean of the
 * neighbours, weighed by a bell, with nothing summed up over the clip (from memory); corners are what is averaged here, and at a scene's ends a line is fitted (W. S.
 * Cleveland, "Robust locally weighted regression", JASA 74, 1979, without the robust part; from memory).
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

    /**
     * How the horizon lies.
     *
     * @param degrees that the picture is turned clockwise, enlarged by as little as it takes to have no empty corner
     * @param level whether through a scene it leans as it does in the scene's mean, whatever way the rest goes
     */
    public record Horizon(double degrees, boolean level) {
        /** As it comes. */
        public static final Horizon AS_FILMED = new Horizon(0, false);

        /** Share of each side that is left when a turned picture has no empty corner. @param height of the picture, in its widths */
        public double kept(double height) {
            double sin = Math.abs(Math.sin(Math.toRadians(degrees)));
            double cos = Math.cos(Math.toRadians(degrees));
            return Math.min(1, Math.min(1 / (cos + height * sin), height / (sin + height * cos)));
        }

        /** @param height of the picture, in its widths */
        Warp turn(double height) {
            return Warp.similar(0, 0, -Math.toRadians(degrees), kept(height));
        }
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
    private final Horizon horizon;
    /** From the picture that is given to the one that is steady alone. */
    private final Warp turn;

    /** @param deviation of the bell, frames; @param rolling as {@link SteadyMoves} undoes it */
    public Smoothing(CameraPath path, Kind kind, double deviation, double rolling) {
        this(path, kind, deviation, rolling, Horizon.AS_FILMED);
    }

    public Smoothing(CameraPath path, Kind kind, double deviation, double rolling, Horizon horizon) {
        this.horizon = horizon;
        this.turn = horizon.turn(path.height());
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

    /**
     * The same, each scene enlarged by as little as it takes to fill the picture.
     *
     * @param rim share of each side that may be lost by it at most
     */
    public Moves filling(Way way, double rim) {
        Moves moves = moves(way, rim);
        Warp[] warps = moves.warps().clone();
        for (int s = 0; s < path.scenes().length; s++) {
            int from = path.scenes()[s];
            int end = path.end(s);
            double lost = 0;
            for (int n = from; n < end; n++) {
                lost = Math.max(lost, lost(n, warps[n].corners(path.height()), lost, rim));
            }
            Warp nearer = Warp.similar(0, 0, 0, 1 - 2 * lost);
            for (int n = from; n < end; n++) {
                warps[n] = nearer.then(warps[n]);
            }
        }
        return new Moves(warps, moves.held());
    }

    /** The least rim, from one that is lost already up to the most, within which a frame shows all. */
    private double lost(int frame, double[] corners, double least, double most) {
        double[] roll = SteadyMoves.roll(path, frame, rolling);
        return fits(corners, roll, 1, least) ? least : last(most, least, rim -> fits(corners, roll, 1, rim));
    }

    /** The last value that holds on the way from one that does to one that does not. */
    private static double last(double holds, double fails, DoublePredicate test) {
        double good = holds;
        double bad = fails;
        for (int i = 0; i < HALVINGS; i++) {
            double middle = (good + bad) / 2;
            if (test.test(middle)) {
                good = middle;
            } else {
                bad = middle;
            }
        }
        return good;
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
        if (horizon.level && kind != Kind.SHIFT) {
            level(corners);
        }
        for (int n = 0; n < corners.length; n++) {
            corners[n] = turn.then(Warp.ofCorners(corners[n], path.height())).corners(path.height());
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

    /** Each steady picture turned so that it leans against its frame by what the frame leans beside its scene's mean. */
    private void level(double[][] corners) {
        double[] turns = path.course()[2];
        for (int s = 0; s < path.scenes().length; s++) {
            int from = path.scenes()[s];
            int end = path.end(s);
            double mean = Arrays.stream(turns, from, end).average().orElse(0);
            for (int n = from; n < end; n++) {
                Warp warp = Warp.ofCorners(corners[n], path.height());
                corners[n] = Warp.similar(0, 0, turns[n] - mean - warp.angle(), 1)
                        .then(warp)
                        .corners(path.height());
            }
        }
    }

    /**
     * Corners of the frame laid on each frame around, and of each corner's way the straight line that is nearest, weighed by a bell: within a scene
     * that is their mean, at its ends neither the end itself nor what a pan leaves behind.
     */
    private void smooth(int from, int end, double[][] corners) {
        int reach = (int) Math.ceil(REACH * deviation);
        for (int n = from; n < end; n++) {
            var line = new Lines(n);
            line.add(n, Warp.NONE);
            Warp on = Warp.NONE;
            for (int m = n + 1; m <= Math.min(end - 1, n + reach); m++) {
                on = on.then(path.to(m, kind));
                line.add(m, on);
            }
            Warp back = Warp.NONE;
            for (int m = n - 1; m >= Math.max(from, n - reach); m--) {
                back = back.then(path.to(m + 1, kind).back());
                line.add(m, back);
            }
            corners[n] = steady(line.here());
        }
    }

    /** Straight lines through the corners' ways, weighed by how near in time they are. */
    private final class Lines {
        private final int frame;
        private final double[] sums = new double[8];
        private final double[] slopes = new double[8];
        private double weights;
        private double times;
        private double squares;

        Lines(int frame) {
            this.frame = frame;
        }

        void add(int m, Warp warp) {
            int d = m - frame;
            double weight = Math.exp(-d * d / (2 * deviation * deviation));
            double[] places = warp.corners(path.height());
            weights += weight;
            times += weight * d;
            squares += weight * d * d;
            for (int k = 0; k < 8; k++) {
                sums[k] += weight * places[k];
                slopes[k] += weight * d * places[k];
            }
        }

        /** Where the lines are at the frame. */
        double[] here() {
            double spread = weights * squares - times * times;
            double[] places = new double[8];
            for (int k = 0; k < 8; k++) {
                places[k] = spread > 0 ? (squares * sums[k] - times * slopes[k]) / spread : sums[k] / weights;
            }
            return places;
        }
    }

    /**
     * What lies at a place in this frame lies on the mean of its way at the place's mean: so the steady picture is the frame's own corners led to
     * their means, and its corner is seen where that lead comes from.
     */
    private double[] steady(double[] means) {
        return Warp.ofCorners(means, path.height()).back().corners(path.height());
    }

    /** All frames of a scene laid over its middle one; where they lie there is evened, or is one place. */
    private void fixed(int from, int end, Way way, double[][] corners) {
        int middle = (from + end) / 2;
        Warp[] there = new Warp[end - from];
        there[middle - from] = Warp.NONE;
        for (int n = middle + 1; n < end; n++) {
            there[n - from] = path.to(n, kind).back().then(there[n - 1 - from]);
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
                    .then(there[n - from].back())
                    .corners(path.height());
        }
    }

    /** The straight line nearest to a corner's places: its value at the middle frame, and what it gains in a frame. */
    private double[] line(Warp[] there, int k) {
        int middle = there.length / 2;
        double sum = 0;
        double times = 0;
        for (int i = 0; i < there.length; i++) {
            sum += there[i].corners(path.height())[k];
            times += i - middle;
        }
        double mean = sum / there.length;
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
        double[] rest = turn.corners(path.height());
        double[] out = new double[8];
        for (int k = 0; k < 8; k++) {
            out[k] = rest[k] + share * (corners[k] - rest[k]);
        }
        return out;
    }

    /** The largest share of a correction by which a picture within its rim stays in the frame. */
    private double fitting(int frame, double[] corners, double rim) {
        double[] roll = SteadyMoves.roll(path, frame, rolling);
        return fits(corners, roll, 1, rim) ? 1 : last(0, 1, share -> fits(corners, roll, share, rim));
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
