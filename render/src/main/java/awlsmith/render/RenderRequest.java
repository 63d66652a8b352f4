package awlsmith.render;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.RenderPlan;
import awlsmith.core.recipe.Recipe;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Map;

/**
 * One file to make.
 *
 * @param range frames of the clip to send out
 * @param out where the finished file goes; its ending names the container
 * @param scratch folder for finished segments; what lies there from an earlier run of the same request is used again
 * @param segmentFrames frames to a segment
 */
public record RenderRequest(
        Clip clip,
        Recipe recipe,
        FrameRange range,
        Deliverable deliverable,
        Path out,
        Path scratch,
        int segmentFrames) {
    /** Containers by ending, with the codecs that may stand in each. */
    private static final Map<String, java.util.Set<Deliverable.Codec>> CONTAINERS = Map.of(
            "mp4", java.util.Set.of(Deliverable.Codec.H264),
            "mov", java.util.Set.of(Deliverable.Codec.H264),
            "mkv", java.util.Set.of(Deliverable.Codec.H264, Deliverable.Codec.FFV1));

    public RenderRequest {
        var codecs = CONTAINERS.get(ending(out));
        if (codecs == null) {
            throw new MediaException("the file's ending must be .mp4, .mov or .mkv; '" + out.getFileName()
                    + "' says nothing about its container");
        }
        if (!codecs.contains(deliverable.codec())) {
            throw new MediaException(deliverable.codec().label() + " cannot stand in ." + ending(out)
                    + "; choose a name that ends in .mkv");
        }
        if (segmentFrames < 1) {
            throw new IllegalArgumentException("segmentFrames is " + segmentFrames + ", must be at least 1");
        }
    }

    static String ending(Path file) {
        String name = file.getFileName().toString();
        return name.substring(name.lastIndexOf('.') + 1).toLowerCase(java.util.Locale.ROOT);
    }

    /** The recipe's stages and behind them what the file's layout needs. */
    public Chain chain() {
        Chain treated = recipe.chain(clip.format());
        var stages = new ArrayList<Stage>(treated.stages());
        stages.addAll(LayoutStages.between(treated.output(), fileFormat(treated)));
        return new Chain(clip.format(), stages);
    }

    public Format fileFormat(Chain treated) {
        return deliverable.fileFormat(treated.output(), clip.format().height());
    }

    /** What it will make and take. */
    public RenderPlan plan(Machine machine) {
        var video = clip.info().video();
        long frames = range.isOpen() ? Math.max(1, clip.info().expectedFrames() - range.from()) : range.count();
        long bits = video.bitRate() > 0 ? video.bitRate() : clip.info().bitRate();
        Rational rate = clip.steadyRate().orElse(video.rate());
        return RenderPlan.of(
                recipe.chain(clip.format()), deliverable, rate, frames, bits, machine.threads(), machine.memoryLimit());
    }
}
