package awlsmith.core.condition;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

/**
 * A place where frames are missing.
 *
 * @param frame the first one behind it
 * @param lost how many are missing there
 * @param byClock whether the file's own times tell; else a steady motion that leaps by a whole number of its steps
 */
public record Dropped(long frame, int lost, boolean byClock) {
    /** Frames on each side whose motion tells what a step is. */
    private static final int AROUND = 3;
    /** Shifts trusted less say nothing. */
    private static final double TRUST = 0.45;
    /** Steps shorter than this, in samples, are too easily mistaken. */
    private static final double LEAST_STEP = 1.5;
    /** How far steps may be from their mean, and a leap from a whole number of them. */
    private static final double EVEN = 0.2;

    private static final int LONGEST_LEAP = 4;
    /** Times a usual step beyond which frames are missing, and the share of such steps that is a rhythm instead. */
    private static final double GAP = 1.6;

    private static final double RHYTHM = 0.2;

    static List<Dropped> among(List<FrameNote> frames, List<Long> cuts) {
        var found = new ArrayList<Dropped>();
        double step = medianStep(frames);
        Set<Long> scenes = Set.copyOf(cuts);
        boolean steady = gaps(frames, step) <= RHYTHM * frames.size();
        for (int n = 1; n < frames.size(); n++) {
            double gap =
                    step <= 0 ? 1 : (frames.get(n).time() - frames.get(n - 1).time()) / step;
            int lost = (int) Math.round(gap) - 1;
            if (gap > GAP) {
                // a file whose frames last as they like has lost none
                if (steady) {
                    found.add(new Dropped(n, lost, true));
                }
            } else if (!scenes.contains((long) n)) {
                int leap = leap(frames, n);
                if (leap > 1) {
                    found.add(new Dropped(n, leap - 1, false));
                }
            }
        }
        return found;
    }

    private static long gaps(List<FrameNote> frames, double step) {
        long gaps = 0;
        for (int n = 1; n < frames.size(); n++) {
            gaps += frames.get(n).time() - frames.get(n - 1).time() > GAP * step ? 1 : 0;
        }
        return gaps;
    }

    private static double medianStep(List<FrameNote> frames) {
        double[] steps = new double[Math.max(0, frames.size() - 1)];
        for (int n = 1; n < frames.size(); n++) {
            steps[n - 1] = frames.get(n).time() - frames.get(n - 1).time();
        }
        Arrays.sort(steps);
        return steps.length == 0 ? 0 : steps[steps.length / 2];
    }

    /** How many steps of the motion around it a frame's shift holds; 1 where nothing is odd or nothing can be told. */
    private static int leap(List<FrameNote> frames, int n) {
        double dx = 0;
        double dy = 0;
        int count = 0;
        for (int k = -AROUND; k <= AROUND; k++) {
            int at = n + k;
            if (k != 0
                    && (at < 1 || at >= frames.size() || frames.get(at).shift().trust() < TRUST)) {
                return 1;
            }
            if (k != 0) {
                dx += frames.get(at).shift().dx();
                dy += frames.get(at).shift().dy();
                count++;
            }
        }
        dx /= count;
        dy /= count;
        double step = Math.hypot(dx, dy);
        if (step < LEAST_STEP) {
            return 1;
        }
        for (int k = -AROUND; k <= AROUND; k++) {
            var shift = frames.get(n + k).shift();
            if (k != 0 && Math.hypot(shift.dx() - dx, shift.dy() - dy) > EVEN * step) {
                return 1;
            }
        }
        var here = frames.get(n).shift();
        double along = (here.dx() * dx + here.dy() * dy) / (step * step);
        double beside = Math.abs(here.dx() * dy - here.dy() * dx) / (step * step);
        int steps = (int) Math.round(along);
        boolean whole = Math.abs(along - steps) < EVEN && beside < EVEN && here.trust() >= TRUST;
        return whole && steps >= 2 && steps <= LONGEST_LEAP ? steps : 1;
    }
}
