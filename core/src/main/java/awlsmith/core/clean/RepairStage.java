package awlsmith.core.clean;

import awlsmith.core.model.Correction;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelStage;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.upscale.FramesAround;
import java.util.List;
import java.util.Optional;

/**
 * Repairs what a lossy codec did to the light: blocks, rings, mosquitoes, what one frame lost and its neighbours still have. A net is shown the
 * frame, four neighbours laid over it along the motion, and how coarsely the codec rounded, see {@link #told}.
 */
public final class RepairStage implements ModelStage {
    /** Planes that a net is shown. */
    public static final int SHOWN = 6;

    /** Told when nobody knows how coarsely the codec rounded. */
    public static final float UNKNOWN = 0;

    private static final int FRAMES = SHOWN - 1;
    /** Told values lie well apart from 0, which says that nothing is known. */
    private static final double LEAST = 0.2;

    private static final double COARSEST = 8;

    private final Format format;
    private final ModelCard card;
    private final Correction correction;
    private final float coarse;

    /**
     * @param strength share of the correction that is added
     * @param coarse what {@link #told} gives, or {@link #UNKNOWN}
     */
    public RepairStage(Format format, ModelCard card, NetRunner net, double strength, float coarse) {
        this.format = format;
        this.card = card;
        this.coarse = coarse;
        correction = new Correction(card, net, strength, format.width(), format.height());
    }

    /**
     * What a net is told of how coarsely a codec rounded: 0.2 for steps of 1, 1 for steps of 256, by their logarithm.
     *
     * @param step between values that a codec tells apart, of 255, of its orthonormal transform
     */
    public static float told(double step) {
        double log = Math.clamp(Math.log(step) / Math.log(2) / COARSEST, 0, 1);
        return (float) (LEAST + (1 - LEAST) * log);
    }

    @Override
    public Optional<ModelCard> model() {
        return Optional.of(card);
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public long workBytes() {
        return correction.bytes();
    }

    /** The neighbours as they are laid, and the padded copies that the laying works on. */
    @Override
    public long sharedBytes() {
        return (FRAMES + 2L) * Float.BYTES * format.width() * format.height();
    }

    @Override
    public int before() {
        return FramesAround.radius(FRAMES);
    }

    @Override
    public int after() {
        return before();
    }

    @Override
    public Region needs(Region wanted) {
        return FramesAround.needs(correction.around(wanted), FRAMES, format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    @Override
    public Frame treat(Stage.Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame out = here.copy(wanted, here.number(), here.time(), pool);
        Region part = correction.around(wanted);
        Region hold = needs(wanted);
        Plane light = here.cut(hold).light();
        List<Plane> shown = FramesAround.shown(
                distance -> {
                    Frame frame = in.at(distance);
                    return frame.number() == here.number()
                            ? light
                            : frame.cut(hold).light();
                },
                hold,
                format.width(),
                format.height(),
                part,
                FRAMES,
                pool,
                work);
        shown.add(pool.borrow(part.width(), part.height()).fill(coarse));
        correction.add(shown, part, wanted, out, pool, work);
        shown.subList(1, shown.size()).forEach(pool::giveBack);
        return out;
    }
}
