package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import awlsmith.core.steady.CameraFit;
import awlsmith.core.steady.CameraPath;
import awlsmith.core.steady.RollingShutter;
import awlsmith.core.steady.Warp;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** Finds the way of the camera from frame to frame, at a small size, whatever else moves before it. */
final class FollowCamera implements Analysis<CameraPath> {
    /** Samples across at most. */
    private static final int WIDEST = 640;
    /** Mean difference between frames of two scenes, of full scale... */
    private static final double CUT = 0.04;
    /** ...and how torn their motion is: within scenes it is a tenth at most, between them half. */
    private static final double TORN = 0.3;
    /** Places are kept to a ten-millionth of the width. */
    private static final double KEPT = 1e7;

    @Override
    public String id() {
        return "camera-path/2";
    }

    @Override
    public String doing() {
        return "following the camera";
    }

    @Override
    public Fold<CameraPath> begin(Format input, Timing times) {
        return new Follower(input.sar().toDouble());
    }

    @Override
    public Map<String, Object> toTree(CameraPath path) {
        return Map.of(
                "turned",
                path.turned().stream()
                        .flatMap(warp -> Stream.of(warp.a(), warp.b(), warp.c(), warp.f()))
                        .toList(),
                "seen",
                path.seen().stream().flatMap(FollowCamera::numbers).toList(),
                "scenes",
                Arrays.stream(path.scenes()).boxed().toList(),
                "rolling",
                path.rolling(),
                "height",
                path.height());
    }

    private static Stream<Double> numbers(Warp warp) {
        return Stream.of(warp.a(), warp.b(), warp.c(), warp.d(), warp.e(), warp.f(), warp.g(), warp.h());
    }

    @Override
    public CameraPath fromTree(Map<?, ?> tree) {
        return new CameraPath(
                turned(tree),
                seen(tree),
                Arrays.stream(numbers(tree, "scenes")).mapToInt(n -> (int) n).toArray(),
                number(tree.get("rolling")),
                number(tree.get("height")));
    }

    private static List<Warp> turned(Map<?, ?> tree) {
        double[] n = numbers(tree, "turned");
        var warps = new ArrayList<Warp>();
        for (int i = 0; i + 3 < n.length; i += 4) {
            warps.add(new Warp(n[i], n[i + 1], n[i + 2], -n[i + 1], n[i], n[i + 3], 0, 0));
        }
        return warps;
    }

    private static List<Warp> seen(Map<?, ?> tree) {
        double[] n = numbers(tree, "seen");
        var warps = new ArrayList<Warp>();
        for (int i = 0; i + 7 < n.length; i += 8) {
            warps.add(new Warp(n[i], n[i + 1], n[i + 2], n[i + 3], n[i + 4], n[i + 5], n[i + 6], n[i + 7]));
        }
        return warps;
    }

    private static double[] numbers(Map<?, ?> tree, String key) {
        if (!(tree.get(key) instanceof List<?> list)) {
            throw new IllegalArgumentException("a camera's path has a list '" + key + "'");
        }
        return list.stream().mapToDouble(FollowCamera::number).toArray();
    }

    private static double number(Object item) {
        if (item instanceof Number number && Double.isFinite(number.doubleValue())) {
            return number.doubleValue();
        }
        throw new IllegalArgumentException("'" + item + "' is no number of a camera's path");
    }

    private static final class Follower implements Fold<CameraPath> {
        private final List<Warp> turned = new ArrayList<>();
        private final List<Warp> seen = new ArrayList<>();
        private final List<CameraFit> fits = new ArrayList<>();
        private final List<Integer> scenes = new ArrayList<>();
        private final double shape;
        private double height;
        private Plane before;

        Follower(double shape) {
            this.shape = shape;
        }

        @Override
        public void see(Frame frame, Work work) {
            Plane here = small(frame.light(), work);
            height = here.height() / (here.width() * shape);
            int n = turned.size();
            CameraFit fit = CameraFit.NONE;
            if (n == 0) {
                scenes.add(0);
            } else {
                fit = CameraFit.between(before, here, shape, work);
                // a jerk changes as much as a cut does, but its motion is whole
                if (fit.torn() > TORN && difference(before, here) > CUT && n - scenes.getLast() > 2) {
                    scenes.add(n);
                    fit = CameraFit.NONE;
                }
            }
            fits.add(fit);
            turned.add(kept(fit.turned()));
            seen.add(kept(fit.seen()));
            before = here;
        }

        private static Warp kept(Warp w) {
            return new Warp(
                    kept(w.a()),
                    kept(w.b()),
                    kept(w.c()),
                    kept(w.d()),
                    kept(w.e()),
                    kept(w.f()),
                    kept(w.g()),
                    kept(w.h()));
        }

        private static double kept(double value) {
            return Math.rint(value * KEPT) / KEPT;
        }

        @Override
        public CameraPath found() {
            int[] starts = scenes.stream().mapToInt(Integer::intValue).toArray();
            var path = new CameraPath(turned, seen, starts, 0, height);
            return new CameraPath(turned, seen, starts, kept(RollingShutter.of(fits, path)), height);
        }

        /** One sample for the mean of as many as it takes. */
        private static Plane small(Plane from, Work work) {
            int step = Math.max(1, Math.ceilDiv(from.width(), WIDEST));
            Plane to = Plane.of(Math.max(1, from.width() / step), Math.max(1, from.height() / step));
            work.bands(to.height(), 16, (first, end) -> {
                for (int row = first; row < end; row++) {
                    for (int j = 0; j < step; j++) {
                        int at = from.row(Math.min(from.height() - 1, row * step + j));
                        int into = to.row(row);
                        for (int column = 0; column < to.width(); column++) {
                            float sum = 0;
                            for (int i = 0; i < step; i++) {
                                sum += from.data()[at + column * step + i];
                            }
                            to.data()[into + column] += sum / (step * step);
                        }
                    }
                }
            });
            return to;
        }

        private static double difference(Plane a, Plane b) {
            double sum = 0;
            for (int row = 0; row < a.height(); row += 2) {
                for (int column = 0; column < a.width(); column += 2) {
                    sum += Math.abs(a.at(column, row) - b.at(column, row));
                }
            }
            return sum / Math.max(1, Math.ceilDiv(a.width(), 2) * Math.ceilDiv(a.height(), 2));
        }
    }
}
