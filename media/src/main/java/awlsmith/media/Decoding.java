package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Pulls the frames of a range out of one FFmpeg process. With an index every frame is held against its checksum of the first decode:
 * where one reached by seeking is another, or missing, decoding begins again further before it, at last at the clip's start.
 */
final class Decoding implements FrameStream {
    /** Seconds to start before a frame; a container's seeking may land behind it, and some codecs are only right later. */
    private static final double[] EARLIER = {0, 2, 12, Double.POSITIVE_INFINITY};

    /** The last of them: everything before is decoded too. */
    static final int FROM_START = EARLIER.length - 1;
    /** Behind the last: the same by one thread alone, for a decoder whose threads do not always agree. */
    private static final int FROM_START_SINGLE = FROM_START + 1;

    private final Clip clip;
    private final FrameRange range;
    private final FrameSource.Windows windows;
    private final PlanePool pool;
    private final Cancel cancel;
    private final RawLayout layout;
    private final Optional<FrameIndex> index;
    private final byte[] raw;
    private FrameTimes times;
    private Child child;
    private int attempt;
    private long next;
    /** Frames read from the process that runs now. */
    private long decoded;

    private long firstTime = FrameTimes.NONE;
    private boolean ended;

    Decoding(Clip clip, FrameRange range, Region window, PlanePool pool, Cancel cancel) {
        this(clip, range, frame -> window, pool, cancel, 0);
    }

    /** @param least how far before the range's beginning decoding begins at the least */
    Decoding(Clip clip, FrameRange range, FrameSource.Windows windows, PlanePool pool, Cancel cancel, int least) {
        this.clip = clip;
        this.range = range;
        this.windows = windows;
        this.pool = pool;
        this.cancel = cancel;
        this.layout = new RawLayout(clip.decodedFormat());
        this.index = clip.index();
        this.raw = new byte[layout.frameBytes()];
        this.next = range.from();
        index.ifPresent(known -> {
            if (range.from() >= known.count()) {
                throw new MediaException(
                        "frame " + range.from() + " was asked for, the clip ends with frame " + (known.count() - 1));
            }
        });
        boolean fromStart = index.isEmpty() || range.from() == 0 || !clip.timesAreSound();
        start(fromStart ? FROM_START : Math.max(least, index.get().entry()));
    }

    /**
     * The raw pictures of a video and their times: whoever decodes it decodes it to these very samples.
     *
     * @param withAlpha whether with their transparency, where they can have any
     */
    static List<String> pictures(MediaInfo.Video video, boolean withAlpha) {
        // a file whose size or layout changes midway is held to what it began with
        return List.of(
                "-vf",
                "scale=" + video.format().width() + ":" + video.format().height()
                        + ":flags=bicubic+accurate_rnd+full_chroma_int,format=" + video.decodeAs(withAlpha) + ","
                        + FrameTimes.filter());
    }

    private void start(int newAttempt) {
        attempt = newAttempt;
        decoded = 0;
        times = new FrameTimes();
        var info = clip.info();
        var arguments =
                new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+info"));
        arguments.addAll(Input.guards());
        if (attempt == FROM_START_SINGLE || index.filter(FrameIndex::isSingle).isPresent()) {
            arguments.addAll(Indexer.ONE_THREAD);
        }
        arguments.addAll(List.of("-max_error_rate", "1", "-copyts"));
        if (attempt < FROM_START) {
            // half a frame before it, so that rounding never drops the frame itself
            Rational before = index.get().clock(next - 1);
            double middle = (before.toDouble() + index.get().clock(next).toDouble()) / 2;
            arguments.addAll(List.of(
                    "-seek_timestamp", "1", "-ss", String.format(Locale.ROOT, "%.6f", middle - EARLIER[attempt])));
        }
        arguments.addAll(List.of(
                "-i", Input.url(info.file()), "-map", "0:" + info.video().index()));
        arguments.addAll(pictures(info.video(), clip.isDecodedWithAlpha()));
        if (!range.isOpen() && index.isEmpty()) {
            arguments.addAll(List.of("-frames:v", Long.toString(range.end())));
        }
        arguments.addAll(List.of("-fps_mode", "passthrough", "-f", "rawvideo", "pipe:1"));
        child = Child.start(Tool.FFMPEG, arguments, Limits.decoding(info), times::line);
    }

