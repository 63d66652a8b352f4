package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.LongConsumer;

/** Decodes a clip once from end to end and notes when each frame is shown. */
public final class Indexer {
    private Indexer() {}

    /** @param progress told the number of frames found so far, on another thread */
    public static FrameIndex index(MediaInfo info, LongConsumer progress, Cancel cancel) {
        var arguments =
                new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+info"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-copyts", "-i", Input.url(info.file())));
        arguments.addAll(List.of("-map", "0:" + info.video().index(), "-vf", FrameTimes.filter()));
        arguments.addAll(List.of("-fps_mode", "passthrough", "-f", "null", "-"));
        var times = new FrameTimes();
        var found = new ArrayList<Long>();
        var errors = new AtomicInteger();
        var damaged = new ArrayList<Integer>();
        try (Child child = Child.start(Tool.FFMPEG, arguments, null, line -> {
            times.line(line);
            if (line.contains("[error]")) {
                errors.incrementAndGet();
                int near = Math.max(0, found.size() - 1);
                if (damaged.isEmpty() || damaged.getLast() != near) {
                    damaged.add(near);
                }
            }
            for (Long time = times.poll(); time != null; time = times.poll()) {
                if (time != FrameTimes.NONE && (found.isEmpty() || time > found.getLast())) {
                    found.add(time);
                } else if (!found.isEmpty()) {
                    // without a time of its own a frame follows the one before
                    found.add(found.getLast() + step(found));
                } else {
                    found.add(0L);
                }
                progress.accept(found.size());
            }
        })) {
            int code = child.exit(cancel);
            if (found.isEmpty() && code != 0) {
                throw child.failure("reading the clip", code);
            }
            if (code == 137 || code == 9) {
                throw child.failure("reading the clip", code);
            }
        }
        if (found.isEmpty()) {
            throw new MediaException("no picture could be decoded; the file is damaged or cut short");
        }
        long[] all = found.stream().mapToLong(Long::longValue).toArray();
        return new FrameIndex(
                times.tick() == null ? info.video().timeBase() : times.tick(),
                all,
                errors.get(),
                damaged.stream().mapToInt(Integer::intValue).toArray());
    }

    private static long step(List<Long> found) {
        int n = found.size();
        return n < 2 ? 1 : Math.max(1, found.get(n - 1) - found.get(n - 2));
    }
}
