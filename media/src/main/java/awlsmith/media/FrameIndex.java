package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Timing;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * When every frame of a clip is shown, and a checksum of what it decodes to, found by decoding it once from its start. With it any
 * frame can be reached exactly and be told from a wrong one, whatever the codec, and sound stays in step with clips of changing rate.
 */
public final class FrameIndex {
    private static final int MAGIC = 0x4157495c;
    /** Of files written before transparency was looked for. */
    private static final int MAGIC_WITHOUT_ALPHA = 0x4157495b;
    /** Of files written while times were written one by one. */
    private static final int MAGIC_LONG = 0x4157495a;

    /** Of files written before checksums were kept. */
    private static final int MAGIC_WITHOUT_SUMS = 0x41574959;
    /** Of files written before places were noted. */
    private static final int MAGIC_WITHOUT_DAMAGE = 0x41574958;

    /** Places kept of a file that is damaged all over. */
    private static final int MOST_PLACES = 1000;

    private final Rational tick;
    private final Ticks times;
    private final int[] sums;
    private final int errors;
    private final int[] damaged;
    private final int entry;
    private final boolean single;
    private final AlphaSeen alpha;
    /** 0 until it was asked for. */
    private volatile long fingerprint;

    /** What {@link #steadyRate} found, as it looks at every frame. */
    private volatile Steady steady;

    /** What the pictures made of the transparency that they could have. */
    enum AlphaSeen {
        /** They were decoded without. */
        NOT_LOOKED_FOR,
        /** They have none, or every sample of it is opaque. */
        OPAQUE,
        CLEAR
    }

    private record Steady(Rational nominal, boolean kept) {}

    /**
     * @param tick seconds a unit of times
     * @param times presentation times in ticks against the file's clock, rising
     * @param sums of the frames' raw samples as {@link #sum} makes them, as many as times; none where they are not known
     * @param errors decoder complaints counted on the way
     * @param damaged numbers of frames near which they came, rising
     * @param entry how far before a frame decoding must begin to be right, a step of {@link Decoding}; 0 at the frame's own
     * @param single whether it must be decoded by one thread alone to come out the same every time
     * @param alpha what was made of transparency
     */
    FrameIndex(
            Rational tick,
            long[] times,
            int[] sums,
            int errors,
            int[] damaged,
            int entry,
            boolean single,
            AlphaSeen alpha) {
        this(tick, ticks(times), sums, errors, damaged, entry, single, alpha);
    }

    private static Ticks ticks(long[] times) {
        if (times.length == 0) {
            throw new MediaException("no picture could be decoded; the file is damaged or cut short");
        }
        return Ticks.of(times);
    }

    private FrameIndex(
            Rational tick,
            Ticks times,
            int[] sums,
            int errors,
            int[] damaged,
            int entry,
            boolean single,
            AlphaSeen alpha) {
        if (sums.length != 0 && sums.length != times.count()) {
            throw new IllegalArgumentException(sums.length + " checksums for " + times.count() + " frames");
        }
        this.tick = tick;
        this.times = times;
        this.sums = sums.clone();
        this.errors = errors;
        this.damaged = java.util.Arrays.copyOf(damaged, Math.min(damaged.length, MOST_PLACES));
        this.entry = entry;
        this.single = single;
        this.alpha = alpha;
    }

    /** Of one frame's raw samples: Adler-32 (RFC 1950) begun with 0, as FFmpeg's framecrc writes it. */
    static int sum(byte[] raw) {
        var adler = new java.util.zip.Adler32();
        adler.update(raw);
        long value = adler.getValue();
        // Java begins with 1: the first half is 1 too large, the second by the number of bytes
        long a = Math.floorMod((value & 0xffff) - 1, 65521L);
        long b = Math.floorMod((value >>> 16) - raw.length % 65521L, 65521L);
        return (int) (b << 16 | a);
    }

    /** The same with another place to begin decoding at. */
    FrameIndex from(int newEntry) {
        return new FrameIndex(tick, times, sums, errors, damaged, newEntry, single, alpha);
    }

    int entry() {
        return entry;
    }

    AlphaSeen alpha() {
        return alpha;
    }

    boolean isSingle() {
        return single;
    }

    /** Whether a frame is right only when all before it are decoded too. */
    public boolean isFromStartOnly() {
        return entry == Decoding.FROM_START;
    }

    /** Whether these samples are the frame's; true where that is not known. */
    boolean isFrame(long n, byte[] raw) {
        return sums.length == 0 || sums[Math.toIntExact(n)] == sum(raw);
    }