    /** For tests that kill it from outside. */
    long pid() {
        return child.pid();
    }

    /** Where it had to begin until now: 0 at the frame wanted, {@link #FROM_START} at the clip's first. */
    int attempt() {
        return Math.min(attempt, FROM_START);
    }

    @Override
    public Format format() {
        return clip.format();
    }

    @Override
    public Optional<Frame> next() {
        cancel.check();
        long end = index.map(known -> Math.min(range.end(), known.count())).orElse(range.end());
        if (ended || next >= end) {
            ended = true;
            return Optional.empty();
        }
        if (!advance()) {
            ended = true;
            return Optional.empty();
        }
        Frame frame = Frame.blank(clip.format(), windows.of(next), next, clip.time(next), pool);
        layout.unpack(raw, frame);
        next++;
        return Optional.of(frame);
    }

    /** Reads on until {@code raw} holds frame {@code next}; false at the end of a clip without an index. */
    private boolean advance() {
        while (true) {
            boolean read = readFrame();
            if (!read && index.isEmpty()) {
                return false;
            }
            long number = read ? number() : Long.MAX_VALUE;
            if (number == next && (index.isEmpty() || index.get().isFrame(next, raw))) {
                return true;
            }
            if (number < next) {
                continue;
            }
            // another frame than the one wanted, none at all, or the right one decoded wrongly
            boolean isLast = attempt == FROM_START_SINGLE
                    || attempt == FROM_START && index.get().isSingle();
            if (isLast && number == next && index.get().isSingle()) {
                // a picture whose neighbours are lost: some decoders leave parts of it as the memory was, and nothing
                // better can be had
                return true;
            }
            if (isLast) {
                throw changed(number);
            }
            child.close();
            start(attempt + 1);
        }
    }

    private MediaException changed(long number) {
        return number == Long.MAX_VALUE
                ? new MediaException("the clip ends before frame " + next + " now, where "
                        + index.get().count()
                        + " frames were found when it was taken in; was its file changed? Take it in again")
                : new MediaException("frame " + next
                        + " decodes to another picture now than when the clip was taken in; was its file changed? Take it in"
                        + " again");
    }

    /** Number of the frame in {@code raw}. */
    private long number() {
        long time = times.next();
        long count = decoded++;
        if (index.isEmpty()) {
            checkSteady(time, count);
            return count;
        }
        if (attempt >= FROM_START) {
            // frames are simply counted, as the index counted them
            return count;
        }
        if (time == FrameTimes.NONE) {
            return next;
        }
        var known = index.get();
        boolean sameTick = times.tick() == null || times.tick().equals(known.tick());
        return known.frameAtTick(sameTick ? time : times.tick().times(time).ticks(known.tick()));
    }

    private void checkSteady(long time, long number) {
        if (firstTime == FrameTimes.NONE) {
            firstTime = time;
        } else if (time != FrameTimes.NONE && times.tick() != null) {
            double seconds = (time - firstTime) * times.tick().toDouble();
            if (Math.abs(seconds * clip.info().video().rate().toDouble() - number) > 0.5) {
                throw new Clip.Unsteady(number);
            }
        }
    }

    /** False when the process has ended well and there are no more. */
    private boolean readFrame() {
        int got = 0;
        try {
            got = child.output().readNBytes(raw, 0, raw.length);
            if (got == raw.length) {
                return true;
            }
        } catch (IOException e) {
            if (cancel.isAsked()) {
                throw new Cancel.Stopped();
            }
        }
        int code = child.exit(cancel);
        boolean canGoEarlier = index.isPresent() && attempt < FROM_START;
        if (code > 128 || (code != 0 || got != 0) && !canGoEarlier && !isKnownToBreakOff()) {
            throw child.failure("decoding the clip", code);
        }
        if (index.isEmpty() && decoded == 0) {
            throw new MediaException("no picture could be decoded at frame " + next + "; the file is damaged there");
        }
        return false;
    }

    /** Of a clip that is damaged at its end the decoder gives up where it did when the clip was taken in. */
    private boolean isKnownToBreakOff() {
        return index.isPresent()
                && index.get().errors() > 0
                && decoded >= index.get().count();
    }

    @Override
    public void close() {
        ended = true;
        child.close();
    }
}
