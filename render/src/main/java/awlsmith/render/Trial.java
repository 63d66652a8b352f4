package awlsmith.render;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.media.FinalEncoding;
import awlsmith.media.MediaException;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;

/**
 * Tells how long a render will take and how large its file will be by making a little of it: some frames at several places, treated by the
 * recipe and coded as the file will be.
 */
public final class Trial {
    /** Frames of a few that are tried. */
    private static final int TRIED = 3;

    /** Seconds that starting, putting together and reading back take beside the frames, as measured with small files. */
    private static final double FINISHING = 1.0;

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
        return switch (request.deliverable().taking()) {
            case SOUND, SOURCE -> new Found(FINISHING, request.plan(machine).fileBytes(), 0);
            case FEW -> few();
            case ALL -> {
                int most = Math.min(96, request.deliverable().gop() * 2);
                var samples = new Samples(request, request.parts(), machine, cancel);
                yield found(samples.make(budget, most), request.outputRange().count());
            }
        };
    }

    /** By some of the frames that it takes, made as they will be; the first of them opens files and nets and is not timed, where there are more. */
    private Found few() {
        Chain chain = request.treatment().chain();
        List<Long> picks = request.deliverable().picks(request.outputRange());
        int tried = Math.min(TRIED, picks.size());
        double seconds = 0;
        for (int n = 0; n < tried; n++) {
            long begun = System.nanoTime();
            var one = new FrameRange(picks.get(n), picks.get(n) + 1);
            try (var stream =
                    chain.open(request.clip(), one, chain.output().whole(), machine.planes(), machine.work(cancel))) {
                stream.next().ifPresent(frame -> frame.release(machine.planes()));
            }
            if (n > 0 || tried == 1) {
                seconds += (System.nanoTime() - begun) / 1e9;
            }
        }
        double each = seconds / Math.max(1, tried - 1);
        return new Found(FINISHING + picks.size() * each, request.plan(machine).fileBytes(), tried);
    }

    /** Of what is coded at the end, from parts without loss. @param seconds and bytes of one frame */
    private record AtEnd(double seconds, double bytes) {}

    private AtEnd atEnd(List<Samples.Place> places, long count, int made) throws IOException {
        Deliverable deliverable = request.deliverable();
        var coding = new FinalEncoding(
                places.stream().map(Samples.Place::file).toList(),
                request.fileFormat(),
                request.outputRate(),
                deliverable,
                request.scratch().resolve("coding"),
                machine.threads());
        double length = request.lasting(request.outputRange().from(), count).toDouble();
        long bits = request.bitsAtEnd(length);
        long begun = System.nanoTime();
        double bytes;
        if (deliverable.container().isOfStills()) {
            bytes = coding.pictures((doing, frames) -> {}, cancel).stream()
                    .mapToLong(file -> file.toFile().length())
                    .sum();
        } else {
            coding.look(bits, (doing, frames) -> {}, cancel);
            bytes = coding.write(bits, (doing, frames) -> {}, cancel).toFile().length();
        }
        double seconds = (System.nanoTime() - begun) / 1e9 - Samples.OVERHEAD;
        return new AtEnd(Math.max(0, seconds) / made, bits > 0 ? bits / 8.0 * length / count : bytes / made);
    }

    private Found found(List<Samples.Place> places, long count) throws IOException {
        int made = Samples.frames(places);
        double sound = request.soundBits()
                / 8
                * request.lasting(request.outputRange().from(), count).toDouble();
        double seconds = count * Samples.perFrame(places) + FINISHING;
        if (!request.deliverable().isCodedInParts()) {
            AtEnd end = atEnd(places, count, made);
            return new Found(seconds + count * end.seconds(), Math.round(count * end.bytes() + sound), made);
        }
        var packets = places.stream().map(Samples.Place::packets).toList();
        double bytes = Samples.bytes(packets, count, request.deliverable().gop());
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
