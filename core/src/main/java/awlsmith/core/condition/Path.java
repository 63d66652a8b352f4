package awlsmith.core.condition;

import java.util.HashSet;
import java.util.List;

/** How far the picture is from where a steady hand would have kept it. */
final class Path {
    /** Shifts the measure does not trust count as none. */
    private static final double TRUSTED = 0.3;

    private Path() {}

    /**
     * Distance, in percent of the picture's width, of each frame's place from the mean place over about a second around it
     * within its scene.
     */
    static float[] shake(List<FrameNote> frames, List<Long> cuts, double rate, int width) {
        int count = frames.size();
        double[] x = new double[count];
        double[] y = new double[count];
        var scenes = new HashSet<>(cuts);
        for (int n = 1; n < count; n++) {
            var shift = frames.get(n).shift();
            boolean trusted = shift.trust() > TRUSTED && !scenes.contains((long) n);
            x[n] = x[n - 1] + (trusted ? shift.dx() : 0);
            y[n] = y[n - 1] + (trusted ? shift.dy() : 0);
        }
        int half = (int) Math.max(2, Math.round(rate / 2));
        float[] shake = new float[count];
        int begin = 0;
        for (int n = 0; n < count; n++) {
            if (scenes.contains((long) n)) {
                begin = n;
            }
            int end = n + 1;
            while (end < count && end <= n + half && !scenes.contains((long) end)) {
                end++;
            }
            int reach = Math.min(n - Math.max(begin, n - half), end - 1 - n);
            if (reach < 2) {
                continue;
            }
            double meanX = 0;
            double meanY = 0;
            for (int k = n - reach; k <= n + reach; k++) {
                meanX += x[k];
                meanY += y[k];
            }
            int window = 2 * reach + 1;
            shake[n] = (float) (100 * Math.hypot(x[n] - meanX / window, y[n] - meanY / window) / width);
        }
        return shake;
    }
}
