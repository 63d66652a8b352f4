package awlsmith.core.clean;

import awlsmith.core.model.Correction;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelStage;
import awlsmith.core.model.NetRunner;
import awlsmith.core.motion.Alignment;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.upscale.FramesAround;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Repairs what a lossy codec did: blocks, rings, mosquitoes, what one frame lost and its neighbours still have. A net is shown the
 * frame, four neighbours laid over it along the motion, and how coarsely the codec rounded, see {@link #told}; colour differences, laid by luma's motion, are
 * shown to the same net around the middle of the light.
 */
public final class RepairStage implements ModelStage {
    /** Planes that a net is shown. */
    public static final int SHOWN = 6;

    /** Planes that a net is shown which is told how soft the picture is, too. */
    public static final int SHOWN_SOFT = SHOWN + 1;

    /** Frames among them. */
    public static final int FRAMES = SHOWN - 1;

    /** Told when nobody knows how coarsely the codec rounded, or how soft the picture is. */
    public static final float UNKNOWN = 0;

    /** Deviation of the blur, in samples, of the softest that can be told. */
    public static final double SOFTEST = 2.5;

    /** Told values lie well apart from 0, which says that nothing is known. */
    private static final double LEAST = 0.2;

    private static final double COARSEST = 8;

    /** Colour differences are shown around the middle of the light. */
    private static final float MIDDLE = 0.5f;

    private final Format format;
    private final ModelCard card;
    private final Correction correction;
    /** Of the planes of colour differences; null where there are none, or they are left as they are. */
    private final Correction colours;

    private final List<Float> told;

    /**
     * @param strength share of the correction that is added
     * @param told values that the net is told, in its order: what {@link #told} gives or {@link #UNKNOWN}, and to nets that read
     *     {@link #SHOWN_SOFT} planes what {@link #soft} gives or {@link #UNKNOWN}
     * @param colour whether colour differences are repaired too, each by the same net
     */
    public RepairStage(
            Format format, ModelCard card, NetRunner net, double strength, List<Float> told, boolean colour) {
        this.format = format;
        this.card = card;
        this.told = List.copyOf(told);
        Chroma chroma = format.chroma();
        correction = new Correction(card, net, strength, format.width(), format.height());
        colours = colour && chroma.isDifference(1)
                ? new Correction(
                        card,
                        net,
                        strength,
                        chroma.planeWidth(1, format.width()),
                        chroma.planeHeight(1, format.height()))
                : null;
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

    /**
     * What a net is told of how soft a picture is: 0.2 for as sharp as it can be, 1 for the softest.
     *
     * @param blur standard deviation of the bell it is blurred by, in its own samples
     */
    public static float soft(double blur) {
        return (float) (LEAST + (1 - LEAST) * Math.clamp(blur / SOFTEST, 0, 1));
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
        return (2 * FRAMES + 2L) * Float.BYTES * format.width() * format.height();
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
        return Alignment.needs(shown(wanted), format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    /** The part that nets see, of luma's samples and of colours'. */
    private Region shown(Region wanted) {
        Region light = correction.around(wanted);
        if (colours == null) {
            return light;
        }
        Chroma chroma = format.chroma();
        Region own = colours.around(chroma.own(1, wanted));
        return light.around(chroma.luma(1, own, format.width(), format.height()))
                .aligned(chroma, format.width(), format.height());
    }

    @Override
    public Frame treat(Stage.Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame out = here.copy(wanted, here.number(), here.time(), pool);
        var around = new Around(in, shown(wanted), needs(wanted), pool, work);
        int light = format.chroma() == Chroma.RGB ? 1 : 0;
        List<Plane> shown = around.shown(light, 0);
        correction.add(shown, around.part, wanted, out, pool, work);
        shown.forEach(pool::giveBack);
        for (int p = 1; colours != null && p < 3; p++) {
            colour(p, around, out);
        }
        return out;
    }

    private void colour(int p, Around around, Frame out) {
        List<Plane> shown = around.shown(p, MIDDLE);
        Region wanted = format.chroma().own(p, out.window());
        Region part = format.chroma().own(p, around.part);
        Plane plane = out.plane(p);
        Format grey = format.withChroma(Chroma.GREY)
                .withSize(
                        format.chroma().planeWidth(p, format.width()),
                        format.chroma().planeHeight(p, format.height()),
                        format.sar())
                .opaque();
        raise(plane, MIDDLE);
        colours.add(
                shown,
                part,
                wanted,
                new Frame(grey, wanted, List.of(plane), out.number(), out.time()),
                around.pool,
                around.work);
        raise(plane, -MIDDLE);
        shown.forEach(around.pool::giveBack);
    }

    private static void raise(Plane plane, float by) {
        for (int y = 0; y < plane.height(); y++) {
            for (int i = plane.row(y); i < plane.row(y) + plane.width(); i++) {
                plane.data()[i] += by;
            }
        }
    }

    /** The frame and its neighbours, and how these lie over it. */
    private final class Around {
        private final Region part;
        private final Region hold;
        private final PlanePool pool;
        private final Work work;
        private final Frame here;
        private final List<Frame> others = new ArrayList<>();
        private final List<Alignment.Motions> motions = new ArrayList<>();
        private Alignment alignment;

        Around(Stage.Neighbours in, Region part, Region hold, PlanePool pool, Work work) {
            this.part = part;
            this.hold = hold;
            this.pool = pool;
            this.work = work;
            here = in.at(0).cut(hold);
            for (int i = 1; i < FRAMES; i++) {
                Frame other = in.at(FramesAround.distance(i));
                boolean isOther = other.number() != here.number();
                others.add(isOther ? other.cut(hold) : here);
                if (isOther && alignment == null) {
                    alignment = new Alignment(here.light(), hold, format.width(), format.height(), part);
                }
                motions.add(isOther ? alignment.find(others.getLast().light(), hold, work) : null);
            }
        }

        /** What a net sees of a plane over the part, raised by some; all from the pool. */
        List<Plane> shown(int p, float raised) {
            Chroma chroma = format.chroma();
            boolean isLight = !chroma.isDifference(p);
            Region own = chroma.own(p, part);
            Plane centre = here.plane(p).window(own.inside(chroma.own(p, hold)));
            var shown = new ArrayList<Plane>();
            for (int i = 0; i < FRAMES; i++) {
                Plane laid = pool.borrow(own.width(), own.height());
                Alignment.Motions motion = i == 0 ? null : motions.get(i - 1);
                if (motion == null) {
                    for (int y = 0; y < laid.height(); y++) {
                        laid.takeRow(y, centre, y);
                    }
                } else if (isLight) {
                    alignment.lay(motion, laid, work);
                } else {
                    alignment.layOther(
                            motion, others.get(i - 1).plane(p), hold, chroma.stepX(p), chroma.stepY(p), laid, work);
                }
                if (raised != 0) {
                    raise(laid, raised);
                }
                shown.add(laid);
            }
            told.forEach(
                    value -> shown.add(pool.borrow(own.width(), own.height()).fill(value)));
            return shown;
        }
    }
}
