package awlsmith.core.recipe;

import awlsmith.core.measure.GlobalShift;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import awlsmith.core.steady.CameraPath;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Finds the way of the camera: how far the whole picture moves from frame to frame, at a small size. */
final class FollowCamera implements Analysis<CameraPath> {
    /** Samples across at most; a quarter of a sample there is what the shift is good to. */
    private static final int WIDEST = 960;
    /** Shifts the measure does not trust count as none, as when the clip is examined. */
    private static final double TRUSTED = 0.3;
    /** Mean difference between frames of two scenes, of full scale, and how many times that of the frames before. */
    private static final double CUT = 0.06;

    private static final double ABOVE_LAST = 3;

    @Override
    public String id() {
        return "camera-path/1";
    }

    @Override
    public String doing() {
        return "following the camera";
    }

    @Override
    public Fold<CameraPath> begin(Format input, Timing times) {
        return new Follower();
    }

    @Override
    public Map<String, Object> toTree(CameraPath path) {
        return Map.of(
                "x", java.util.Arrays.stream(path.x()).boxed().toList(),
                "y", java.util.Arrays.stream(path.y()).boxed().toList(),
                "scenes", java.util.Arrays.stream(path.scenes()).boxed().toList());
    }

    @Override
    public CameraPath fromTree(Map<?, ?> tree) {
        return new CameraPath(
                numbers(tree, "x"),
                numbers(tree, "y"),
                java.util.Arrays.stream(numbers(tree, "scenes"))
                        .mapToInt(n -> (int) n)
                        .toArray());
    }

    private static double[] numbers(Map<?, ?> tree, String key) {
        if (!(tree.get(key) instanceof List<?> list)) {
            throw new IllegalArgumentException("a camera's path has a list '" + key + "'");
        }
        return list.stream()
                .mapToDouble(item -> {
                    if (item instanceof Number number && Double.isFinite(number.doubleValue())) {
                        return number.doubleValue();
                    }
                    throw new IllegalArgumentException("'" + item + "' is no place of a camera's path");
                })
                .toArray();
    }

    private static final class Follower implements Fold<CameraPath> {
        private final List<Double> x = new ArrayList<>();
        private final List<Double> y = new ArrayList<>();
        private final List<Integer> scenes = new ArrayList<>();
        private Plane before;
        private GlobalShift.Profiles profiles;
        private double change;

        @Override
        public void see(Frame frame, Work work) {
            Plane here = small(frame.light(), work);
            GlobalShift.Profiles now = GlobalShift.Profiles.of(here);
            int n = x.size();
            if (n == 0) {
                scenes.add(0);
                x.add(0.0);
                y.add(0.0);
            } else {
                double differs = difference(before, here);
                boolean cut = differs > CUT && differs > ABOVE_LAST * change && n - scenes.getLast() > 2;
                change = differs;
                GlobalShift shift = GlobalShift.between(profiles, now);
                boolean trusted = shift.trust() > TRUSTED && !cut;
                double dx = trusted ? refined(profiles.columns(), now.columns(), shift.dx()) : 0;
                double dy = trusted ? refined(profiles.rows(), now.rows(), shift.dy()) : 0;
                x.add(cut ? 0 : x.getLast() + dx / here.width());
                y.add(cut ? 0 : y.getLast() + dy / here.height());
                if (cut) {
                    scenes.add(n);
                    change = 0;
                }
            }
            before = here;
            profiles = now;
        }

        @Override
        public CameraPath found() {
            return new CameraPath(
                    x.stream().mapToDouble(Double::doubleValue).toArray(),
                    y.stream().mapToDouble(Double::doubleValue).toArray(),
                    scenes.stream().mapToInt(Integer::intValue).toArray());
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

        /** Passes over a shift; each takes most of what is left of its error away. */
        private static final int PASSES = 4;

        /**
         * A shift of sums between samples: by Gauss and Newton's way to where the squared difference of the slopes is least (common
         * practice, no source). Where it leads far away the first guess stays.
         */
        private static double refined(float[] before, float[] here, double guess) {
            double shift = guess;
            for (int pass = 0; pass < PASSES; pass++) {
                double wrong = 0;
                double steep = 0;
                int from = (int) Math.max(2, Math.ceil(shift) + 3);
                int end = (int) Math.min(here.length - 2, before.length + Math.floor(shift) - 3);
                for (int i = from; i < end; i++) {
                    double left = slope(before, i - shift - 0.5);
                    double right = slope(before, i - shift + 0.5);
                    double change = right - left;
                    wrong += (here[i] - here[i - 1] - slope(before, i - shift)) * change;
                    steep += change * change;
                }
                if (steep <= 0) {
                    return guess;
                }
                shift -= wrong / steep;
            }
            return Math.abs(shift - guess) <= 1 ? shift : guess;
        }

        /** Of the sums between at - 1 and at, a place between samples. */
        private static double slope(float[] sums, double at) {
            int i = (int) Math.floor(at);
            double share = at - i;
            return (1 - share) * (sums[i] - sums[i - 1]) + share * (sums[i + 1] - sums[i]);
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