    /** Whether a step in time is so long that a frame is missing, or frames come unevenly. */
    boolean hasHoles() {
        if (times.count() < 3) {
            return false;
        }
        long[] steps = new long[times.count() - 1];
        for (int n = 0; n < steps.length; n++) {
            steps[n] = times.at(n + 1) - times.at(n);
        }
        long[] sorted = steps.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length - 1] > 1.6 * sorted[sorted.length / 2];
    }

    /** A checksum of all of it: of the frames' samples and times. */
    public long fingerprint() {
        if (fingerprint == 0) {
            fingerprint = checksum();
        }
        return fingerprint;
    }

    private long checksum() {
        var crc = new java.util.zip.CRC32();
        var bytes = java.nio.ByteBuffer.allocate(Long.BYTES + Integer.BYTES);
        for (int n = 0; n < times.count(); n++) {
            bytes.clear().putLong(times.at(n)).putInt(sums.length == 0 ? 0 : sums[n]);
            crc.update(bytes.array());
        }
        return crc.getValue();
    }

    public int count() {
        return times.count();
    }

    /** Whether its frames decode to those of another, from one of its frames on; what is not known is taken for the same. */
    boolean isPart(FrameIndex other, int from) {
        if (from + count() > other.count()) {
            return false;
        }
        boolean known = sums.length > 0 && other.sums.length > 0;
        return !known || Arrays.mismatch(sums, 0, count(), other.sums, from, from + count()) < 0;
    }

    /** Whether its frames decode to those of others, one after another; what is not known of any is taken for the same. */
    boolean isSame(List<FrameIndex> others) {
        int at = 0;
        for (FrameIndex other : others) {
            for (int n = 0; n < other.count() && at < count(); n++, at++) {
                boolean known = sums.length > 0 && other.sums.length > 0;
                if (known && sums[at] != other.sums[n]) {
                    return false;
                }
            }
        }
        return at == count();
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
        return tick.times(times.at(Math.toIntExact(n)));
    }

    /** Seconds from the first frame to frame n; for n = count the end of the last frame. */
    public Rational time(long n) {
        if (n == times.count()) {
            return time(n - 1).plus(lastDuration());
        }
        return tick.times(times.at(Math.toIntExact(n)) - times.at(0));
    }

    /** The frame shown at this time in ticks of the file's clock: the last that has begun. */
    public int frameAtTick(long at) {
        return times.lastUntil(at);
    }

    /** The frame shown at this many seconds from the first frame. */
    public int frameAt(Rational seconds) {
        return frameAtTick(seconds.ticks(tick) + times.at(0));
    }

    /** When the frames are shown: evenly where they keep a nominal rate, else each at its own time. */
    Timing timing(Rational nominal) {
        return steadyRate(nominal)
                .map(rate -> Timing.steady(rate, times.count()))
                .orElse(new Uneven());
    }

    /** Each at its own time. */
    private final class Uneven implements Timing {
        @Override
        public long count() {
            return times.count();
        }

        @Override
        public Rational at(long frame) {
            return time(frame);
        }

        @Override
        public Optional<Rational> rate() {
            return Optional.empty();
        }
    }

    /** As long as the one before it. */
    private Rational lastDuration() {
        int n = times.count();
        return n == 1 ? new Rational(1, 25) : tick.times(Math.max(1, times.at(n - 1) - times.at(n - 2)));
    }

    /**
     * The one rate all frames keep, if they do: every time lies within a millisecond, or the tick where that is coarser,
     * of a whole number of frames.
     */
    public Optional<Rational> steadyRate(Rational nominal) {
        Steady known = steady;
        if (known == null || !known.nominal().equals(nominal)) {
            known = new Steady(nominal, keeps(nominal));
            steady = known;
        }
        return known.kept() ? Optional.of(nominal) : Optional.empty();
    }

    private boolean keeps(Rational nominal) {
        double slack = Math.max(0.001, tick.toDouble()) * 1.01;
        double step = 1 / nominal.toDouble();
        for (int n = 0; n < times.count(); n++) {
            if (Math.abs((times.at(n) - times.at(0)) * tick.toDouble() - n * step) > slack) {
                return false;
            }
        }
        return true;
    }

    public void save(Path file) throws IOException {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        try (var out = new DataOutputStream(new java.io.BufferedOutputStream(Files.newOutputStream(part)))) {
            out.writeInt(MAGIC);
            out.writeLong(tick.num());
            out.writeLong(tick.den());
            out.writeInt(errors);
            out.writeInt(times.count());
            times.write(out);
            out.writeInt(damaged.length);
            for (int frame : damaged) {
                out.writeInt(frame);
            }
            out.writeInt(entry);
            out.writeBoolean(single);
            out.writeByte(alpha.ordinal());
            out.writeInt(sums.length);
            for (int sum : sums) {
                out.writeInt(sum);
            }
        }
        Files.move(part, file, java.nio.file.StandardCopyOption.ATOMIC_MOVE);
    }

    public static FrameIndex load(Path file) throws IOException {
        try (var in = new DataInputStream(new java.io.BufferedInputStream(Files.newInputStream(file)))) {
            int magic = in.readInt();
            if (magic != MAGIC
                    && magic != MAGIC_WITHOUT_ALPHA
                    && magic != MAGIC_LONG
                    && magic != MAGIC_WITHOUT_SUMS
                    && magic != MAGIC_WITHOUT_DAMAGE) {
                throw new IOException("not a frame index: " + file);
            }
            var tick = new Rational(in.readLong(), in.readLong());
            int errors = in.readInt();
            int count = in.readInt();
            boolean stepped = magic == MAGIC || magic == MAGIC_WITHOUT_ALPHA;
            Ticks times = stepped ? Ticks.read(in, count) : Ticks.of(longs(in, count));
            boolean known = stepped || magic == MAGIC_LONG;
            int[] damaged = new int[magic == MAGIC_WITHOUT_DAMAGE ? 0 : Math.min(MOST_PLACES, in.readInt())];
            for (int i = 0; i < damaged.length; i++) {
                damaged[i] = in.readInt();
            }
            int entry = known ? in.readInt() : 0;
            boolean single = known && in.readBoolean();
            var alpha = magic == MAGIC ? AlphaSeen.values()[in.readByte()] : AlphaSeen.NOT_LOOKED_FOR;
            int[] sums = new int[known ? in.readInt() : 0];
            for (int i = 0; i < sums.length; i++) {
                sums[i] = in.readInt();
            }
            return new FrameIndex(tick, times, sums, errors, damaged, entry, single, alpha);
        }
    }

    private static long[] longs(DataInputStream in, int count) throws IOException {
        long[] values = new long[count];
        for (int i = 0; i < count; i++) {
            values[i] = in.readLong();
        }
        return values;
    }
}
