package awlsmith.core.motion;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Work;

/**
 * Frames at any time between two that follow each other, made along the motion from both. Where both do not show the same, as where
 * one thing comes out from behind another, the nearer in time counts more; between two scenes the nearer frame is repeated.
 *
 * <p>Motion is brought to the time wanted by leading each sample's along itself; where several arrive, the one that fits best stays,
 * and where none does, that of its neighbours. Source: S. Baker et al., "A database and evaluation methodology for optical flow",
 * IJCV 92, 2011, section 3.3.2 (from memory); there from one side alone.
 */
public final class Between {
    /** Mean difference of what both sides show, luma, beyond which they are two scenes. */
    private static final double TWO_SCENES = 0.1;
    /** Difference of both sides from which the nearer one alone counts, luma. */
    private static final float APART = 0.12f;

    private final Frame a;
    private final Frame b;
    private final Flow forth;
    private final Flow back;
    private final Work work;

    /** @param a whole frame; @param b a later one */
    public Between(Frame a, Frame b, Work work) {
        this.a = a;
        this.b = b;
        this.work = work;
        Plane lumaA = a.light();
        Plane lumaB = b.light();
        forth = FlowFinder.find(lumaA, lumaB, 1, work);
        back = FlowFinder.find(lumaB, lumaA, 1, work);
    }

    /**
     * @param share of the time from a to b, 0..1
     * @param number and time of the frame made
     */
    public Frame at(float share, long number, Rational time, PlanePool pool) {
        Flow here = led(share);
        Frame out = Frame.blank(a.format(), a.window(), number, time, pool);
        Plane light = a.light();
        Plane weight = Plane.of(light.width(), light.height());
        if (weighed(here, share, weight) > TWO_SCENES) {
            weight.fill(share < 0.5f ? 0 : 1);
            here = new Flow(Plane.of(light.width(), light.height()), Plane.of(light.width(), light.height()));
        }
        for (int p = 0; p < out.planes().size(); p++) {
            mix(a.plane(p), b.plane(p), out.plane(p), here, weight, share);
        }
        return out;
    }

    /** The motion from a to b of what is seen at a time between them. */
    private Flow led(float share) {
        int width = forth.width();
        int height = forth.height();
        Plane u = Plane.of(width, height);
        Plane v = Plane.of(width, height);
        Plane misfit = Plane.of(width, height).fill(Float.MAX_VALUE);
        Plane from = a.light();
        Plane to = b.light();
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                lead(forth.u().at(x, y), forth.v().at(x, y), x, y, share, 1, from, to, u, v, misfit);
                lead(back.u().at(x, y), back.v().at(x, y), x, y, 1 - share, -1, to, from, u, v, misfit);
            }
        }
        fillHoles(u, v, misfit);
        return new Flow(u, v);
    }

    private static void lead(
            float du,
            float dv,
            int x,
            int y,
            float share,
            int sign,
            Plane from,
            Plane to,
            Plane u,
            Plane v,
            Plane misfit) {
        int tx = Math.round(x + share * du);
        int ty = Math.round(y + share * dv);
        if (tx < 0 || ty < 0 || tx >= u.width() || ty >= u.height()) {
            return;
        }
        float off = Math.abs(from.at(x, y) - Flow.sample(to, x + du, y + dv));
        if (off < misfit.at(tx, ty)) {
            misfit.set(tx, ty, off);
            u.set(tx, ty, sign * du);
            v.set(tx, ty, sign * dv);
        }
    }

    /** From the left and above, then from the right and below: the nearest that is known on that way. */
    private static void fillHoles(Plane u, Plane v, Plane misfit) {
        int width = u.width();
        int height = u.height();
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                take(u, v, misfit, x, y, x - 1, y);
                take(u, v, misfit, x, y, x, y - 1);
            }
        }
        for (int y = height - 1; y >= 0; y--) {
            for (int x = width - 1; x >= 0; x--) {
                take(u, v, misfit, x, y, x + 1, y);
                take(u, v, misfit, x, y, x, y + 1);
            }
        }
    }

    private static void take(Plane u, Plane v, Plane misfit, int x, int y, int fromX, int fromY) {
        boolean inside = fromX >= 0 && fromY >= 0 && fromX < u.width() && fromY < u.height();
        if (inside && misfit.at(x, y) == Float.MAX_VALUE && misfit.at(fromX, fromY) < Float.MAX_VALUE) {
            u.set(x, y, u.at(fromX, fromY));
            v.set(x, y, v.at(fromX, fromY));
            misfit.set(x, y, 1);
        }
    }

    /** Fills in how much of b each sample takes; the mean difference of both sides. */
    private double weighed(Flow flow, float share, Plane weight) {
        Plane lumaA = a.light();
        Plane lumaB = b.light();
        // a fade is no reason for one side alone
        float lighter = (float) (mean(lumaB) - mean(lumaA));
        double[] rows = new double[weight.height()];
        work.bands(weight.height(), 16, (first, end) -> {
            for (int y = first; y < end; y++) {
                for (int x = 0; x < weight.width(); x++) {
                    float u = flow.u().at(x, y);
                    float v = flow.v().at(x, y);
                    float off = Math.abs(lighter
                            + Flow.sample(lumaA, x - share * u, y - share * v)
                            - Flow.sample(lumaB, x + (1 - share) * u, y + (1 - share) * v));
                    rows[y] += off;
                    float lone = Math.min(1, off / APART);
                    weight.set(x, y, share + lone * lone * ((share < 0.5f ? 0 : 1) - share));
                }
            }
        });
        double sum = 0;
        for (double row : rows) {
            sum += row;
        }
        return sum / ((double) weight.width() * weight.height());
    }

    private static double mean(Plane p) {
        double sum = 0;
        for (int y = 0; y < p.height(); y++) {
            for (int x = 0; x < p.width(); x++) {
                sum += p.at(x, y);
            }
        }
        return sum / ((double) p.width() * p.height());
    }

    private void mix(Plane from, Plane to, Plane out, Flow flow, Plane weight, float share) {
        int stepX = Math.ceilDiv(flow.width(), out.width());
        int stepY = Math.ceilDiv(flow.height(), out.height());
        work.bands(out.height(), 16, (first, end) -> {
            for (int y = first; y < end; y++) {
                for (int x = 0; x < out.width(); x++) {
                    int fullX = Math.min(x * stepX, flow.width() - 1);
                    int fullY = Math.min(y * stepY, flow.height() - 1);
                    float u = flow.u().at(fullX, fullY) / stepX;
                    float v = flow.v().at(fullX, fullY) / stepY;
                    float va = Flow.sample(from, x - share * u, y - share * v);
                    float vb = Flow.sample(to, x + (1 - share) * u, y + (1 - share) * v);
                    float ofB = weight.at(fullX, fullY);
                    out.set(x, y, (1 - ofB) * va + ofB * vb);
                }
            }
        });
    }
}
