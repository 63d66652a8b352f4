package awlsmith.core.alpha;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.List;

/**
 * Changes how colour goes with transparency, pixel by pixel: weighs it by opacity, undoes that, or lays the picture over one colour.
 * Source: T. Porter and T. Duff, "Compositing digital images", SIGGRAPH 1984 (over). It is done on coded values, as editing
 * programs do (common practice, no source).
 */
public final class AlphaStage implements Stage {
    /** Below half a code of 8 bits nothing is left of a colour that was weighed. */
    private static final float LEAST = 0.5f / 255;

    private final Format input;
    private final Format output;
    /** What shines through, for each plane of colour; zeros where nothing does. */
    private final float[] behind;

    private AlphaStage(Format input, Alpha to, float[] behind) {
        this.input = input;
        this.output = input.withAlpha(to);
        this.behind = behind;
    }

    /**
     * @param input straight or premultiplied
     * @param to the other of the two
     */
    public static AlphaStage to(Alpha to, Format input) {
        if (!input.alpha().isThere() || !to.isThere()) {
            throw new IllegalArgumentException("from " + input.alpha() + " to " + to + " needs a colour behind");
        }
        return new AlphaStage(input, to, new float[input.chroma().planes()]);
    }

    /**
     * Lays pictures over one colour.
     *
     * @param behind a sample for each plane, as the picture's own
     */
    public static AlphaStage over(float[] behind, Format input) {
        if (!input.alpha().isThere() || behind.length != input.chroma().planes()) {
            throw new IllegalArgumentException(
                    input.alpha() + " over " + behind.length + " samples, wants transparency and one a plane");
        }
        return new AlphaStage(input, Alpha.NONE, behind.clone());
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public Region needs(Region wanted) {
        return wanted;
    }

    @Override
    public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
        Frame in = neighbours.at(0).cut(wanted);
        Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
        var opacity = new Opacity(in, pool);
        for (int p = 0; p < input.chroma().planes(); p++) {
            Plane from = in.plane(p);
            Plane to = out.plane(p);
            Plane weight = opacity.at(p);
            float under = behind[p];
            work.bands(to.height(), 32, (first, end) -> {
                for (int y = first; y < end; y++) {
                    for (int x = 0; x < to.width(); x++) {
                        to.set(x, y, sample(from.at(x, y), weight.at(x, y), under));
                    }
                }
            });
        }
        if (output.alpha().isThere()) {
            for (int y = 0; y < wanted.height(); y++) {
                out.planes().getLast().takeRow(y, in.planes().getLast(), y);
            }
        }
        opacity.giveBack();
        return out;
    }

    private float sample(float value, float weight, float under) {
        if (output.alpha() == input.alpha()) {
            return value;
        }
        if (output.alpha() == Alpha.STRAIGHT) {
            return weight < LEAST ? 0 : value / weight;
        }
        float weighed = input.alpha() == Alpha.PREMULTIPLIED ? value : value * weight;
        return weighed + (1 - weight) * under;
    }

    /** What brings pictures to another form of transparency; empty where they have it. Without any they lie over black, 0 in every plane. */
    public static List<Stage> between(Format from, Alpha to) {
        if (from.alpha() == to || !from.alpha().isThere()) {
            return List.of();
        }
        return List.of(
                to.isThere() ? to(to, from) : over(new float[from.chroma().planes()], from));
    }
}
