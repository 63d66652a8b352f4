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
import awlsmith.core.recipe.Step;
import awlsmith.core.upscale.ModelStage;
import awlsmith.core.upscale.Models;
import awlsmith.core.upscale.NetForm;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Map;
import java.util.Optional;

/**
 * One file to make.
 *
 * @param range frames of the clip to send out
 * @param out where the finished file goes; its ending names the container
 * @param scratch folder for finished segments; what lies there from an earlier run of the same request is used again
 * @param segmentFrames frames to a segment
 * @param form that nets run in
 * @param damaged whether a clip that promises more frames than decode is rendered all the same
 */
public record RenderRequest(
        Clip clip,
        Recipe recipe,
        FrameRange range,
        Deliverable deliverable,
        Path out,
        Path scratch,
        int segmentFrames,
        NetForm form,
        boolean damaged) {
    /** Containers by ending, with the codecs that may stand in each. */
    private static final Map<String, java.util.Set<Deliverable.Codec>> CONTAINERS = Map.of(
            "mp4", java.util.Set.of(Deliverable.Codec.H264),
            "mov", java.util.Set.of(Deliverable.Codec.H264),
            "mkv", java.util.Set.of(Deliverable.Codec.H264, Deliverable.Codec.FFV1));

    /** With nets in the form that is quickest here; of a clip whose damage is known. */
    public RenderRequest(
            Clip clip,
            Recipe recipe,
            FrameRange range,
            Deliverable deliverable,
            Path out,
            Path scratch,
            int segmentFrames) {
        this(clip, recipe, range, deliverable, out, scratch, segmentFrames, Models.quickest(), false);
    }

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

    public RenderRequest with(NetForm other) {
        return new RenderRequest(clip, recipe, range, deliverable, out, scratch, segmentFrames, other, damaged);
    }

    /** The recipe's stages alone. */
    Chain treated() {
        return recipe.chain(clip.format(), form);
    }

    /** The recipe's stages and behind them what the file's layout needs. */
    public Chain chain() {
        Chain treated = treated();
        var stages = new ArrayList<Stage>(treated.stages());
        stages.addAll(LayoutStages.between(treated.output(), fileFormat(treated)));
        return new Chain(clip.format(), stages);
    }

    /** Frames to be made, counted in output frames from the clip's start. */
    public FrameRange outputRange() {
        return treated().outputOf(range);
    }

    /** Whether it is of the clip from its first frame to its last. */
    boolean isWhole() {
        boolean toEnd = range.isOpen()
                || clip.index().filter(index -> range.end() >= index.count()).isPresent();
        return range.from() == 0 && toEnd;
    }

    /** Frames a second going out, or empty when they come unevenly. */
    public Optional<Rational> outputRate() {
        Rational factor = treated().rate();
        return clip.steadyRate().map(rate -> rate.times(factor));
    }

    /** Seconds from the clip's first frame to an output frame. */
    Rational outputTime(Chain chain, long output) {
        return clip.steadyRate()
                .map(rate -> Rational.of(output).dividedBy(rate.times(chain.rate())))
                .orElseGet(() -> unevenTime(chain.position(output)));
    }

    private Rational unevenTime(Rational position) {
        long before = position.floor();
        int count = clip.index().orElseThrow().count();
        if (before >= count) {
            return clip.time(count);
        }
        Rational rest = position.minus(Rational.of(before));
        Rational at = clip.time(before);
        return at.plus(rest.times(clip.time(before + 1).minus(at)));
    }

    public Format fileFormat(Chain treated) {
        return deliverable.fileFormat(treated.output(), clip.format().height());
    }

    /** What it will make and take. */
    public RenderPlan plan(Machine machine) {
        var video = clip.info().video();
        long frames = range.isOpen() ? Math.max(1, clip.info().expectedFrames() - range.from()) : range.count();
        long bits = video.bitRate() > 0 ? video.bitRate() : clip.info().bitRate();
        Chain chain = treated();
        Rational rate = clip.steadyRate().orElse(video.rate()).times(chain.rate());
        long made = chain.outputOf(new FrameRange(range.from(), range.from() + frames))
                .count();
        RenderPlan plan = RenderPlan.of(chain, deliverable, rate, made, bits, machine.threads(), machine.memoryLimit());
        return video.alpha()
                ? plan.warned("the file can hold transparency (alpha), which is not treated yet: it will be lost")
                : plan;
    }

    /** What the file says of itself in its description. */
    String comment() {
        String steps = recipe.steps().stream()
                .filter(Step::on)
                .map(step -> step.kind() + " " + step.settings().given())
                .collect(java.util.stream.Collectors.joining("; "));
        boolean nets = treated().stages().stream()
                .anyMatch(stage ->
                        stage instanceof ModelStage with && with.model().isPresent());
        return "Awlsmith " + Engine.VERSION + (steps.isEmpty() ? "" : ": " + steps)
                + (nets ? "; nets in " + form.words() : "");
    }
}
