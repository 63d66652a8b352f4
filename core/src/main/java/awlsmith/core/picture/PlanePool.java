package awlsmith.core.picture;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;

/**
 * Lends arrays for planes and takes them back, so that a render of any length keeps using the same few. Arrays come
 * back with their old contents: whoever borrows one writes every sample.
 *
 * <p>Safe for several threads. What is not given back is simply collected as garbage.
 */
public final class PlanePool {
    private final Map<Integer, Deque<float[]>> free = new HashMap<>();
    private final long keepBytes;
    private long keptBytes;

    /** @param keepBytes most bytes kept for later use; beyond that returned arrays are let go */
    public PlanePool(long keepBytes) {
        this.keepBytes = keepBytes;
    }

    /** A plane of the given size with unknown contents. */
    public Plane borrow(int width, int height) {
        int samples = Math.multiplyExact(width, height);
        float[] array = null;
        synchronized (free) {
            var sized = free.get(samples);
            if (sized != null) {
                array = sized.poll();
                if (array != null) {
                    keptBytes -= 4L * samples;
                }
            }
        }
        return new Plane(array != null ? array : new float[samples], 0, width, height, width);
    }

    /** Takes back a plane that {@link #borrow} lent; the caller must not touch it again. */
    public void giveBack(Plane plane) {
        float[] array = plane.data();
        synchronized (free) {
            if (keptBytes + 4L * array.length > keepBytes) {
                return;
            }
            free.computeIfAbsent(array.length, size -> new ArrayDeque<>()).push(array);
            keptBytes += 4L * array.length;
        }
    }
}
