package awlsmith.core.detail;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Makes light steeper where it changes: adds what a blur by a bell would take away. Bounded, no sample leaves the range that those around it
 * had, so that edges get narrower and nothing rings or overshoots. Surfaces where little happens may be spared, and skin.
 *
 * <p>Source: unsharp masking is common practice, no source; bounds by the neighbourhood after H. Kramer and J. Bruckner, "Iterations of a
 * non-linear transformation for enhancement of digital images", Pattern Recognition 7, 1975; the range of skin: D. Chai and K. N. Ngan, "Face
 * segmentation using skin-color map in videophone applications", IEEE Transactions on Circuits and Systems for Video Technology 9(4), 1999.
 */
public final class SharpenStage implements Stage {
    /** Deviation of surfaces is that of squares of this radius. */
    private static final int AROUND = 2;

    /** Of 255, around the middle: {@code 77..127} and {@code 133..173}. */
    private static final float[] BLUE = {(77 - 128) / 255f, (127 - 128) / 255f};

    private static final float[] RED = {(133 - 128) / 255f, (173 - 128) / 255f};
    /** Beyond the range by so much is no skin any more. */
    private static final float EDGE = 8 / 255f;

    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();

    private final Format format;
    private final Amounts amounts;
    private final Bells bells;
    private final Variances variances = new Variances(AROUND, Lanes.chosen());
    private final int bound;

    /**
     * How much of what.
     *
     * @param radius standard deviation of the bell in samples, 0.3..10
     * @param amount of what is added, 0..5
     * @param threshold what differs by less from its surroundings stays, 0..1
     * @param most by which a sample may move, 0..1
     * @param spare surfaces whose deviation is less than this are spared, 0..1
     * @param skin share by which skin is spared, 0..1
     * @param bounded whether samples stay in the range of those around them
     */
    public record Amounts(
            double radius, double amount, double threshold, double most, double spare, double skin, boolean bounded) {}

    public SharpenStage(Format format, Amounts amounts) {
        this.format = format;
        this.amounts = amounts;
        bells = new Bells(amounts.radius());
        bound = Math.max(1, (int) Math.round(amounts.radius()));
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        int by = Math.max(bells.reach(), Math.max(bound, AROUND + 1));
        return wanted.grown(by, format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    @Override
    public long sharedBytes() {
        return 5L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame in = input.at(0).cut(held);
        Frame out = in.copy(wanted, in.number(), in.time(), pool);
        Region within = wanted.inside(held);
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < lights; p++) {
            sharpen(in, p, within, out.plane(p), pool, work);
        }
        return out;
    }

    private void sharpen(Frame in, int p, Region within, Plane out, PlanePool pool, Work work) {
        Plane own = in.plane(p);
        int width = within.width();
        Plane soft = pool.borrow(width, within.height());
        bells.blur(own, within, soft, pool, work);
        Plane least = null;
        Plane most = null;
        if (amounts.bounded()) {
            least = pool.borrow(width, within.height());
            most = pool.borrow(width, within.height());
            Extremes.of(own, bound, false, within, least, pool, work);
            Extremes.of(own, bound, true, within, most, pool, work);
        }
        Plane low = least;
        Plane high = most;
        work.bands(within.height(), 16, (from, to) -> {
            float[] share = new float[width];
            for (int y = from; y < to; y++) {
                work.cancel().check();
                share(in, own, within, y, share);
                row(own, within, soft, low, high, y, share, out);
            }
        });
        pool.giveBack(soft);
        if (least != null) {
            pool.giveBack(least);
            pool.giveBack(most);
        }
    }

    private void row(Plane own, Region within, Plane soft, Plane least, Plane most, int y, float[] share, Plane out) {
        int i = own.row(within.y() + y) + within.x();
        int s = soft.row(y);
        int o = out.row(y);
        float threshold = (float) amounts.threshold();
        float limit = (float) amounts.most();
        int x = 0;
        if (Lanes.chosen() == Lanes.VECTOR) {
            for (; x + STEP <= share.length; x += STEP) {
                FloatVector light = FloatVector.fromArray(SPECIES, own.data(), i + x);
                FloatVector detail = light.sub(FloatVector.fromArray(SPECIES, soft.data(), s + x));
                FloatVector passed =
                        detail.sub(threshold).max(0).add(detail.add(threshold).min(0));
                FloatVector made = light.add(passed.mul(FloatVector.fromArray(SPECIES, share, x))
                        .min(limit)
                        .max(-limit));
                if (least != null) {
                    made = made.min(FloatVector.fromArray(SPECIES, most.data(), most.row(y) + x))
                            .max(FloatVector.fromArray(SPECIES, least.data(), least.row(y) + x));
                }
                made.intoArray(out.data(), o + x);
            }
        }
        for (; x < share.length; x++) {
            float light = own.data()[i + x];
            float detail = light - soft.data()[s + x];
            // what passes the threshold begins at nothing, so that no step shows
            float passed = Math.max(0, detail - threshold) + Math.min(0, detail + threshold);
            float move = Math.max(-limit, Math.min(limit, share[x] * passed));
            float made = light + move;
            if (least != null) {
                made = Math.max(least.data()[least.row(y) + x], Math.min(most.data()[most.row(y) + x], made));
            }
            out.data()[o + x] = made;
        }
    }

    /** How much is added to each sample of a row. */
    private void share(Frame in, Plane own, Region within, int y, float[] share) {
        float amount = (float) amounts.amount();
        float spare = (float) (amounts.spare() * amounts.spare());
        if (spare == 0) {
            Arrays.fill(share, amount);
        } else {
            variances.row(own, within.y() + y, within.x(), share);
            for (int x = 0; x < share.length; x++) {
                share[x] = amount * share[x] / (share[x] + spare);
            }
        }
        if (amounts.skin() > 0 && format.chroma() != Chroma.GREY) {
            for (int x = 0; x < share.length; x++) {
                share[x] *= (float) (1 - amounts.skin() * skin(in, within.x() + x, within.y() + y));
            }
        }
    }

    /** How much a colour is that of skin, 0..1. */
    private float skin(Frame in, int x, int y) {
        float blue;
        float red;
        if (format.chroma() == Chroma.RGB) {
            float r = in.plane(0).at(x, y);
            float g = in.plane(1).at(x, y);
            float b = in.plane(2).at(x, y);
            // differences of ITU-R BT.601, which the range was found in
            float luma = 0.299f * r + 0.587f * g + 0.114f * b;
            blue = (b - luma) * 0.564f;
            red = (r - luma) * 0.713f;
        } else {
            int u = Math.min(in.plane(1).width() - 1, x / format.chroma().stepX());
            int v = Math.min(in.plane(1).height() - 1, y / format.chroma().stepY());
            blue = in.plane(1).at(u, v);
            red = in.plane(2).at(u, v);
        }
        return Math.min(inside(blue, BLUE), inside(red, RED));
    }

    private static float inside(float value, float[] range) {
        float beyond = Math.max(range[0] - value, value - range[1]);
        return Math.clamp(1 - beyond / EDGE, 0f, 1f);
    }
}
