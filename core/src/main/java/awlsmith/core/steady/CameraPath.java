package awlsmith.core.steady;

import java.util.Arrays;

/**
 * Where what the camera shows lies in each frame, against the first one of its scene.
 *
 * @param x to the right, as a share of the picture's width; as many as frames
 * @param y down, as a share of its height
 * @param scenes numbers of first frames of scenes, rising, beginning with 0
 */
public record CameraPath(double[] x, double[] y, int[] scenes) {
    /** Widths of the bell that are summed on each side; beyond it is next to nothing. */
    private static final int REACH = 3;

    public CameraPath {
        if (x.length != y.length || (x.length > 0 && (scenes.length == 0 || scenes[0] != 0))) {
            throw new IllegalArgumentException(
                    x.length + " and " + y.length + " places in " + scenes.length + " scenes make no path");
        }
    }

    /** Frames that were looked at. */
    public int frames() {
        return x.length;
    }

    /**
     * How far each frame has to be moved so that the path becomes the mean of itself over a time, weighed by a bell; near the ends of
     * a scene the path is taken to go on as it is mirrored there.
     *
     * @param deviation of the bell, frames
     * @param most share of a side that a frame may be moved
     * @return for each frame across and down, as shares of the sides
     */
    public double[][] corrections(double deviation, double most) {
        double[][] moves = new double[2][frames()];
        for (int s = 0; s < scenes.length; s++) {
            int from = scenes[s];
            int end = s + 1 < scenes.length ? scenes[s + 1] : frames();
            correct(x, from, end, deviation, most, moves[0]);
            correct(y, from, end, deviation, most, moves[1]);
        }
        return moves;
    }

    private static void correct(double[] path, int from, int end, double deviation, double most, double[] moves) {
        int reach = (int) Math.ceil(REACH * deviation);
        double[] bell = new double[reach + 1];
        for (int d = 0; d <= reach; d++) {
            bell[d] = Math.exp(-d * d / (2 * deviation * deviation));
        }
        for (int n = from; n < end; n++) {
            double sum = 0;
            double weights = 0;
            for (int d = -reach; d <= reach; d++) {
                sum += bell[Math.abs(d)] * at(path, n + d, from, end);
                weights += bell[Math.abs(d)];
            }
            moves[n] = Math.clamp(sum / weights - path[n], -most, most);
        }
    }

    /** Beyond a scene's ends its path is turned about its end, so that one that runs steadily runs on. */
    private static double at(double[] path, int n, int from, int end) {
        int last = end - 1;
        if (n < from) {
            return 2 * path[from] - path[Math.min(last, 2 * from - n)];
        }
        if (n > last) {
            return 2 * path[last] - path[Math.max(from, 2 * last - n)];
        }
        return path[n];
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof CameraPath path
                && Arrays.equals(x, path.x)
                && Arrays.equals(y, path.y)
                && Arrays.equals(scenes, path.scenes);
    }

    @Override
    public int hashCode() {
        return 31 * Arrays.hashCode(x) + Arrays.hashCode(y);
    }

    @Override
    public String toString() {
        return "CameraPath of " + frames() + " frames in " + scenes.length + " scenes";
    }
}
