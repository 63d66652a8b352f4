package awlsmith.media;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

/** Rising times in ticks of a clock: where they come evenly, three numbers whatever the length. */
sealed interface Ticks {
    int count();

    long at(int n);

    /** The last that is not later than this; 0 where all are. Found in logarithmic time at most. */
    int lastUntil(long tick);

    static Ticks of(long[] times) {
        for (int n = 2; n < times.length; n++) {
            if (times[n] - times[n - 1] != times[1] - times[0]) {
                return new Each(times.clone());
            }
        }
        return new Even(times[0], times.length == 1 ? 1 : times[1] - times[0], times.length);
    }

    /** @param step from each to the next */
    record Even(long first, long step, int count) implements Ticks {
        @Override
        public long at(int n) {
            return first + n * step;
        }

        @Override
        public int lastUntil(long tick) {
            return step <= 0 ? 0 : (int) Math.clamp(Math.floorDiv(tick - first, step), 0, count - 1);
        }
    }

    final class Each implements Ticks {
        private final long[] times;

        private Each(long[] times) {
            this.times = times;
        }

        @Override
        public int count() {
            return times.length;
        }

        @Override
        public long at(int n) {
            return times[n];
        }

        @Override
        public int lastUntil(long tick) {
            int found = Arrays.binarySearch(times, tick);
            return Math.max(0, found >= 0 ? found : -found - 2);
        }
    }

    /** As steps from each to the next, deflated: steps repeat, and what repeats takes next to nothing. */
    default void write(DataOutputStream out) throws IOException {
        var deflated = new DeflaterOutputStream(out, new Deflater(Deflater.BEST_SPEED));
        var steps = new DataOutputStream(deflated);
        long before = 0;
        for (int n = 0; n < count(); n++) {
            steps.writeLong(at(n) - before);
            before = at(n);
        }
        steps.flush();
        deflated.finish();
    }

    static Ticks read(DataInputStream in, int count) throws IOException {
        // one byte at a time, so that nothing behind them is swallowed
        var steps = new DataInputStream(new InflaterInputStream(in, new java.util.zip.Inflater(), 1));
        long[] times = new long[count];
        long before = 0;
        for (int n = 0; n < count; n++) {
            before += steps.readLong();
            times[n] = before;
        }
        while (steps.read() >= 0) {
            // to the end of what was deflated
        }
        return of(times);
    }
}
