package awlsmith.server.compare;

import awlsmith.core.compare.Against;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import awlsmith.media.Clip;
import awlsmith.server.clips.ReferenceClips;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;

/** Holds treated frames against the clean file of the same scene. */
@Service
class References {
    /** Largest part compared, in treated pixels. */
    private static final int MOST_WIDTH = 1280;

    private static final int MOST_HEIGHT = 720;
    private static final int LEAST = 32;

    private final ReferenceClips references;
    private final Stills stills;

    References(ReferenceClips references, Stills stills) {
        this.references = references;
        this.stills = stills;
    }

    /**
     * A treated frame held against the reference's frame of the same number, at the treated picture's size.
     *
     * @return empty without a reference, or where it has no such frame or no luma
     */
    Optional<Against> against(UUID id, Recipe recipe, Format out, Placement place, int frame, String viewer) {
        Optional<Clip> reference = references.of(id);
        boolean fits = reference
                .filter(clip -> frame < clip.index().orElseThrow().count())
                .filter(clip -> clip.format().chroma() != Chroma.RGB && out.chroma() != Chroma.RGB)
                .isPresent();
        if (!fits) {
            return Optional.empty();
        }
        int left = (int) Math.ceil(Math.max(0, place.x()));
        int top = (int) Math.ceil(Math.max(0, place.y()));
        int right = (int) Math.floor(Math.min(out.width(), place.x() + place.width()));
        int bottom = (int) Math.floor(Math.min(out.height(), place.y() + place.height()));
        int width = Math.min(MOST_WIDTH, right - left);
        int height = Math.min(MOST_HEIGHT, bottom - top);
        if (width < LEAST || height < LEAST) {
            return Optional.empty();
        }
        Region part = new Region(left + (right - left - width) / 2, top + (bottom - top - height) / 2, width, height);
        Region aligned = part.aligned(out.chroma(), out.width(), out.height());
        return Optional.of(stills.look(id, recipe, frame, 0, aligned, viewer, (made, work) -> {
            Plane truth = truth(reference.get(), frame, out, place, part, work);
            Region inside = new Region(part.x() - aligned.x(), part.y() - aligned.y(), width, height);
            return Against.of(truth, made.plane(0).window(inside));
        }));
    }

    private static Plane truth(Clip clip, int frame, Format out, Placement place, Region part, Work work) {
        Format format = clip.format();
        double across = format.width() / place.width();
        double down = format.height() / place.height();
        var resampler = new PlaneResampler(
                TapTable.of(kernel(across), format.width(), out.width(), across, -place.x() * across),
                TapTable.of(kernel(down), format.height(), out.height(), down, -place.y() * down));
        Plane luma = Plane.of(part.width(), part.height());
        var pool = new PlanePool(0);
        try (FrameStream stream = clip.open(FrameRange.single(frame), format.whole(), pool, work.cancel())) {
            var truth = stream.next()
                    .orElseThrow(() -> new Refusal(
                            Refusal.Kind.CONFLICT, "the reference's frame " + frame + " cannot be decoded"));
            resampler.resample(truth.plane(0), 0, 0, luma, part.x(), part.y(), work);
        }
        return luma;
    }

    private static Kernel kernel(double step) {
        return step > 1 ? Kernel.AREA : Kernel.CATMULL_ROM;
    }
}
