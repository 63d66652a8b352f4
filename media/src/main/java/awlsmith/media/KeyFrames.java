package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Where a file's pictures can be cut without being coded anew: at key frames that nothing shown before them leans on. */
public final class KeyFrames {
    private static final Duration LIMIT = Duration.ofMinutes(30);
    private static final int KEPT = 8;
    /** Files that were looked at last, by their places and sizes. */
    private static final Map<String, KeyFrames> KNOWN = new LinkedHashMap<>();

    private final int packets;
    /** Numbers of the frames at which it can be cut, rising; and of their packets in the order they are decoded. */
    private final int[] frames;

    private final int[] places;

    private KeyFrames(int packets, int[] frames, int[] places) {
        this.packets = packets;
        this.frames = frames;
        this.places = places;
    }

    /**
     * A piece that can be copied.
     *
     * @param frames of the clip; @param packets that they are coded in
     */
    public record Piece(FrameRange frames, int packets) {}

    /** @throws MediaException when the file cannot be read */
    public static KeyFrames of(MediaInfo info, Cancel cancel) {
        String key = info.file().toAbsolutePath() + "|" + info.bytes();
        synchronized (KNOWN) {
            if (KNOWN.containsKey(key)) {
                return KNOWN.get(key);
            }
        }
        KeyFrames read = read(info.file(), info.video().index(), cancel);
        synchronized (KNOWN) {
            KNOWN.put(key, read);
            if (KNOWN.size() > KEPT) {
                KNOWN.remove(KNOWN.keySet().iterator().next());
            }
        }
        return read;
    }

    private static KeyFrames read(Path file, int stream, Cancel cancel) {
        var times = new ArrayList<Long>();
        var keys = new ArrayList<Boolean>();
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-select_streams", "" + stream, "-show_entries", "packet=pts,flags"));
        arguments.addAll(List.of("-of", "csv=p=0", Input.url(file)));
        try (Child child = Child.start(Tool.FFPROBE, arguments, Limits.reading(LIMIT), line -> {});
                var lines = new BufferedReader(new InputStreamReader(child.output(), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                cancel.check();
                String[] parts = line.split(",");
                if (parts.length < 2 || !parts[0].matches("-?\\d{1,18}")) {
                    // without times nobody knows what is shown when
                    return new KeyFrames(0, new int[0], new int[0]);
                }
                times.add(Long.parseLong(parts[0]));
                keys.add(parts[1].contains("K"));
            }
        } catch (IOException e) {
            throw new MediaException("the file's packets could not be read: " + e.getMessage(), e);
        }
        return closed(times, keys);
    }

    /** Key frames behind which nothing is decoded that is shown before them. */
    private static KeyFrames closed(List<Long> times, List<Boolean> keys) {
        int count = times.size();
        long[] shown = times.stream().mapToLong(Long::longValue).sorted().toArray();
        var frames = new ArrayList<Integer>();
        var places = new ArrayList<Integer>();
        long earliest = Long.MAX_VALUE;
        for (int n = count - 1; n >= 0; n--) {
            earliest = Math.min(earliest, times.get(n));
            if (keys.get(n) && earliest == times.get(n)) {
                frames.addFirst(Arrays.binarySearch(shown, times.get(n)));
                places.addFirst(n);
            }
        }
        return new KeyFrames(
                count,
                frames.stream().mapToInt(Integer::intValue).toArray(),
                places.stream().mapToInt(Integer::intValue).toArray());
    }

    /**
     * The least piece that holds a span.
     *
     * @param span of the clip's frames, not open
     * @param count of them in the clip
     * @return empty where the file cannot be cut, as its packets are not its frames
     */
    public Optional<Piece> around(FrameRange span, int count) {
        if (packets != count || frames.length == 0 || frames[0] != 0) {
            return Optional.empty();
        }
        int first = 0;
        while (first + 1 < frames.length && frames[first + 1] <= span.from()) {
            first++;
        }
        int last = first;
        while (last < frames.length && frames[last] < span.end()) {
            last++;
        }
        int end = last < frames.length ? frames[last] : count;
        int packetsEnd = last < frames.length ? places[last] : packets;
        return Optional.of(new Piece(new FrameRange(frames[first], end), packetsEnd - places[first]));
    }
}
