package awlsmith.render;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.media.Encoding;
import awlsmith.media.Joiner;
import awlsmith.media.PacketSizes;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** A little of a render: some frames at several places of its span, treated and coded. */
final class Samples {
    /** Of three equal parts of the span, in whose middle something is made, the order: what comes first tells how long the others may be. */
    private static final int[] PLACES = {1, 0, 2};

    /** Fewer do not tell a key frame's bytes from those of the others. */
    private static final int LEAST = 6;

    /** Seconds that an encoder takes to start and to end beside its frames, at the least. */
    static final double OVERHEAD = 0.15;

    private final RenderRequest request;
    private final Deliverable parts;
    private final Machine machine;
    private final Cancel cancel;

    /** @param parts how they are coded */
    Samples(RenderRequest request, Deliverable parts, Machine machine, Cancel cancel) {
        this.request = request;
        this.parts = parts;
        this.machine = machine;
        this.cancel = cancel;
    }

    /**
     * Of one place.
     *
     * @param gaps nanoseconds from each frame to the next, treated and handed to the encoder
     */
    record Place(Joiner.Segment file, List<Long> gaps, long finishNanos, PacketSizes.Sizes packets) {
        int frames() {
            return gaps.size() + 1;
        }
    }

    /**
     * @param budget seconds that it may take, roughly
     * @param most frames at one place
     */
    List<Place> make(double budget, int most) throws IOException {
        FrameRange whole = request.outputRange();
        long count = whole.count();
        var places = new ArrayList<Place>();
        long begun = System.nanoTime();
        int made = 0;
        int each = (int) Math.min(LEAST, count);
        for (int p = 0; p < PLACES.length; p++) {
            double spent = (System.nanoTime() - begun) / 1e9;
            if (p > 0 && (spent > budget || made >= count)) {
                break;
            }
            if (p > 0) {
                double left = (budget - spent) / (PLACES.length - p);
                each = (int) Math.clamp(left / Math.max(1e-4, perFrame(places)), LEAST, Math.max(LEAST, most));
            }
            int frames = (int) Math.min(each, count);
            long from = Math.clamp(
                    whole.from() + count * (2L * PLACES[p] + 1) / (2L * PLACES.length) - frames / 2,
                    whole.from(),
                    whole.end() - frames);
            Path file = request.scratch().resolve("trial-" + p + ".nut");
            places.add(place(new FrameRange(from, from + frames), file));
            made += frames;
        }
        return places;
    }

    private Place place(FrameRange range, Path file) throws IOException {
        Chain chain = request.treatment().chain();
        var output = new Output(request, SegmentFolder.as(request));
        var gaps = new ArrayList<Long>();
        long finish;
        try (var stream = chain.open(
                        request.clip(), range, chain.output().whole(), machine.planes(), machine.work(cancel));
                var encoding =
                        new Encoding(file, request.fileFormat(), request.outputRate(), parts, Engine.CODING_THREADS)) {
            byte[] raw = new byte[output.raw().frameBytes()];
            long last = 0;
            var start = Rational.ZERO;
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                cancel.check();
                if (last == 0) {
                    start = frame.get().time();
                }
                output.pack(frame.get(), raw, machine.planes(), machine.work(cancel));
                encoding.write(raw, frame.get().time().minus(start));
                frame.get().release(machine.planes());
                long now = System.nanoTime();
                if (last != 0) {
                    gaps.add(now - last);
                }
                last = now;
            }
            long before = System.nanoTime();
            encoding.finish(cancel);
            finish = System.nanoTime() - before;
        }
        var segment = new Joiner.Segment(file, request.lasting(range.from(), range.count()));
        return new Place(segment, gaps, finish, PacketSizes.of(file, cancel));
    }

    static int frames(List<Place> places) {
        return places.stream().mapToInt(Place::frames).sum();
    }

    /**
     * Seconds from one frame to the next; what an encoder has still to do at its end is shared out among its frames. Where there are other
     * places the first one tells nothing: in a program that has just begun, its code was not yet compiled there.
     */
    static double perFrame(List<Place> all) {
        List<Place> places = all.size() > 1 ? all.subList(1, all.size()) : all;
        double nanos = 0;
        int frames = 0;
        for (Place place : places) {
            nanos += place.gaps().stream().mapToLong(Long::longValue).sum();
            nanos += Math.max(0, place.finishNanos() - OVERHEAD * 1e9);
            frames += place.frames();
        }
        // the first frame of a place is not timed: it opens files and nets
        return frames == 0 ? 0 : nanos / 1e9 / Math.max(1, frames - places.size());
    }

    /**
     * Bytes of all pictures, by what key frames and others took.
     *
     * @param count frames in all
     * @param gop frames from one key frame to the next
     */
    static double bytes(List<PacketSizes.Sizes> places, long count, int gop) {
        double keyBytes = 0;
        int keys = 0;
        double otherBytes = 0;
        int others = 0;
        for (PacketSizes.Sizes packets : places) {
            for (int n = 0; n < packets.bytes().size(); n++) {
                if (packets.keys().get(n)) {
                    keyBytes += packets.bytes().get(n);
                    keys++;
                } else {
                    otherBytes += packets.bytes().get(n);
                    others++;
                }
            }
        }
        double key = keys == 0 ? 0 : keyBytes / keys;
        double other = others == 0 ? key : otherBytes / others;
        double keysToCome = Math.ceil((double) count / Math.max(1, gop));
        return keysToCome * key + (count - keysToCome) * other;
    }
}
