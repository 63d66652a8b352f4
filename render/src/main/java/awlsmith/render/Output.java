package awlsmith.render;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.TimeCode;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.media.Joiner;
import awlsmith.media.ReadBack;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;

/** One of the files that a treatment goes into: what is its own behind the frames that all of them share. */
final class Output {
    private final RenderRequest request;
    private final SegmentFolder segments;
    private final List<Stage> layout;
    private final RawLayout raw;

    /** @param segments finished so far, and where more go */
    Output(RenderRequest request, SegmentFolder segments) {
        this.request = request;
        this.segments = segments;
        this.layout = LayoutStages.between(request.treatment().output(), request.fileFormat());
        this.raw = new RawLayout(request.fileFormat());
    }

    RenderRequest request() {
        return request;
    }

    SegmentFolder segments() {
        return segments;
    }

    /** Of its raw pictures. */
    RawLayout raw() {
        return raw;
    }

    /**
     * Packs a treated frame as its file wants it.
     *
     * @param treated stays the caller's
     * @param into gets the code values
     */
    void pack(Frame treated, byte[] into, PlanePool pool, Work work) {
        Frame now = treated;
        for (Stage stage : layout) {
            Frame from = now;
            now = stage.treat(distance -> from, stage.output().whole(), pool, work);
            if (from != treated) {
                from.release(pool);
            }
        }
        Frame last = now;
        for (int p = 0; p < last.planes().size(); p++) {
            int plane = p;
            work.bands(last.plane(p).height(), 128, (from, to) -> raw.packRows(last, into, plane, from, to));
        }
        if (last != treated) {
            last.release(pool);
        }
    }

    /**
     * Puts the segments into one file, reads it back and judges it.
     *
     * @param frames in all segments
     */
    Renderer.Result join(long frames, Cancel cancel) throws IOException {
        Path out = request.out();
        Path part = out.resolveSibling("." + out.getFileName() + ".part." + RenderRequest.ending(out));
        try {
            Format file = request.fileFormat();
            Joiner.Along along = along(frames);
            var note = Joiner.join(
                    segments.list(frames), file, request.deliverable().codec(), along, part, request.scratch(), cancel);
            var facts = ReadBack.of(part, cancel);
            new Verdict(request, file, along, frames).demand(facts, cancel);
            Files.move(part, out, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
            return new Renderer.Result(facts.at(out), note, List.of());
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private Joiner.Along along(long frames) {
        var clip = request.clip();
        long first = request.outputRange().from();
        Rational seconds = request.lasting(first, frames);
        // what goes along keeps to the file's clock, on which the pictures need not begin at 0
        Rational start = clip.index()
                .map(index -> index.clock(request.range().from()))
                .orElse(clip.info().video().start());
        return new Joiner.Along(
                clip.info(),
                start,
                seconds,
                request.isWhole(),
                request.deliverable().sound(),
                request.treatment().chain().speed(),
                timecode(),
                request.comment());
    }

    /** The label of the first frame going out, where frames come evenly and at a rate that has labels. */
    private Optional<String> timecode() {
        var clip = request.clip();
        if (clip.steadyRate().isEmpty() || request.outputRate().isEmpty()) {
            return Optional.empty();
        }
        return clip.info()
                .extras()
                .timecode()
                .flatMap(text -> TimeCode.parse(text, clip.steadyRate().get()))
                .flatMap(code -> code.plus(request.range().from())
                        .at(request.outputRate().get()))
                .map(TimeCode::toString);
    }
}
