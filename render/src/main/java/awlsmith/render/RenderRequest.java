package awlsmith.render;

import awlsmith.core.model.ModelStage;
import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.TimeCode;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.RenderPlan;
import awlsmith.core.plan.Sound;
import awlsmith.core.plan.Subtitles;
import awlsmith.core.plan.Tags;
import awlsmith.core.plan.Taking;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.HardwareCoders;
import awlsmith.media.Joiner;
import awlsmith.media.KeyFrames;
import awlsmith.media.MediaException;
import awlsmith.media.PacketCopy;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * One file to make.
 *
 * @param treatment what is done with it
 * @param range frames of the clip to send out
 * @param out where the finished file goes; its ending names the container
 * @param scratch folder for finished segments; what lies there from an earlier run of the same request is used again
 * @param segmentFrames frames to a segment
 * @param damaged whether a clip that promises more frames than decode is rendered all the same
 * @param called what pictures in an archive are called, before their numbers
 */
public record RenderRequest(
        Clip clip,
        Treatment treatment,
        FrameRange range,
        Deliverable deliverable,
        Path out,
        Path scratch,
        int segmentFrames,
        boolean damaged,
        String called) {
    /** With pictures called as the file is. */
    public RenderRequest(
            Clip clip,
            Treatment treatment,
            FrameRange range,
            Deliverable deliverable,
            Path out,
            Path scratch,
            int segmentFrames,
            boolean damaged) {
        this(clip, treatment, range, deliverable, out, scratch, segmentFrames, damaged, base(out));
    }

    private static String base(Path out) {
        String name = out.getFileName().toString();
        return name.contains(".") ? name.substring(0, name.lastIndexOf('.')) : name;
    }

    /** The same with pictures called otherwise. @param name of a file, with its ending */
    public RenderRequest called(String name) {
        return new RenderRequest(
                clip, treatment, range, deliverable, out, scratch, segmentFrames, damaged, base(Path.of(name)));
    }

    /** Of the size wanted: what containers need, and what encoders miss it by. */
    static final double AIM = 0.985;

    /** A second; encoders refuse less. */
    static final long LEAST_BITS = 20_000;

    /** With nets in the form that is quickest here; of a clip whose damage is known. */
    public RenderRequest(
            Clip clip,
            Recipe recipe,
            FrameRange range,
            Deliverable deliverable,
            Path out,
            Path scratch,
            int segmentFrames) {
        this(clip, recipe.on(clip.material()), range, deliverable, out, scratch, segmentFrames, false);
    }

    public RenderRequest {
        Container container = Container.byEnding(ending(out))
                .orElseThrow(() -> new MediaException("'" + out.getFileName()
                        + "' says nothing about its container; the file's ending must be one of "
                        + Arrays.stream(Container.values())
                                .map(one -> "." + one.ending())
                                .collect(Collectors.joining(", "))));
        var holding = deliverable.codec().containers();
        if (!holding.contains(container)) {
            throw new MediaException(deliverable.codec().label() + " cannot stand in ." + ending(out)
                    + "; choose a name that ends in ." + holding.getFirst().ending());
        }
        deliverable = deliverable.in(container);
        if (segmentFrames < 1) {
            throw new IllegalArgumentException("segmentFrames is " + segmentFrames + ", must be at least 1");
        }
    }

    /** The same in segments of so many frames. */
    public RenderRequest withSegments(int frames) {
        return new RenderRequest(clip, treatment, range, deliverable, out, scratch, frames, damaged, called);
    }

    /** The same with its parts in another folder. */
    public RenderRequest in(Path folder) {
        return new RenderRequest(clip, treatment, range, deliverable, out, folder, segmentFrames, damaged, called);
    }

    static String ending(Path file) {
        String name = file.getFileName().toString();
        return name.substring(name.lastIndexOf('.') + 1).toLowerCase(java.util.Locale.ROOT);
    }

    public RenderRequest with(NetForm other) {
        return with(treatment.with(other));
    }

    public RenderRequest with(Treatment other) {
        return new RenderRequest(clip, other, range, deliverable, out, scratch, segmentFrames, damaged, called);
    }

    /** That nets run in. */
    NetForm form() {
        return treatment.form();
    }

    /** Frames to be made, counted in output frames from the clip's start. */
    public FrameRange outputRange() {
        return treatment.chain().outputOf(range);
    }

    /** Whether it is of the clip from its first frame to its last. */
    boolean isWhole() {
        boolean toEnd = range.isOpen()
                || clip.index().filter(index -> range.end() >= index.count()).isPresent();
        return range.from() == 0 && toEnd;
    }

    /** Frames a second going out, or empty when they come unevenly. */
    public Optional<Rational> outputRate() {
        return treatment.times().rate();
    }

    /**
     * Seconds that output frames last.
     *
     * @param first of them
     * @param count of them
     */
    Rational lasting(long first, long count) {
        Timing times = treatment.times();
        return times.at(first + count).minus(times.at(first));
    }

    public Format fileFormat() {
        return deliverable.fileFormat(treatment.output(), clip.format().height());
    }

    /** What it will make and take. */
    public RenderPlan plan(Machine machine) {
        var video = clip.info().video();
        long frames = range.isOpen() ? Math.max(1, clip.info().expectedFrames() - range.from()) : range.count();
        long bits = video.bitRate() > 0 ? video.bitRate() : clip.info().bitRate();
        Chain chain = treatment.chain();
        FrameRange going = chain.outputOf(new FrameRange(range.from(), range.from() + frames));
        long made = going.count();
        Rational rate = outputRate().orElseGet(() -> mean(going).orElse(video.rate()));
        RenderPlan plan = RenderPlan.of(chain, deliverable, rate, made, bits, machine.threads(), machine.memoryLimit());
        if (deliverable.container().isPictures() && outputRate().isEmpty()) {
            plan = plan.warning(
                    List.of("the frames come unevenly, and numbered pictures hold no times: bring them to an"
                            + " even rate with the step Frame rate, or what is made of them will run unevenly"));
        }
        plan = plan.warning(
                deliverable.tags().untold(deliverable.container()).stream().toList());
        if (deliverable.taking() == Taking.SOUND) {
            plan = soundAlone(plan);
        }
        if (deliverable.taking() == Taking.SOURCE) {
            plan = asCoded(plan);
        }
        plan = burnt(plan)
                .refusing(HardwareCoders.refusal(deliverable, plan.output()).stream()
                        .toList());
        // at another pace it is coded anew in any case
        boolean asItIs = deliverable.sound() == Sound.KEPT && chain.speed().equals(Rational.ONE);
        return asItIs ? plan.warning(Joiner.recoded(clip.info(), out)) : plan;
    }

    /** What of the source's packets holds the span. @throws MediaException with a sentence when it cannot be cut */
    KeyFrames.Piece piece(Cancel cancel) {
        int count = clip.index()
                .orElseThrow(() -> new IllegalStateException("packets are copied of clips that were read"))
                .count();
        return KeyFrames.of(clip.info(), cancel)
                .around(range, count)
                .orElseThrow(
                        () -> new MediaException(
                                "this file's packets are not its frames one by one, so it cannot go out as it is coded; choose a codec"));
    }

    /** The same of other frames of the clip. */
    RenderRequest with(FrameRange other) {
        return new RenderRequest(clip, treatment, other, deliverable, out, scratch, segmentFrames, damaged, called);
    }

    private RenderPlan asCoded(RenderPlan plan) {
        if (treatment.recipe().steps().stream().anyMatch(Step::on)) {
            return plan.refusing(List.of(
                    "as it is coded, no step can change the pictures: switch the steps off, or choose a codec"));
        }
        Optional<String> wrong = PacketCopy.refusal(clip.info(), deliverable.container());
        if (wrong.isPresent()) {
            return plan.refusing(List.of(wrong.get()));
        }
        try {
            FrameRange piece = piece(new Cancel()).frames();
            long before = range.from() - piece.from();
            long behind = piece.end() - range.end();
            return before == 0 && behind == 0
                    ? plan
                    : plan.warning(List.of("it can be cut at key frames alone: it begins " + before
                            + " frames before the span and ends " + behind + " behind it"));
        } catch (MediaException e) {
            return plan.refusing(List.of(e.getMessage()));
        }
    }

    /** Whether the source's words are drawn into the pictures. */
    boolean isBurnt() {
        return deliverable.subtitles() == Subtitles.BURNT
                && deliverable.taking() == Taking.ALL
                && clip.info().words().isPresent();
    }

    private RenderPlan burnt(RenderPlan plan) {
        if (deliverable.subtitles() != Subtitles.BURNT || deliverable.taking() != Taking.ALL) {
            return plan;
        }
        if (clip.info().words().isEmpty()) {
            return clip.info().extras().subtitles().isEmpty()
                    ? plan
                    : plan.refusing(
                            List.of(
                                    "the subtitles of this clip are pictures, which are not drawn in here; let them go along in MKV"));
        }
        if (treatment.output().alpha().isThere()) {
            return plan.refusing(List.of("subtitles are drawn into opaque pictures; put the step Transparency, over a"
                    + " colour, at the end, or let them go along"));
        }
        return plan;
    }

    private RenderPlan soundAlone(RenderPlan plan) {
        int tracks = clip.info().sounds().size();
        if (tracks == 0) {
            return plan.refusing(List.of("this clip has no sound that could go out alone; choose a codec of pictures"));
        }
        if (deliverable.sound() == Sound.NONE) {
            return plan.refusing(List.of("sound alone wants sound: choose what it is coded as"));
        }
        Container container = deliverable.container();
        RenderPlan weighed = plan.weighing(Math.round(soundBits() / 8 * plan.seconds()));
        return tracks <= container.mostTracks()
                ? weighed
                : weighed.warning(List.of("the clip has " + tracks + " sound tracks and " + container.label()
                        + " holds one: the first goes out. MKA holds all of them"));
    }

    /** Bits a second that sound will take in its file, by what the source says of its own. */
    double soundBits() {
        var along = new Joiner.Along(
                clip.info(),
                Rational.ZERO,
                Rational.ONE,
                false,
                deliverable.sound(),
                treatment.chain().speed(),
                outputRate(),
                Optional.empty(),
                "",
                Tags.NONE);
        return Joiner.soundBits(along, out);
    }

    /** The label of the first frame going out, where frames come evenly and at a rate that has labels. */
    Optional<TimeCode> firstLabel() {
        if (clip.steadyRate().isEmpty() || outputRate().isEmpty()) {
            return Optional.empty();
        }
        return clip.info()
                .extras()
                .timecode()
                .flatMap(text -> TimeCode.parse(text, clip.steadyRate().get()))
                .flatMap(code -> code.plus(range.from()).at(outputRate().get()));
    }

    /** Bits a second of pictures that are coded at the end to a rate or a size; 0 where quality decides. @param seconds it lasts */
    long bitsAtEnd(double seconds) {
        boolean hasRule = deliverable.codec().params().stream()
                .anyMatch(param -> param.key().equals("by"));
        return switch (hasRule ? deliverable.setting("by") : "") {
            case "bitrate" -> Math.round(Double.parseDouble(deliverable.setting("bitrate")) * 1e6);
            case "size" -> {
                double bytes = AIM * Double.parseDouble(deliverable.setting("size")) * 1e6 - soundBits() / 8 * seconds;
                yield Math.max(LEAST_BITS, Math.round(8 * bytes / Math.max(0.001, seconds)));
            }
            default -> 0;
        };
    }

    /** What its parts are: the file's own, or without loss where it is coded from all of them at the end. */
    Deliverable parts() {
        return deliverable.isCodedInParts() ? deliverable.with(Sound.NONE) : Deliverable.of("ffv1", Map.of(), false);
    }

    /** Bytes that its file needs beside the treated frames, roughly: its layout's planes and the raw pictures that wait. */
    long ownBytes() {
        Format file = fileFormat();
        return 2 * file.floatBytes() + (long) RenderPlan.FRAMES_IN_FLIGHT * new RawLayout(file).frameBytes();
    }

    /** Frames a second of uneven ones, in the mean; empty where nobody knows their times. */
    private Optional<Rational> mean(FrameRange frames) {
        if (clip.index().isEmpty()) {
            return Optional.empty();
        }
        Rational seconds = lasting(frames.from(), frames.count());
        return seconds.isPositive() ? Optional.of(Rational.of(frames.count()).dividedBy(seconds)) : Optional.empty();
    }

    /** What the file says of itself in its description. */
    String comment() {
        String steps = treatment.recipe().steps().stream()
                .filter(Step::on)
                .map(step -> step.kind() + " " + step.settings().given())
                .collect(Collectors.joining("; "));
        boolean nets = treatment.chain().stages().stream()
                .anyMatch(stage ->
                        stage.inner() instanceof ModelStage with && with.model().isPresent());
        return "Awlsmith " + Engine.VERSION + (steps.isEmpty() ? "" : ": " + steps)
                + (nets ? "; nets in " + form().words() : "");
    }
}
