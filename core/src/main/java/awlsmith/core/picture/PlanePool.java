package awlsmith.core.picture;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;

/**
 * Lends arrays for planes and takes them back, so that a render of any length keeps using the same few. Arrays come
 * back with their old contents: whoever borrows one writes every sample. Where too much is kept, arrays of the size that was asked for
 * longest ago go first.
 *
 * <p>Safe for several threads. What is not given back is simply collected as garbage.
 */
public final class PlanePool {
    /** By size, the one used longest ago first. */
    private final LinkedHashMap<Integer, Deque<float[]>> free = new LinkedHashMap<>(16, 0.75f, true);

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
            free.computeIfAbsent(array.length, size -> new ArrayDeque<>()).push(array);
            keptBytes += 4L * array.length;
            letGo();
        }
    }

    /** Until no more is kept than may be. */
    private void letGo() {
        var sizes = free.values().iterator();
        while (keptBytes > keepBytes && sizes.hasNext()) {
            Deque<float[]> eldest = sizes.next();
            while (keptBytes > keepBytes && !eldest.isEmpty()) {
                keptBytes -= 4L * eldest.poll().length;
            }
            if (eldest.isEmpty()) {
                sizes.remove();
            }
        }
    }
}
