package awlsmith.core.steady;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * What the camera did over a clip.
 *
 * @param turned for each frame, where what was in the one before lies in it, by shift, turn and zoom; NONE for the first of a scene
 * @param seen the same with perspective, as many
 * @param scenes numbers of first frames of scenes, rising, beginning with 0
 * @param rolling share of the time from frame to frame that the sensor takes from its first row to its last, as measured; 0 where nothing speaks for it
 * @param height of the picture, in its widths as it is shown
 */
public record CameraPath(List<Warp> turned, List<Warp> seen, int[] scenes, double rolling, double height) {
    public CameraPath {
        turned = List.copyOf(turned);
        seen = List.copyOf(seen);
        if (turned.size() != seen.size() || !turned.isEmpty() && (scenes.length == 0 || scenes[0] != 0)) {
            throw new IllegalArgumentException(
                    turned.size() + " and " + seen.size() + " ways in " + scenes.length + " scenes make no path");
        }
    }

    /** What of the camera's movements is taken out. */
    public enum Kind {
        SHIFT,
        TURN,
        PERSPECTIVE
    }

    /** Frames that were looked at. */
    public int frames() {
        return turned.size();
    }

    /** The way from the frame before to a frame, of a kind. */
    Warp to(int frame, Kind kind) {
        return switch (kind) {
            case SHIFT -> Warp.shift(turned.get(frame).c(), turned.get(frame).f());
            case TURN -> turned.get(frame);
            case PERSPECTIVE -> seen.get(frame);
        };
    }

    /** The first frame behind the scene that begins with the one of a number in {@link #scenes}. */
    int end(int scene) {
        return scene + 1 < scenes.length ? scenes[scene + 1] : frames();
    }

    /**
     * How far what lies in the middle goes in the time of a frame, across and down, at the moment of one: by the two ways before and the two behind
     * (the slope of fourth order), near a scene's ends by those beside it.
     */
    public double[] speed(int frame) {
        int low = frame - 1;
        int high = frame + 2;
        if (low > 0 && high < frames() && isOneScene(low - 1, high)) {
            return new double[] {
                (7 * (turned.get(frame).c() + turned.get(frame + 1).c())
                                - turned.get(low).c()
                                - turned.get(high).c())
                        / 12,
                (7 * (turned.get(frame).f() + turned.get(frame + 1).f())
                                - turned.get(low).f()
                                - turned.get(high).f())
                        / 12
            };
        }
        int count = 0;
        double x = 0;
        double y = 0;
        for (int n = frame; n <= frame + 1; n++) {
            if (n > 0 && n < frames() && Arrays.binarySearch(scenes, n) < 0) {
                x += turned.get(n).c();
                y += turned.get(n).f();
                count++;
            }
        }
        return count == 0 ? new double[2] : new double[] {x / count, y / count};
    }

    /**
     * Where what lies in the middle of a scene's first frame lies in each frame, across and down, and how far it has turned: widths and radians.
     *
     * @return three rows, each with a value a frame
     */
    public double[][] course() {
        double[][] course = new double[3][frames()];
        for (int n = 0; n < frames(); n++) {
            boolean begins = Arrays.binarySearch(scenes, n) >= 0;
            Warp step = turned.get(n);
            course[0][n] = begins ? 0 : course[0][n - 1] + step.c();
            course[1][n] = begins ? 0 : course[1][n - 1] + step.f();
            course[2][n] = begins ? 0 : course[2][n - 1] + step.angle();
        }
        return course;
    }

    /**
     * The same without what rows that are read one after the other add to it: they lean and go apart while the speed changes, which a fit of turn and
     * zoom takes for a little of both.
     *
     * @param rolling share of the time from frame to frame that reading takes
     */
    public CameraPath straightened(double rolling) {
        if (rolling == 0) {
            return this;
        }
        List<Warp> turns = new ArrayList<>(turned);
        List<Warp> views = new ArrayList<>(seen);
        // of a leaning that is even over the picture, the share that is taken for a turn
        double taken = height * height / (1 + height * height);
        for (int n = 1; n < frames(); n++) {
            if (isOneScene(n - 1, n)) {
                double[] before = speed(n - 1);
                double[] after = speed(n);
                double lean = (after[0] - before[0]) * rolling / height;
                double stretch = (after[1] - before[1]) * rolling / height;
                Warp t = turned.get(n);
                double along = t.a() - taken * stretch;
                double beside = t.d() + taken * lean;
                turns.set(n, new Warp(along, -beside, t.c(), beside, along, t.f(), 0, 0));
                Warp s = seen.get(n);
                views.set(
                        n,
                        s.equals(t)
                                ? turns.get(n)
                                : new Warp(s.a(), s.b() - lean, s.c(), s.d(), s.e() - stretch, s.f(), s.g(), s.h()));
            }
        }
        return new CameraPath(turns, views, scenes, this.rolling, height);
    }

    /** Whether no other scene begins behind the one frame and up to the other. */
    boolean isOneScene(long low, long high) {
        return Arrays.stream(scenes).noneMatch(start -> start > low && start <= high);
    }

    @Override
    public boolean equals(Object other) {
        return this == other
                || other instanceof CameraPath path
                        && turned.equals(path.turned)
                        && seen.equals(path.seen)
                        && Arrays.equals(scenes, path.scenes)
                        && rolling == path.rolling
                        && height == path.height;
    }

    @Override
    public int hashCode() {
        return 31 * frames() + Arrays.hashCode(scenes);
    }

    @Override
    public String toString() {
        return "CameraPath of " + frames() + " frames in " + scenes.length + " scenes";
    }
}
