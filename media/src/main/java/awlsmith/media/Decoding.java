package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Pulls the frames of a range out of one FFmpeg process. */
final class Decoding implements FrameStream {
    /** Seconds to start earlier when a container's seeking lands behind the frame wanted; the last is the very start. */
    private static final double[] EARLIER = {0, 2, 12, Double.POSITIVE_INFINITY};

    private final Clip clip;
    private final FrameRange range;
    private final Region window;
    private final PlanePool pool;
    private final Cancel cancel;
    private final RawLayout layout;
    private final byte[] raw;
    private FrameTimes times;
    private Child child;
    private long next;
    private long decoded;
    private long firstTime = FrameTimes.NONE;
    private boolean ended;

    Decoding(Clip clip, FrameRange range, Region window, PlanePool pool, Cancel cancel) {
        this.clip = clip;
        this.range = range;
        this.window = window;
        this.pool = pool;
        this.cancel = cancel;
        this.layout = new RawLayout(clip.format());
        this.raw = new byte[layout.frameBytes()];
        this.next = range.from();
        clip.index().ifPresent(index -> {
            if (range.from() >= index.count()) {
                throw new MediaException(
                        "frame " + range.from() + " was asked for, the clip ends with frame " + (index.count() - 1));
            }
        });
        start(0);
    }

    private void start(int attempt) {
        decoded = 0;
        times = new FrameTimes();
        var info = clip.info();
        var format = clip.format();
        var arguments =
                new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+info"));
        arguments.addAll(Input.guards());
        arguments.add("-copyts");
        seekTime(attempt)
                .ifPresent(seconds -> arguments.addAll(
                        List.of("-seek_timestamp", "1", "-ss", String.format(java.util.Locale.ROOT, "%.6f", seconds))));
        arguments.addAll(List.of(
                "-i", Input.url(info.file()), "-map", "0:" + info.video().index()));
        // a file whose size or layout changes midway is held to what it began with
        arguments.addAll(List.of(
                "-vf",
                "scale=" + format.width() + ":" + format.height()
                        + ":flags=bicubic+accurate_rnd+full_chroma_int,format="
                        + info.video().decodeAs() + "," + FrameTimes.filter()));
        if (!range.isOpen() && clip.index().isEmpty()) {
            arguments.addAll(List.of("-frames:v", Long.toString(range.end())));
        }
        arguments.addAll(List.of("-fps_mode", "passthrough", "-f", "rawvideo", "pipe:1"));
        child = Child.start(Tool.FFMPEG, arguments, null, times::line);
    }

    private Optional<Double> seekTime(int attempt) {
        if (!seeks()) {
            return Optional.empty();
        }
        var index = clip.index().get();
        double earlier = EARLIER[attempt];
        if (Double.isInfinite(earlier)) {
            return Optional.empty();
        }
        // half a frame before it, so that rounding never drops the frame itself
        Rational before = index.clock(range.from() - 1);
        double middle = (before.toDouble() + index.clock(range.from()).toDouble()) / 2;
        return Optional.of(middle - earlier);
    }

    @Override
    public Format format() {
        return clip.format();
    }

    @Override
    public Optional<Frame> next() {
        cancel.check();
        if (ended || next >= range.end()) {
            ended = true;
            return Optional.empty();
        }
        if (!advance()) {
            ended = true;
            return Optional.empty();
        }
        Frame frame = Frame.blank(clip.format(), window, next, clip.time(next), pool);
        layout.unpack(raw, frame);
        next++;
        return Optional.of(frame);
    }

    /** Reads on until {@code raw} holds frame {@code next}; false at the clip's end. */
    private boolean advance() {
        for (int attempt = 0; ; ) {
            boolean canGoEarlier = seeks() && attempt + 1 < EARLIER.length;
            if (!readFrame(canGoEarlier)) {
                if (decoded > 0 || !canGoEarlier) {
                    return false;
                }
                // some containers seek past their last key frames and then hold nothing
                attempt++;
                child.close();
                start(attempt);
                continue;
            }
            long number = number(times.next());
            decoded++;
            if (number == next || number > next && decoded > 1) {
                // a frame the index knows but this pass could not decode is shown by the next one
                return true;
            }
            if (number > next && canGoEarlier) {
                attempt++;
                child.close();
                start(attempt);
            } else if (number > next) {
                return true;
            }
        }
    }

    private long number(long time) {
        if (clip.index().isPresent()) {
            if (!seeks()) {
                // read from the start, frames are simply counted, as the index counted them
                return decoded;
            }
            var index = clip.index().get();
            if (time == FrameTimes.NONE) {
                return next;
            }
            if (times.tick() == null || times.tick().equals(index.tick())) {
                return index.frameAtTick(time);
            }
            return index.frameAtTick(times.tick().times(time).ticks(index.tick()));
        }
        long number = decoded;
        if (firstTime == FrameTimes.NONE) {
            firstTime = time;
        } else if (time != FrameTimes.NONE && times.tick() != null) {
            double seconds = (time - firstTime) * times.tick().toDouble();
            if (Math.abs(seconds * clip.info().video().rate().toDouble() - number) > 0.5) {
                throw new Clip.Unsteady(number);
            }
        }
        return number;
    }

    /** Whether this range is reached by seeking; containers whose times cannot be trusted are read from the start. */
    private boolean seeks() {
        return clip.index().isPresent() && range.from() > 0 && clip.timesAreSound();
    }

    private boolean readFrame(boolean mayBeEmpty) {
        try {
            int got = child.output().readNBytes(raw, 0, raw.length);
            if (got == raw.length) {
                return true;
            }
        } catch (IOException e) {
            if (cancel.isAsked()) {
                throw new Cancel.Stopped();
            }
        }
        int code = child.exit(cancel);
        if (code == 137 || code == 143 || code == 9 || code != 0 && decoded == 0 && !mayBeEmpty) {
            throw child.failure("decoding the clip", code);
        }
        if (decoded == 0 && next == range.from() && !mayBeEmpty) {
            throw new MediaException("no picture could be decoded at frame " + next + "; the file is damaged there");
        }
        return false;
    }

    @Override
    public void close() {
        ended = true;
        child.close();
    }
}
