package awlsmith.core.upscale;

import awlsmith.core.colour.LumaChroma;
import awlsmith.core.model.Correction;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelStage;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.EnlargeStage;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Enlarges every plane plainly and adds a model's correction to the light: to luma, or to red, green and blue alike,
 * which changes luma by the same amount; halved chroma is sharpened by the luma beside it. Works in tiles that overlap by
 * the model's reach, so that no seam can be and memory does not grow with the picture. A model that reads several frames is shown
 * the neighbours laid over this one along the motion.
 */
public final class UpscaleStage implements ModelStage {
    private final Format input;
    private final Format output;
    private final EnlargeStage plain;
    private final GuidedChroma guided;
    private final ModelCard card;
    private final Correction correction;
    private final float strength;
    private final boolean neighboursHelp;
    private final Softness softness;

    /** @param strength share of the correction that is added: 0 leaves the plain enlargement, 1 is what was learned */
    public UpscaleStage(Format input, ModelCard card, NetRunner net, double strength) {
        this(input, card, net, strength, true, Softness.unknown());
    }

    /**
     * @param neighboursHelp false shows a model that reads several frames this one alone, as of a still
     * @param softness what a model is told that can be told
     */
    public UpscaleStage(
            Format input, ModelCard card, NetRunner net, double strength, boolean neighboursHelp, Softness softness) {
        this.softness = softness;
        this.neighboursHelp = neighboursHelp && strength > 0 && card.frames() > 1;
        this.input = input;
        this.card = card;
        correction = new Correction(card, net, strength, input.width(), input.height());
        this.strength = (float) strength;
        output = input.withSize(input.width() * card.factor(), input.height() * card.factor(), input.sar())
                .withScan(Scan.PROGRESSIVE);
        plain = new EnlargeStage(input, output, card.base());
        guided = GuidedChroma.isOf(input) ? new GuidedChroma(input, output, card.base()) : null;
    }

    @Override
    public Optional<ModelCard> model() {
        return Optional.of(card);
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public long workBytes() {
        return correction.bytes();
    }

    /** The neighbours as they are laid, and the padded copies that the laying works on. */
    @Override
    public long sharedBytes() {
        return card.frames() == 1 ? 0 : (card.frames() + 2L) * Float.BYTES * input.width() * input.height();
    }

    @Override
    public int before() {
        return neighboursHelp ? FramesAround.radius(card.frames()) : 0;
    }

    @Override
    public int after() {
        return before();
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new EnlargeStage(plane, output.alphaAlone(), card.base()));
    }

    @Override
    public Region needs(Region wanted) {
        Region all = seen(wanted).around(plain.needs(wanted));
        if (guided != null) {
            all = all.around(guided.needs(wanted));
        }
        return all.aligned(input.chroma(), input.width(), input.height());
    }

    @Override
    public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
        Frame in = neighbours.at(0);
        Frame out = plain.treat(neighbours, wanted, pool, work);
        if (strength == 0) {
            return out;
        }
        Region part = correction.around(small(wanted));
        var lights = new Lights(neighbours, seen(wanted), pool);
        List<Plane> shown = FramesAround.shown(
                lights::at, lights.hold, input.width(), input.height(), part, card.frames(), pool, work);
        if (card.told()) {
            shown.add(pool.borrow(part.width(), part.height()).fill(softness.sample()));
        }
        correction.add(shown, part, small(wanted), out, pool, work);
        shown.subList(1, shown.size()).forEach(pool::giveBack);
        lights.giveBack();
        if (guided != null) {
            guided.add(in, out, strength, pool, work);
        }
        return out;
    }

    /** What of the input the model is shown for a part of the output, and what its neighbours are laid by. */
    private Region seen(Region wanted) {
        return FramesAround.needs(correction.around(small(wanted)), card.frames(), input.width(), input.height())
                .aligned(input.chroma(), input.width(), input.height());
    }

    /** The light of the frames around, each made once. */
    private final class Lights {
        private final Neighbours frames;
        private final Region hold;
        private final PlanePool pool;
        private final Map<Long, Plane> made = new HashMap<>();

        Lights(Neighbours frames, Region hold, PlanePool pool) {
            this.frames = frames;
            this.hold = hold;
            this.pool = pool;
        }

        Plane at(int distance) {
            Frame frame = frames.at(neighboursHelp ? distance : 0);
            return made.computeIfAbsent(frame.number(), n -> {
                Frame held = frame.cut(hold);
                return input.chroma() == Chroma.RGB ? luma(held, pool) : held.plane(0);
            });
        }

        void giveBack() {
            if (input.chroma() == Chroma.RGB) {
                made.values().forEach(pool::giveBack);
            }
        }
    }

    private Region small(Region wanted) {
        int f = card.factor();
        int x = wanted.x() / f;
        int y = wanted.y() / f;
        return new Region(x, y, Math.ceilDiv(wanted.right(), f) - x, Math.ceilDiv(wanted.bottom(), f) - y);
    }

    private static Plane luma(Frame rgb, PlanePool pool) {
        LumaChroma weights = LumaChroma.of(ColourTags.Matrix.BT709);
        float r = (float) weights.luma(1, 0, 0);
        float g = (float) weights.luma(0, 1, 0);
        float b = (float) weights.luma(0, 0, 1);
        Plane red = rgb.plane(0);
        Plane out = pool.borrow(red.width(), red.height());
        for (int y = 0; y < red.height(); y++) {
            int at = out.row(y);
            int ir = red.row(y);
            int ig = rgb.plane(1).row(y);
            int ib = rgb.plane(2).row(y);
            for (int x = 0; x < red.width(); x++) {
                out.data()[at + x] = r * red.data()[ir + x]
                        + g * rgb.plane(1).data()[ig + x]
                        + b * rgb.plane(2).data()[ib + x];
            }
        }
        return out;
    }
}
