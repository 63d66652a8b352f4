package awlsmith.core.condition;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Where scenes begin, where frames repeat, where one flashes: all from how much each frame differs from the last. */
final class Cuts {
    /** Change of a hundredth of the range from black to white that a cut has at least, beyond what is usual there. */
    private static final double CUT = 7.5 / 100;
    /** Times the usual change around it. */
    private static final double ABOVE_USUAL = 3;
    /** Frames on each side that tell what is usual. */
    private static final int AROUND = 8;
    /** A repeat changes less than this share of what is usual there... */
    private static final double STILL = 0.2;
    /** ...and less than this at its worst block: 3.5 of 255, what a codec makes of the same picture twice. */
    private static final double STILL_BLOCK = 3.5 / 255;
    /** Below a usual change of 0.35 of 255 everything stands still and nothing is a repeat. */
    private static final double MOVING = 0.35 / 255;
    /** A flash is lighter than both neighbours by 12 of 255. */
    private static final double FLASH = 12.0 / 255;

    private Cuts() {}

    /** First frames of new scenes; the clip's first frame is none. */
    static List<Long> cuts(List<FrameNote> frames) {
        var cuts = new ArrayList<Long>();
        for (int n = 1; n < frames.size(); n++) {
            double change = frames.get(n).change().mean();
            double jump = n == 1
                    ? change
                    : Math.abs(change - frames.get(n - 1).change().mean());
            double score = Math.min(change, jump);
            boolean flash = n + 1 < frames.size() && isFlash(frames, n) || n > 1 && isFlash(frames, n - 1);
            boolean apart = cuts.isEmpty() || n - cuts.getLast() > 2;
            if (score > CUT && change > ABOVE_USUAL * usual(frames, n) && !flash && apart) {
                cuts.add((long) n);
            }
        }
        return cuts;
    }

    static List<Long> repeats(List<FrameNote> frames) {
        var repeats = new ArrayList<Long>();
        for (int n = 1; n < frames.size(); n++) {
            var change = frames.get(n).change();
            double usual = usual(frames, n);
            if (usual > MOVING && change.mean() < STILL * usual && change.worst() < STILL_BLOCK) {
                repeats.add((long) n);
            }
        }
        return repeats;
    }

    static List<Long> flashes(List<FrameNote> frames) {
        var flashes = new ArrayList<Long>();
        for (int n = 1; n + 1 < frames.size(); n++) {
            if (isFlash(frames, n)) {
                flashes.add((long) n);
            }
        }
        return flashes;
    }

    private static boolean isFlash(List<FrameNote> frames, int n) {
        double before = frames.get(n - 1).light();
        double after = frames.get(n + 1).light();
        double here = frames.get(n).light();
        return here - Math.max(before, after) > FLASH && Math.abs(before - after) < FLASH / 3;
    }

    /** The upper middle of the changes around a frame, itself left out: with every second frame a repeat, still motion. */
    private static double usual(List<FrameNote> frames, int n) {
        int from = Math.max(1, n - AROUND);
        int end = Math.min(frames.size(), n + AROUND + 1);
        double[] around = new double[end - from - 1];
        int i = 0;
        for (int k = from; k < end; k++) {
            if (k != n) {
                around[i++] = frames.get(k).change().mean();
            }
        }
        Arrays.sort(around);
        return around.length == 0 ? 0 : around[Math.min(around.length - 1, around.length * 6 / 10)];
    }
}
