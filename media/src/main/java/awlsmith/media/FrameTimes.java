package awlsmith.media;

import awlsmith.core.picture.Rational;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;

/**
 * Picks the frames' times out of what FFmpeg's showinfo filter writes. Raw pictures through a pipe carry no times, so
 * they come this way, one line a frame, in the same order.
 */
final class FrameTimes {
    /** Chosen so that no real time collides with it. */
    static final long NONE = Long.MIN_VALUE;

    private static final Pattern FRAME = Pattern.compile("showinfo.*\\bn:\\s*\\d+ pts:\\s*(-?\\d+|NOPTS)");
    private static final Pattern BASE = Pattern.compile("showinfo.*config in time_base: (\\d+)/(\\d+)");

    private final BlockingQueue<Long> queue = new LinkedBlockingQueue<>();
    private volatile Rational tick;

    /** The filter that writes the lines. */
    static String filter() {
        return "showinfo=checksum=0";
    }

    void line(String line) {
        var frame = FRAME.matcher(line);
        if (frame.find()) {
            queue.add(frame.group(1).equals("NOPTS") ? NONE : Long.parseLong(frame.group(1)));
            return;
        }
        var base = BASE.matcher(line);
        if (tick == null && base.find()) {
            tick = new Rational(Long.parseLong(base.group(1)), Long.parseLong(base.group(2)));
        }
    }

    /** Seconds a tick; known before the first frame's time. */
    Rational tick() {
        return tick;
    }

    /** The next frame's time, or NONE when it has none or no line comes. */
    long next() {
        try {
            Long time = queue.poll(10, TimeUnit.SECONDS);
            return time == null ? NONE : time;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return NONE;
        }
    }

    /** The next time if its line has already come, else null. */
    Long poll() {
        return queue.poll();
    }
}
