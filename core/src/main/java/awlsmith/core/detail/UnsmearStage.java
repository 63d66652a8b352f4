package awlsmith.core.detail;

import awlsmith.core.motion.Flow;
import awlsmith.core.motion.FlowFinder;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/**
 * Takes the blur of motion out of the light: where things go is found in the frames before and after, how far while the shutter was open follows, and
 * the picture is looked for that would look as it does, smeared so. What does not move stays as it is, and so does what moves in a way that both neighbours
 * do not tell alike.
 *
 * <p>Source: L. Landweber, "An iteration formula for Fredholm integral equations of the first kind", American Journal of Mathematics 73, 1951: what the
 * smeared guess lacks is smeared and added, {@value #TIMES} times, which brings back little of what is nearly lost and so leaves noise nearly as it is;
 * then calmed as {@link TotalVariation} does. Shape: whole pictures in, any part out.
 */
public final class UnsmearStage implements Stage {
    private static final int TIMES = 16;
    /** Steps are calmed by this weight in the end, luma. */
    private static final float CALM = 0.01f;
    /** Ways of this length, samples, begin to be undone, and are wholly. */
    private static final float FROM = 0.8f;

    private static final float WHOLLY = 1.6f;
    /** Longer ways leave too little. */
    private static final float LONGEST = 32;
    /** How far both neighbours may tell differently: samples, and share of the way. */
    private static final float UNLIKE = 0.6f;

    private static final float UNLIKE_SHARE = 0.15f;

    private final Format format;
    private final float open;

    /** @param degrees of a turn that the shutter was open, more than 0, at most 360 */
    public UnsmearStage(Format format, double degrees) {
        if (!(degrees > 0 && degrees <= 360)) {
            throw new IllegalArgumentException(
                    "a shutter of " + degrees + " degrees, must be more than 0, at most 360");
        }
        this.format = format;
        this.open = (float) (degrees / 360);
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public int before() {
        return 1;
    }

    @Override
    public int after() {
        return 1;
    }

    @Override
    public Region needs(Region output) {
        return format.whole();
    }

    /** Motion both ways, the way, and planes of guesses. */
    @Override
    public long sharedBytes() {
        return 14L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame out = here.copy(wanted, here.number(), here.time(), pool);
        Way way = way(in, work);
        if (way == null) {
            return out;
        }
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < lights; p++) {
            Plane sharp = sharp(here.plane(p), way.smear, pool, work);
            mix(here.plane(p), sharp, way.trust, wanted, out.plane(p));
            pool.giveBack(sharp);
        }
        return out;
    }

    /** @param trust share of what is undone that is taken, 0..1 */
    private record Way(Smear smear, Plane trust) {}

    /** Null where there is no neighbour, or nothing goes far enough. */
    private Way way(Neighbours in, Work work) {
        Frame here = in.at(0);
        boolean isBefore = in.at(-1).number() != here.number();
        boolean isAfter = in.at(1).number() != here.number();
        if (!isBefore && !isAfter) {
            return null;
        }
        Flow after = isAfter ? FlowFinder.find(here.light(), in.at(1).light(), work) : null;
        Flow before = isBefore ? FlowFinder.find(here.light(), in.at(-1).light(), work) : null;
        int width = format.width();
        int height = format.height();
        Plane right = Plane.of(width, height);
        Plane down = Plane.of(width, height);
        Plane trust = Plane.of(width, height);
        boolean moves = false;
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                float u = after != null ? after.u().at(x, y) : -before.u().at(x, y);
                float v = after != null ? after.v().at(x, y) : -before.v().at(x, y);
                float unlike = 0;
                if (after != null && before != null) {
                    float bu = -before.u().at(x, y);
                    float bv = -before.v().at(x, y);
                    unlike = (float) Math.hypot(u - bu, v - bv);
                    u = (u + bu) / 2;
                    v = (v + bv) / 2;
                }
                float far = (float) Math.hypot(u, v);
                float length = open * far;
                float may = UNLIKE + UNLIKE_SHARE * far;
                float sure = Math.clamp(2 - unlike / may, 0, 1) * Math.clamp(2 - length / LONGEST, 0, 1);
                float share = sure * Math.clamp((length - FROM) / (WHOLLY - FROM), 0, 1);
                trust.set(x, y, share);
                // what is not undone is not smeared either, so that it lends nothing
                right.set(x, y, share > 0 ? u * open / 2 : 0);
                down.set(x, y, share > 0 ? v * open / 2 : 0);
                moves |= share > 0;
            }
        }
        return moves ? new Way(new Smear(right, down), trust) : null;
    }

    private static Plane sharp(Plane smeared, Smear smear, PlanePool pool, Work work) {
        int width = smeared.width();
        int height = smeared.height();
        Plane guess = pool.borrow(width, height);
        Plane lacks = pool.borrow(width, height);
        Plane more = pool.borrow(width, height);
        for (int y = 0; y < height; y++) {
            guess.takeRow(y, smeared, y);
        }
        for (int time = 0; time < TIMES; time++) {
            smear.of(guess, lacks, work);
            DeblurStage.combine(smeared, lacks, -1, lacks, work);
            smear.of(lacks, more, work);
            DeblurStage.combine(guess, more, 1, guess, work);
        }
        TotalVariation.calm(guess, CALM, more, pool, work);
        pool.giveBack(guess);
        pool.giveBack(lacks);
        return more;
    }

    private static void mix(Plane was, Plane sharp, Plane trust, Region wanted, Plane out) {
        for (int y = 0; y < wanted.height(); y++) {
            for (int x = 0; x < wanted.width(); x++) {
                int atX = wanted.x() + x;
                int atY = wanted.y() + y;
                float share = trust.at(atX, atY);
                if (share > 0) {
                    float old = was.at(atX, atY);
                    out.set(x, y, old + share * (sharp.at(atX, atY) - old));
                }
            }
        }
    }
}
