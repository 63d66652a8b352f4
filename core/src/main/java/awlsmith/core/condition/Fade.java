package awlsmith.core.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A scene that comes out of black or white, or goes into it.
 *
 * @param from first frame whose light changes, @param end the frame behind the last
 * @param in whether the scene appears
 * @param black whether it is black that it comes from or goes to, else white
 */
public record Fade(long from, long end, boolean in, boolean black) {
    /** Mean luma at or below which a frame is black, and at or above which it is white: near the ends of the range. */
    private static final double BLACK = 0.035;

    private static final double WHITE = 0.94;
    /** Light that a fade changes at least, and frames it lasts; what is quicker is a cut. */
    private static final double LEAST = 0.08;

    private static final int SHORTEST = 6;
    /** A frame in a fade may stand still once, as rounding and noise make it. */
    private static final double STILL = 0.0008;
    /** Share of a fade's mean step below which a step at its ends is not its own. */
    private static final double SLOW = 0.3;

    static List<Fade> among(List<FrameNote> frames) {
        var fades = new ArrayList<Fade>();
        int n = 1;
        while (n < frames.size()) {
            int way = way(frames, n);
            int end = n;
            while (way != 0 && end < frames.size() && goesOn(frames, end, way)) {
                end++;
            }
            if (end - n >= SHORTEST) {
                fade(frames, n, end, way).ifPresent(fades::add);
                n = end;
            } else {
                n++;
            }
        }
        return fades;
    }

    private static double step(List<FrameNote> frames, int n) {
        return Math.abs(frames.get(n).light() - frames.get(n - 1).light());
    }

    private static int way(List<FrameNote> frames, int n) {
        double step = frames.get(n).light() - frames.get(n - 1).light();
        return Math.abs(step) < STILL ? 0 : step > 0 ? 1 : -1;
    }

    private static boolean goesOn(List<FrameNote> frames, int n, int way) {
        int here = way(frames, n);
        return here == way || here == 0 && n + 1 < frames.size() && way(frames, n + 1) == way;
    }

    private static Optional<Fade> fade(List<FrameNote> frames, int begun, int stopped, int way) {
        double mean =
                Math.abs(frames.get(stopped - 1).light() - frames.get(begun - 1).light()) / (stopped - begun);
        // the scene's own light may go on the same way, but slowly
        int from = begun;
        int end = stopped;
        while (end - from > 1 && step(frames, end - 1) < SLOW * mean) {
            end--;
        }
        while (end - from > 1 && step(frames, from) < SLOW * mean) {
            from++;
        }
        double first = frames.get(from - 1).light();
        double last = frames.get(end - 1).light();
        if (Math.abs(last - first) < LEAST) {
            return Optional.empty();
        }
        double far = way > 0 ? first : last;
        double near = way > 0 ? last : first;
        if (far <= BLACK) {
            return Optional.of(new Fade(from, end, way > 0, true));
        }
        // out of white the light falls: the far end is the lighter one
        if (Math.max(far, near) >= WHITE) {
            return Optional.of(new Fade(from, end, way < 0, false));
        }
        return Optional.empty();
    }
}
