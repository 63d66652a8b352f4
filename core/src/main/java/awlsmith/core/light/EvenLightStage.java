package awlsmith.core.light;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * Evens out exposure that jumps from frame to frame: the levels of light of a frame are led to the mean of those of the frames
 * around it, as far as they show the same scene. A frame that flashes comes back to its neighbours; a fade, which goes on the
 * same way before and after, stays one.
 *
 * <p>Source: J. Delon, "Movie and video scale-time equalization, application to flicker reduction", IEEE Transactions on Image
 * Processing 15(1), 2006; there with every level of light, here with {@value LightLook#LEVELS} of them and straight lines between.
 */
public final class EvenLightStage implements Stage {
    private static final int STEPS = 768;
    /** Levels nearer than this are one; a curve between them would be steep for nothing. */
    private static final float APART = 0.004f;

    private final Format format;
    private final int reach;
    private final float strength;

    /**
     * @param reach frames looked at on each side, 1..12
     * @param strength share of the way that a frame's light is led, 0..1
     */
    public EvenLightStage(Format format, int reach, double strength) {
        if (reach < 1 || reach > 12 || !(strength >= 0 && strength <= 1)) {
            throw new IllegalArgumentException(
                    "reach is " + reach + " and strength " + strength + ", must be 1..12 and 0..1");
        }
        this.format = format;
        this.reach = reach;
        this.strength = (float) strength;
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public int before() {
        return reach;
    }

    @Override
    public int after() {
        return reach;
    }

    /** Light is that of whole pictures, so that every part of a frame is led alike. */
    @Override
    public Region needs(Region output) {
        return format.whole();
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame from = here.cut(wanted);
        Frame out = Frame.blank(format, wanted, in.number(), here.time(), pool);
        float[] curve = curve(in, work);
        int lit = format.chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < out.planes().size(); p++) {
            Plane source = from.plane(p);
            Plane to = out.plane(p);
            boolean led = p < lit;
            work.bands(to.height(), 32, (first, end) -> {
                for (int y = first; y < end; y++) {
                    if (led) {
                        lead(source, to, y, curve);
                    } else {
                        to.takeRow(y, source, y);
                    }
                }
            });
        }
        return out;
    }

    private static void lead(Plane from, Plane to, int y, float[] curve) {
        int a = from.row(y);
        int b = to.row(y);
        float scale = (float) (STEPS / LightLook.SPAN);
        float floor = (float) LightLook.FLOOR;
        for (int x = 0; x < to.width(); x++) {
            float v = from.data()[a + x];
            float at = Math.clamp((v - floor) * scale, 0, STEPS - 1);
            int step = (int) at;
            to.data()[b + x] = v + curve[step] + (at - step) * (curve[step + 1] - curve[step]);
        }
    }

    /** What is added at each step of light. */
    private float[] curve(Neighbours in, Work work) {
        LightLook here = look(in, 0);
        LightLook[] before = side(in, here, -1, work);
        LightLook[] after = side(in, here, 1, work);
        // as many on either side: what rises steadily has its own light for its mean
        int both = Math.min(before.length, after.length);
        float[] own = new float[LightLook.LEVELS];
        float[] more = new float[LightLook.LEVELS];
        for (int k = 0; k < LightLook.LEVELS; k++) {
            own[k] = here.level(k);
            more[k] = strength * (wanted(here, before, after, both, k) - own[k]);
        }
        return drawn(own, more);
    }

    /** The mean of the middle half of a level's values around a frame, so that a flash among them does not count. */
    private static float wanted(LightLook here, LightLook[] before, LightLook[] after, int both, int k) {
        float[] values = new float[2 * both + 1];
        values[0] = here.level(k);
        for (int d = 0; d < both; d++) {
            values[2 * d + 1] = before[d].level(k);
            values[2 * d + 2] = after[d].level(k);
        }
        Arrays.sort(values);
        int cut = values.length / 4;
        float sum = 0;
        for (int i = cut; i < values.length - cut; i++) {
            sum += values[i];
        }
        return sum / (values.length - 2 * cut);
    }

    private static float[] drawn(float[] own, float[] more) {
        float[] curve = new float[STEPS + 1];
        int k = 0;
        for (int i = 0; i <= STEPS; i++) {
            float v = (float) (LightLook.FLOOR + LightLook.SPAN * i / STEPS);
            while (k + 2 < own.length && v > own[k + 1]) {
                k++;
            }
            if (v <= own[0]) {
                curve[i] = more[0];
            } else if (v >= own[own.length - 1]) {
                curve[i] = more[own.length - 1];
            } else {
                float gap = own[k + 1] - own[k];
                float share = gap < APART ? 0.5f : Math.clamp((v - own[k]) / gap, 0, 1);
                curve[i] = more[k] + share * (more[k + 1] - more[k]);
            }
        }
        return curve;
    }

    /** The looks of the frames on one side, nearest first, as far as the scene goes and the clip. */
    private LightLook[] side(Neighbours in, LightLook here, int way, Work work) {
        var looks = new LightLook[reach];
        LightLook last = here;
        long number = in.at(0).number();
        for (int d = 1; d <= reach; d++) {
            work.cancel().check();
            Frame frame = in.at(way * d);
            if (frame.number() != number + (long) way * d) {
                // past the clip's end the last frame is given again
                return Arrays.copyOf(looks, d - 1);
            }
            LightLook look = look(in, way * d);
            boolean same = way > 0 ? last.isSameScene(look) : look.isSameScene(last);
            if (!same) {
                return Arrays.copyOf(looks, d - 1);
            }
            looks[d - 1] = look;
            last = look;
        }
        return looks;
    }

    /** Of a frame that many others look at too. */
    private static LightLook look(Neighbours in, int distance) {
        return in.remember(distance, "look", () -> LightLook.of(in.at(distance).light()));
    }
}
