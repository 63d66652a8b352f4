package awlsmith.media;

import awlsmith.core.picture.Rational;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;

/**
 * When every frame of a clip is shown, found by decoding it once. With it any frame can be reached exactly, whatever the
 * codec, and sound stays in step with clips of changing rate.
 */
public final class FrameIndex {
    private static final int MAGIC = 0x41574959;
    /** Of files written before places were noted. */
    private static final int MAGIC_WITHOUT_DAMAGE = 0x41574958;

    /** Places kept of a file that is damaged all over. */
    private static final int MOST_PLACES = 1000;

    private final Rational tick;
    private final long[] times;
    private final int errors;
    private final int[] damaged;

    /**
     * @param tick seconds a unit of times
     * @param times presentation times in ticks against the file's clock, rising
     * @param errors decoder complaints counted on the way
     * @param damaged numbers of frames near which they came, rising
     */
    public FrameIndex(Rational tick, long[] times, int errors, int[] damaged) {
        if (times.length == 0) {
            throw new MediaException("no picture could be decoded; the file is damaged or cut short");
        }
        this.tick = tick;
        this.times = times.clone();
        this.errors = errors;
        this.damaged = java.util.Arrays.copyOf(damaged, Math.min(damaged.length, MOST_PLACES));
    }

    public int count() {
        return times.length;
    }

    public int errors() {
        return errors;
    }

    /** Frames near which the decoder complained, rising; they may be wrong, and so may those that are made from them. */
    public int[] damaged() {
        return damaged.clone();
    }

    public Rational tick() {
        return tick;
    }

    /** The file's clock at frame n, in seconds. */
    public Rational clock(long n) {
        return tick.times(times[Math.toIntExact(n)]);
    }

    /** Seconds from the first frame to frame n; for n = count the end of the last frame. */
    public Rational time(long n) {
        if (n == times.length) {
            return time(n - 1).plus(lastDuration());
        }
        return tick.times(times[Math.toIntExact(n)] - times[0]);
    }

    /** The frame shown at this time in ticks of the file's clock: the last that has begun. */
    public int frameAtTick(long at) {
        int found = Arrays.binarySearch(times, at);
        return Math.max(0, found >= 0 ? found : -found - 2);
    }

    /** The frame shown at this many seconds from the first frame. */
    public int frameAt(Rational seconds) {
        return frameAtTick(seconds.ticks(tick) + times[0]);
    }

    private Rational lastDuration() {
        int n = times.length;
        return n == 1 ? new Rational(1, 25) : tick.times(Math.max(1, (times[n - 1] - times[0]) / (n - 1)));
    }

    /**
     * The one rate all frames keep, if they do: every time lies within a millisecond, or the tick where that is coarser,
     * of a whole number of frames.
     */
    public Optional<Rational> steadyRate(Rational nominal) {
        double slack = Math.max(0.001, tick.toDouble()) * 1.01;
        double step = 1 / nominal.toDouble();
        for (int n = 0; n < times.length; n++) {
            if (Math.abs((times[n] - times[0]) * tick.toDouble() - n * step) > slack) {
                return Optional.empty();
            }
        }
        return Optional.of(nominal);
    }

    public void save(Path file) throws IOException {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        try (var out = new DataOutputStream(new java.io.BufferedOutputStream(Files.newOutputStream(part)))) {
            out.writeInt(MAGIC);
            out.writeLong(tick.num());
            out.writeLong(tick.den());
            out.writeInt(errors);
            out.writeInt(times.length);
            for (long time : times) {
                out.writeLong(time);
            }
            out.writeInt(damaged.length);
            for (int frame : damaged) {
                out.writeInt(frame);
            }
        }
        Files.move(part, file, java.nio.file.StandardCopyOption.ATOMIC_MOVE);
    }

    public static FrameIndex load(Path file) throws IOException {
        try (var in = new DataInputStream(new java.io.BufferedInputStream(Files.newInputStream(file)))) {
            int magic = in.readInt();
            if (magic != MAGIC && magic != MAGIC_WITHOUT_DAMAGE) {
                throw new IOException("not a frame index: " + file);
            }
            var tick = new Rational(in.readLong(), in.readLong());
            int errors = in.readInt();
            long[] times = new long[in.readInt()];
            for (int i = 0; i < times.length; i++) {
                times[i] = in.readLong();
            }
            int[] damaged = new int[magic == MAGIC ? Math.min(MOST_PLACES, in.readInt()) : 0];
            for (int i = 0; i < damaged.length; i++) {
                damaged[i] = in.readInt();
            }
            return new FrameIndex(tick, times, errors, damaged);
        }
    }
}
