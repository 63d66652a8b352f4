package awlsmith.media;

import awlsmith.core.plan.Coder;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;

/**
 * What one process may take. All are far above what the work needs: they end what runs wild, not what is slow.
 *
 * @param wall longest it may run; empty where it waits for others, which may take as long as they like
 * @param silence longest it may leave waiting who reads its output or writes its input; empty where it answers at its end
 * @param cpuSeconds of processor time, all threads together
 * @param fileBytes of the largest file it may write; 0 none
 * @param writes the file it writes, or the folder that it writes into and works in
 * @param mapsDevices whether it has the memory of graphics hardware among its own addresses, which says nothing of what it takes of the machine's
 */
record Limits(
        Optional<Duration> wall,
        Optional<Duration> silence,
        long cpuSeconds,
        long fileBytes,
        Optional<Path> writes,
        boolean mapsDevices) {
    Limits(
            Optional<Duration> wall,
            Optional<Duration> silence,
            long cpuSeconds,
            long fileBytes,
            Optional<Path> writes) {
        this(wall, silence, cpuSeconds, fileBytes, writes, false);
    }

    /** The same for an encoder, by what codes. */
    Limits by(Coder coder) {
        return new Limits(wall, silence, cpuSeconds, fileBytes, writes, coder != Coder.CORES);
    }

    private static final Duration SILENT = Duration.ofMinutes(5);
    private static final long MINUTE = 60;

    /** Seconds of one core to decode or encode a million pixels with a slow codec, many times over. */
    private static final double SLOWEST = 4;

    /** A question that is answered at once. */
    static Limits asking() {
        return new Limits(Optional.of(Duration.ofSeconds(30)), Optional.empty(), MINUTE, 0, Optional.empty());
    }

    /** Of pictures, through a pipe. */
    static Limits decoding(MediaInfo info) {
        return new Limits(Optional.empty(), Optional.of(SILENT), cpu(info), 0, Optional.empty());
    }

    /** Of pictures that come through a pipe, as many as may come; one of them never takes minutes. */
    static Limits encoding(Path out) {
        return new Limits(Optional.empty(), Optional.of(SILENT), Long.MAX_VALUE, LARGEST_FILE, Optional.of(out));
    }

    /** Of pictures that lie there, as long as it may take; into a folder of its own. */
    static Limits coding(Path folder) {
        return new Limits(Optional.empty(), Optional.of(SILENT), Long.MAX_VALUE, LARGEST_FILE, Optional.of(folder));
    }

    /** Packets are copied, sound is coded. */
    static Limits copying(Duration wall, long sourceBytes, Path out) {
        return new Limits(
                Optional.of(wall),
                Optional.empty(),
                wall.toSeconds(),
                Math.max(MOST_OVERHEAD, 16 * sourceBytes),
                Optional.of(out));
    }

    /** Read from end to end within a time. */
    static Limits reading(Duration wall) {
        return new Limits(Optional.of(wall), Optional.empty(), 4 * wall.toSeconds(), 0, Optional.empty());
    }

    /** No file of ours is larger: 16 TiB. */
    private static final long LARGEST_FILE = 1L << 44;

    private static final long MOST_OVERHEAD = 1L << 30;

    private static long cpu(MediaInfo info) {
        double million = info.video().format().whole().area() / 1e6;
        // a header may be wrong about the frames: each byte of the file counts as well
        double frames = Math.max(info.expectedFrames(), info.bytes() / 500.0);
        return (long) Math.min(1e9, 10 * MINUTE + frames * Math.max(0.05, million) * SLOWEST);
    }
}
