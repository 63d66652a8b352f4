package awlsmith.render;

import awlsmith.core.mend.EvenFrames;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.media.Clip;
import awlsmith.media.Encoding;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.SoundMezzanine;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleConsumer;

/**
 * Decodes a damaged file as far as it goes and writes it anew without loss: frames at one rate, those that are lost made of
 * their neighbours, sound with silence where it is lost so that both keep in step.
 */
public final class Mending {
    /** Share of the work that finding the frames takes, and that writing them takes; the rest is sound. */
    private static final double FOUND = 0.3;

    private static final double WRITTEN = 0.95;

    private final Path source;

    public Mending(Path source) {
        this.source = source;
    }

    /**
     * What was done.
     *
     * @param frames that the new file holds
     * @param made those of them that were made of their neighbours, by their numbers
     * @param missing frames that the file promises behind its last one, which nothing could be made of
     */
    public record Result(long frames, List<Integer> made, long missing) {}

    /**
     * @param out Matroska file to write; its folder takes the parts meanwhile
     * @param progress hears shares of the whole, 0..1
     * @throws MediaException when nothing of it can be read
     * @throws Cancel.Stopped when asked to stop
     */
    public Result make(Path out, Machine machine, DoubleConsumer progress, Cancel cancel) throws IOException {
        MediaInfo info = Prober.probe(source);
        long expected = Math.max(1, info.expectedFrames());
        var index =
                Indexer.index(info, found -> progress.accept(FOUND * Math.min(1, (double) found / expected)), cancel);
        var clip = new Clip(info, Optional.of(index));
        var even = even(clip, index);
        Path pictures = out.resolveSibling("pictures-" + out.getFileName());
        Path sound = out.resolveSibling("sound-" + out.getFileName());
        try {
            Deliverable lossless = Deliverable.usual(Codecs.FFV1);
            write(pictures, clip, even, lossless, machine, progress, cancel);
            boolean silent = info.sounds().isEmpty();
            if (!silent) {
                SoundMezzanine.write(info, index.clock(0), even.seconds(), sound, cancel);
            }
            SoundMezzanine.join(pictures, silent ? Optional.empty() : Optional.of(sound), out, cancel);
            progress.accept(1);
            return new Result(
                    even.count(),
                    Arrays.stream(even.madePlaces()).boxed().toList(),
                    Math.max(0, info.expectedFrames() - even.count()));
        } finally {
            Files.deleteIfExists(pictures);
            Files.deleteIfExists(sound);
        }
    }

    private static EvenFrames even(Clip clip, FrameIndex index) {
        try {
            return new EvenFrames(
                    clip, clip::time, index.count(), clip.info().video().rate());
        } catch (IllegalArgumentException e) {
            throw new MediaException(e.getMessage() + "; repair it without making up frames", e);
        }
    }

    private static void write(
            Path out,
            Clip clip,
            EvenFrames even,
            Deliverable lossless,
            Machine machine,
            DoubleConsumer progress,
            Cancel cancel) {
        Format format = clip.format();
        var layout = new RawLayout(format);
        byte[] raw = new byte[layout.frameBytes()];
        long done = 0;
        try (var encoding = new Encoding(out, format, Optional.of(even.rate()), lossless, machine.threads());
                var frames = even.open(new FrameRange(0, even.count()), format.whole(), machine.planes(), cancel)) {
            for (Optional<Frame> frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                cancel.check();
                layout.pack(frame.get(), raw);
                frame.get().release(machine.planes());
                encoding.write(raw, Rational.ZERO);
                done++;
                progress.accept(FOUND + (WRITTEN - FOUND) * done / even.count());
            }
            encoding.finish(cancel);
        }
    }
}
