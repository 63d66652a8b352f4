package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.LongConsumer;

/** Decodes a clip once from end to end and notes when each frame is shown and what it decodes to. */
public final class Indexer {
    private Indexer() {}

    /** What is found on the way; its lines come on another thread. */
    private static final class Found {
        private final FrameTimes times = new FrameTimes();
        private final List<Long> shown = new ArrayList<>();
        private final AtomicInteger errors = new AtomicInteger();
        private final List<Integer> damaged = new ArrayList<>();

        void line(String line, LongConsumer progress) {
            times.line(line);
            if (line.contains("[error]")) {
                errors.incrementAndGet();
                int near = Math.max(0, shown.size() - 1);
                if (damaged.isEmpty() || damaged.getLast() != near) {
                    damaged.add(near);
                }
            }
            for (Long time = times.poll(); time != null; time = times.poll()) {
                if (time != FrameTimes.NONE && (shown.isEmpty() || time > shown.getLast())) {
                    shown.add(time);
                } else if (!shown.isEmpty()) {
                    // without a time of its own a frame follows the one before
                    shown.add(shown.getLast() + step(shown));
                } else {
                    shown.add(0L);
                }
                progress.accept(shown.size());
            }
        }
    }

    /**
     * @param progress told the number of frames found so far, on another thread
     * @throws MediaException when no picture decodes, or the decoder was broken off before the file's end
     */
    public static FrameIndex index(MediaInfo info, LongConsumer progress, Cancel cancel) {
        FrameIndex index = decoded(info, false, progress, cancel);
        boolean broken = index.errors() > 0
                || index.hasHoles() && !TELLING.contains(info.video().codec());
        // what a decoder makes up for pictures whose neighbours are lost depends on which of its threads comes first
        // the second look is told behind the first, so that nothing seems to go back
        return broken ? decoded(info, true, n -> progress.accept(Math.max(index.count(), n)), cancel) : index;
    }

    /** Codecs that either need no neighbours, or whose decoders complain when they miss one. */
    private static final Set<String> TELLING = Set.of(
            "h264",
            "hevc",
            "vp8",
            "vp9",
            "av1",
            "mpeg1video",
            "mpeg2video",
            "mjpeg",
            "dvvideo",
            "prores",
            "dnxhd",
            "png",
            "gif",
            "rawvideo",
            "v210");

    /** FFmpeg's words for decoding the same pictures at every time, however damaged they are. */
    static final List<String> ONE_THREAD = List.of("-threads", "1");

    private static FrameIndex decoded(MediaInfo info, boolean single, LongConsumer progress, Cancel cancel) {
        var arguments =
                new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+info"));
        arguments.addAll(Input.guards());
        arguments.addAll(single ? ONE_THREAD : List.of());
        // however much of it is damaged, what decodes is found; the damage is told by itself
        arguments.addAll(List.of("-max_error_rate", "1", "-copyts", "-i", Input.url(info.file())));
        arguments.addAll(List.of("-map", "0:" + info.video().index()));
        arguments.addAll(Decoding.pictures(info.video(), true));
        // what could be transparent is looked at; of all else the checksums are enough
        boolean looks = info.video().clear().isPresent();
        arguments.addAll(List.of("-fps_mode", "passthrough", "-f", looks ? "rawvideo" : "framecrc", "pipe:1"));
        var found = new Found();
        var sums = new ArrayList<Integer>();
        var clear = new AtomicBoolean();
        try (Child child =
                Child.start(Tool.FFMPEG, arguments, Limits.decoding(info), line -> found.line(line, progress))) {
            Thread reader = Thread.ofVirtual().start(() -> {
                if (looks) {
                    look(child, info.video().resolvedClear(), sums, clear);
                } else {
                    readSums(child, sums);
                }
            });
            int code = child.exit(cancel);
            reader.join();
            if (code != 0 && (found.shown.isEmpty() || code > 128)) {
                throw child.failure("reading the clip", code);
            }
            if (code != 0) {
                found.errors.incrementAndGet();
                found.damaged.add(found.shown.size() - 1);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
        if (found.shown.isEmpty()) {
            throw new MediaException("no picture could be decoded; the file is damaged or cut short");
        }
        long[] all = found.shown.stream().mapToLong(Long::longValue).toArray();
        boolean whole = sums.size() == all.length;
        return new FrameIndex(
                found.times.tick() == null ? info.video().timeBase() : found.times.tick(),
                all,
                whole ? sums.stream().mapToInt(Integer::intValue).toArray() : new int[0],
                found.errors.get(),
                found.damaged.stream().mapToInt(Integer::intValue).toArray(),
                0,
                single,
                clear.get() ? FrameIndex.AlphaSeen.CLEAR : FrameIndex.AlphaSeen.OPAQUE);
    }

    /** Whole raw pictures: their checksums, and whether any of them lets anything through. */
    private static void look(Child child, Format format, List<Integer> sums, AtomicBoolean clear) {
        var layout = new RawLayout(format);
        byte[] raw = new byte[layout.frameBytes()];
        try {
            while (child.output().readNBytes(raw, 0, raw.length) == raw.length) {
                sums.add(FrameIndex.sum(raw));
                if (!clear.get() && !layout.isOpaque(raw)) {
                    clear.set(true);
                }
            }
        } catch (IOException e) {
            // broken off; the exit code tells why
        }
    }

    /** One line a frame, the checksum its last word in hexadecimal. */
    private static void readSums(Child child, List<Integer> sums) {
        try (var lines = new BufferedReader(new InputStreamReader(child.output(), StandardCharsets.US_ASCII))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                if (!line.startsWith("#")) {
                    sums.add(Integer.parseUnsignedInt(line, line.lastIndexOf('x') + 1, line.length(), 16));
                }
            }
        } catch (IOException | NumberFormatException e) {
            // broken off; the exit code tells why, and sums that do not match the frames are not used
        }
    }

    private static long step(List<Long> found) {
        int n = found.size();
        return n < 2 ? 1 : Math.max(1, found.get(n - 1) - found.get(n - 2));
    }
}
