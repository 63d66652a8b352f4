package awlsmith.render;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.media.Encoding;
import awlsmith.media.FinalEncoding;
import awlsmith.media.Joiner;
import awlsmith.media.MediaException;
import awlsmith.media.PacketSizes;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Tells how long a render will take and how large its file will be by making a little of it: some frames at several places, treated by the
 * recipe and coded as the file will be.
 */
public final class Trial {
    /** Of three equal parts of the span, in whose middle something is made, the order: what comes first tells how long the others may be. */
    private static final int[] PLACES = {1, 0, 2};

    /** Fewer do not tell a key frame's bytes from those of the others. */
    private static final int LEAST = 6;

    /** Seconds that starting, putting together and reading back take beside the frames, as measured with small files. */
    private static final double FINISHING = 1.0;

    /** Seconds that an encoder takes to start and to end beside its frames, at the least. */
    private static final double OVERHEAD = 0.15;

    private final RenderRequest request;
    private final Machine machine;
    private final Cancel cancel;

    private Trial(RenderRequest request, Machine machine, Cancel cancel) {
        this.request = request;
        this.machine = machine;
        this.cancel = cancel;
    }

    /**
     * @param seconds of the whole render
     * @param fileBytes of the file; sound counted by what the source's says of itself
     * @param frames that were made for it
     */
    public record Found(double seconds, long fileBytes, int frames) {}

    /** Of one place. @param gaps nanoseconds from each frame to the next, treated and handed to the encoder */
    private record Place(
            Joiner.Segment file, List<Long> gaps, long finishNanos, List<Long> packets, List<Boolean> keys) {}

    /**
     * @param request of a clip with an index; its scratch folder gets what is made, and is emptied again
     * @param budget seconds that it may take, roughly
     */
    public static Found of(RenderRequest request, Machine machine, double budget, Cancel cancel) {
        var trial = new Trial(request, machine, cancel);
        try {
            Files.createDirectories(request.scratch());
            return trial.run(budget);
        } catch (IOException e) {
            throw new MediaException("the disk refused what is tried: " + e.getMessage(), e);
        } finally {
            trial.sweep();
        }
    }

    private Found run(double budget) throws IOException {
        FrameRange whole = request.outputRange();
        long count = whole.count();
        var places = new ArrayList<Place>();
        long begun = System.nanoTime();
        int made = 0;
        int each = (int) Math.min(LEAST, count);
        int most = Math.max(each, Math.min(96, request.deliverable().gop() * 2));
        for (int p = 0; p < PLACES.length; p++) {
            double spent = (System.nanoTime() - begun) / 1e9;
            if (p > 0 && (spent > budget || made >= count)) {
                break;
            }
            if (p > 0) {
                double left = (budget - spent) / (PLACES.length - p);
                double frame = perFrame(places);
                each = (int) Math.clamp(left / Math.max(1e-4, frame), LEAST, most);
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
        return found(places, count, made);
    }

    private Place place(FrameRange range, Path file) throws IOException {
        Chain chain = request.treatment().chain();
        var output = new Output(request, SegmentFolder.as(request));
        var gaps = new ArrayList<Long>();
        long finish;
        try (var stream = chain.open(
                        request.clip(), range, chain.output().whole(), machine.planes(), machine.work(cancel));
                var encoding = new Encoding(
                        file, request.fileFormat(), request.outputRate(), request.parts(), Engine.CODING_THREADS)) {
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
        var packets = PacketSizes.of(file, cancel);
        var segment = new Joiner.Segment(file, request.lasting(range.from(), range.count()));
        return new Place(segment, gaps, finish, packets.bytes(), packets.keys());
    }

    /** Seconds from one frame to the next; what an encoder has still to do at its end is shared out among its frames. */
    private static double perFrame(List<Place> places) {
        double nanos = 0;
        int frames = 0;
        for (Place place : places) {
            nanos += place.gaps().stream().mapToLong(Long::longValue).sum();
            nanos += Math.max(0, place.finishNanos() - OVERHEAD * 1e9);
            frames += place.gaps().size() + 1;
        }
        // the first frame of a place is not timed: it opens files and nets
        return frames == 0 ? 0 : nanos / 1e9 / Math.max(1, frames - places.size());
    }

    /** Of what is coded at the end, from parts without loss. @param seconds and bytes of one frame */
    private record AtEnd(double seconds, double bytes) {}

    private AtEnd atEnd(List<Place> places, long count, int made) throws IOException {
        Deliverable deliverable = request.deliverable();
        var coding = new FinalEncoding(
                places.stream().map(Place::file).toList(),
                request.fileFormat(),
                request.outputRate(),
                deliverable,
                request.scratch().resolve("coding"),
                machine.threads());
        double length = request.lasting(request.outputRange().from(), count).toDouble();
        long bits = request.bitsAtEnd(length);
        long begun = System.nanoTime();
        double bytes;
        if (deliverable.container().isPictures()) {
            bytes = coding.pictures((doing, frames) -> {}, cancel).stream()
                    .mapToLong(file -> file.toFile().length())
                    .sum();
        } else {
            coding.look(bits, (doing, frames) -> {}, cancel);
            bytes = coding.write(bits, (doing, frames) -> {}, cancel).toFile().length();
        }
        double seconds = (System.nanoTime() - begun) / 1e9 - OVERHEAD;
        return new AtEnd(Math.max(0, seconds) / made, bits > 0 ? bits / 8.0 * length / count : bytes / made);
    }

    private Found found(List<Place> places, long count, int made) throws IOException {
        double sound = request.soundBits()
                / 8
                * request.lasting(request.outputRange().from(), count).toDouble();
        double seconds = count * perFrame(places) + FINISHING;
        if (!request.deliverable().isCodedInParts()) {
            AtEnd end = atEnd(places, count, made);
            return new Found(seconds + count * end.seconds(), Math.round(count * end.bytes() + sound), made);
        }
        double keyBytes = 0;
        int keys = 0;
        double otherBytes = 0;
        int others = 0;
        for (Place place : places) {
            for (int n = 0; n < place.packets().size(); n++) {
                if (place.keys().get(n)) {
                    keyBytes += place.packets().get(n);
                    keys++;
                } else {
                    otherBytes += place.packets().get(n);
                    others++;
                }
            }
        }
        double key = keys == 0 ? 0 : keyBytes / keys;
        double other = others == 0 ? key : otherBytes / others;
        double keysToCome =
                Math.ceil((double) count / Math.max(1, request.deliverable().gop()));
        double bytes = keysToCome * key + (count - keysToCome) * other;
        return new Found(seconds, Math.round(bytes + sound), made);
    }

    private void sweep() {
        try {
            Folders.remove(request.scratch());
        } catch (IOException e) {
            // it is swept by a later start
        }
    }
}
