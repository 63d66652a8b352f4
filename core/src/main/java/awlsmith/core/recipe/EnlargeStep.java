package awlsmith.core.recipe;

import awlsmith.core.detail.SmoothStage;
import awlsmith.core.model.MixedNet;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.plan.TargetSize;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaceStage;
import awlsmith.core.upscale.Softness;
import awlsmith.core.upscale.UpscaleStage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Enlarges (or reduces) by a factor, to a number of lines, or to a size in pixels; plainly with a kernel, or with a model
 * in as many passes as it takes and a kernel for what is over.
 */
final class EnlargeStep implements StepKind {
    private static final String PLAIN = "none";
    /** Crisp, so that edges stay firm, and its surfaces calmed; quality where a model has no crisp. */
    private static final String SMOOTH = "smooth";
    /** Radius of surfaces that are calmed, in samples of what comes out, for each time it is larger; at most what the stage takes. */
    private static final double SMOOTH_RADIUS = 2;

    private static final int SMOOTH_MOST = 16;
    /** Deviation up to which surfaces are calmed, and share of their texture that goes. */
    private static final double SMOOTH_SURFACE = 8.0 / 255;

    private static final double SMOOTH_AMOUNT = 0.75;
    /** Per cent of made texture. */
    private static final int USUAL_TEXTURE = 70;

    private static final String CINEMA = "cinema";
    /** Source: Digital Cinema Initiatives, "Digital Cinema System Specification", image structure, 4K container. */
    private static final int CINEMA_WIDTH = 4096;

    private static final int CINEMA_HEIGHT = 2160;
    private static final Param.Real FACTOR = new Param.Real(
            "factor", "Factor", "x", 0.125, 8, null, "times wider and higher; 2 when nothing else is set");
    private static final Param.Choice TARGET = new Param.Choice(
            "target",
            "Target",
            List.of(
                    new Param.Choice.Option("576p", "576 lines", "within 1024x576, standard definition height"),
                    new Param.Choice.Option("720p", "720 lines", "within 1280x720, small high definition"),
                    new Param.Choice.Option("1080p", "1080 lines", "within 1920x1080, high definition"),
                    new Param.Choice.Option(
                            "1440p", "1440 lines", "within 2560x1440, between high and ultra-high definition"),
                    new Param.Choice.Option("2160p", "2160 lines", "within 3840x2160, ultra-high definition"),
                    new Param.Choice.Option("4320p", "4320 lines", "within 7680x4320, the largest broadcast frame"),
                    new Param.Choice.Option(CINEMA, "4096x2160", "the digital cinema frame")),
            null,
            "as large as it goes in this frame, which stands upright for upright pictures; how another shape goes into it is the fit");
    private static final Param.Whole WIDTH =
            new Param.Whole("width", "Width", "px", 2, 16384, null, "pixels across; alone, the height follows");
    private static final Param.Whole HEIGHT =
            new Param.Whole("height", "Height", "px", 2, 16384, null, "pixels down; alone, the width follows");
    private static final Param.Choice FIT = new Param.Choice(
            "fit",
            "Fit",
            List.of(
                    new Param.Choice.Option("shape", "Keep shape", "the picture alone, its own shape"),
                    new Param.Choice.Option("letterbox", "Letterbox", "the whole picture with black beside it"),
                    new Param.Choice.Option("fill", "Fill", "the whole frame; what overhangs is cut off")),
            "shape",
            "how the picture goes into a target or size of another shape; lines are taken for a 16:9 frame");
    private static final Param.Whole OFFSET = new Param.Whole(
            "offset",
            "Offset",
            "%",
            -100,
            100,
            0L,
            "where the picture lies in the frame: 0 in the middle, -100 its left or top edge seen, 100 its right or bottom");
    private static final Param.Choice PIXELS = new Param.Choice(
            "pixels",
            "Pixels",
            List.of(
                    new Param.Choice.Option("keep", "As they are", "of the same shape as the source's"),
                    new Param.Choice.Option("square", "Square", "the picture as wide as it is meant to be seen")),
            "keep",
            "the shape of the pixels that come out; tape and discs have oblong ones");
    private static final Param.Choice KERNEL = new Param.Choice(
            "kernel",
            "Kernel",
            Arrays.stream(Kernel.values())
                    .map(kernel -> new Param.Choice.Option(kernel.id(), label(kernel), kernel.character()))
                    .toList(),
            Kernel.LANCZOS3.id(),
            "how samples are weighed: crisper ones ring more");

    /** Models at hand when the program started. */
    private static final Param.Choice MODEL = new Param.Choice(
            "model",
            "Model",
            Stream.concat(
                            Stream.of(new Param.Choice.Option(PLAIN, "None", "the kernel alone; adds no detail")),
                            Models.families().stream()
                                    .map(card -> new Param.Choice.Option(card.id(), card.label(), card.purpose())))
                    .toList(),
            PLAIN,
            "what the footage is like; a model restores detail it has learned of such footage");

    private static final Param.Choice MODE = new Param.Choice(
            "mode",
            "Mode",
            List.of(
                    new Param.Choice.Option("quality", "Quality", "the least error"),
                    new Param.Choice.Option("crisp", "Crisp", "stronger edges and texture, a little more error"),
                    new Param.Choice.Option(
                            "made",
                            "Texture made",
                            "texture that could have been there, made up where the picture has none left"),
                    new Param.Choice.Option(SMOOTH, "Smooth", "rough surfaces and skin calmed, edges firm"),
                    new Param.Choice.Option("fast", "Fast", "several times faster, less detail")),
            null,
            "what the model aims at; quality where the model has it");
    private static final Param.Whole TEXTURE = new Param.Whole(
            "texture",
            "Made texture",
            "%",
            0,
            100,
            null,
            "how much of the texture that mode Texture made makes up; 0 none, 100 all; " + USUAL_TEXTURE
                    + " when nothing is set");
    private static final Param.Whole STRENGTH = new Param.Whole(
            "strength",
            "Strength",
            "%",
            0,
            150,
            100L,
            "share of the model's detail that is added; less keeps more of the source as it is");

    private static final Param.Whole SOFTNESS = new Param.Whole(
            "softness",
            "Softness",
            "%",
            0,
            100,
            null,
            "0 sharp to the pixel, 50 made small by a good resize, 80 a little out of focus; told too little it stays soft, too much"
                    + " it rings");

    /** Passes beyond which a model would only work on what it made itself. */
    private static final int MOST_PASSES = 2;

    /** Side beyond which our codecs do not go. */
    private static final int LARGEST_SIDE = 16384;
    /** Pixels of the largest frame that a level of H.264 holds, 139264 macroblocks (ITU-T H.264, table A-1, level 6.2). */
    private static final long LARGEST_FRAME = 139264L * 256;

    @Override
    public String id() {
        return "enlarge";
    }

    @Override
    public String name() {
        return "Enlarge";
    }

    @Override
    public String purpose() {
        return "makes the picture larger, with a model or plainly, or smaller";
    }

    @Override
    public StepGroup group() {
        return StepGroup.ENLARGE;
    }

    @Override
    public List<Param> params() {
        return List.of(
                FACTOR, TARGET, WIDTH, HEIGHT, FIT, OFFSET, PIXELS, MODEL, MODE, TEXTURE, SOFTNESS, STRENGTH, KERNEL);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Format input = given.format();
        var problems = new ArrayList<Problem>();
        boolean pixels = settings.has("width") || settings.has("height");
        int ways = (settings.has("factor") ? 1 : 0) + (settings.has("target") ? 1 : 0) + (pixels ? 1 : 0);
        if (ways > 1) {
            problems.add(Problem.at(
                    "factor",
                    "the size is given in more than one way; keep one of factor, target, or width and height"));
            return problems;
        }
        Format out;
        try {
            out = frame(settings, input);
        } catch (IllegalArgumentException e) {
            out = null;
        }
        if (out == null || isTooLarge(out) && out.whole().area() > input.whole().area()) {
            double most = Math.min(
                    (double) LARGEST_SIDE / Math.max(input.width(), input.height()),
                    Math.sqrt((double) LARGEST_FRAME / input.whole().area()));
            problems.add(Problem.at(
                    pixels ? "width" : settings.has("target") ? "target" : "factor",
                    "enlarging " + input.width() + "x" + input.height() + " that far passes what players can show, "
                            + LARGEST_FRAME / 1_000_000 + " million pixels (about 8192x4352) and " + LARGEST_SIDE
                            + " on a side; the most for this clip is factor "
                            + Words.number(Math.floor(most * 100) / 100)));
        }
        if (withModel(settings) && card(settings).isEmpty()) {
            problems.add(Problem.at(
                    "mode",
                    "the model " + settings.choice(MODEL).orElseThrow() + " has no mode "
                            + settings.choice(MODE).orElseThrow() + "; choose the other"));
        }
        if (settings.has("texture") && !isMade(settings)) {
            problems.add(Problem.at("texture", "only mode made makes texture up; leave this out, or choose that mode"));
        }
        if (settings.has("softness")
                && !(withModel(settings) && card(settings).stream().anyMatch(ModelCard::told))) {
            problems.add(Problem.at(
                    "softness",
                    "only some models can be told how soft the footage is, and this is none of them; leave it out"));
        }
        return problems;
    }

    private static boolean isTooLarge(Format out) {
        return Math.max(out.width(), out.height()) > LARGEST_SIDE || out.whole().area() > LARGEST_FRAME;
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        NetForm form = given.form();
        Format frame = frame(settings, input);
        Format out = size(settings, input);
        var stages = new ArrayList<Stage>();
        Format at = input;
        if (withModel(settings) && out.width() >= input.width() && out.height() >= input.height()) {
            ModelCard card = card(settings).orElseThrow();
            NetRunner net = net(settings, card, form);
            double strength = settings.whole(STRENGTH).orElseThrow() / 100.0;
            do {
                boolean first = stages.isEmpty();
                // a second pass finds no more in the neighbours, and a still would have to make all of them; how soft
                // it is that the first made, no one knows
                stages.add(new UpscaleStage(
                        at, card, net, strength, first, first ? softness(settings) : Softness.unknown()));
                at = stages.getLast().output();
            } while (stages.size() < MOST_PASSES && (at.width() < out.width() || at.height() < out.height()));
        }
        if (stages.isEmpty() || at.width() != out.width() || at.height() != out.height()) {
            stages.add(new EnlargeStage(at, out, kernel(settings)));
        }
        if (withModel(settings) && isMode(settings, SMOOTH)) {
            int radius = (int) Math.round(SMOOTH_RADIUS * out.width() / input.width());
            stages.add(new SmoothStage(out, Math.clamp(radius, 1, SMOOTH_MOST), SMOOTH_SURFACE, SMOOTH_AMOUNT));
        }
        if (frame.width() != out.width() || frame.height() != out.height()) {
            stages.add(new PlaceStage(
                    out,
                    frame,
                    at(frame.width() - out.width(), settings, input.chroma().stepX()),
                    // lines of a field stay lines of that field
                    at(
                            frame.height() - out.height(),
                            settings,
                            input.chroma().stepY() * (out.scan().isInterlaced() ? 2 : 1))));
        }
        return stages;
    }

    /** Without a model, which would make of the source what it makes of the treated picture. */
    @Override
    public List<Stage> beside(Settings settings, Given given, List<Stage> made) {
        if (!withModel(settings)) {
            return made;
        }
        var plain = new LinkedHashMap<>(settings.given());
        List.of(MODEL, MODE, TEXTURE, SOFTNESS, STRENGTH, KERNEL).forEach(param -> plain.remove(param.key()));
        plain.put(KERNEL.key(), Kernel.CATMULL_ROM.id());
        return stages(new Settings(plain), given);
    }

    private static boolean withModel(Settings settings) {
        return !settings.choice(MODEL).orElseThrow().equals(PLAIN);
    }

    private static Optional<ModelCard> card(Settings settings) {
        String model = settings.choice(MODEL).orElseThrow();
        if (isMode(settings, SMOOTH)) {
            return Models.find(model, ModelCard.Mode.CRISP).or(() -> Models.find(model, ModelCard.Mode.QUALITY));
        }
        Optional<String> mode = settings.choice(MODE);
        return mode.isPresent()
                ? Models.find(model, ModelCard.Mode.byId(mode.get()))
                : Models.families().stream()
                        .filter(card -> card.id().equals(model))
                        .findFirst();
    }

    @Override
    public String summary(Settings settings, Given given) {
        Format input = given.format();
        String means = means(settings);
        Optional<String> target = settings.choice(TARGET);
        if (target.isPresent()) {
            return target.get() + fitted(settings, input) + " " + means;
        }
        if (settings.has("width") || settings.has("height")) {
            Format out = frame(settings, input);
            return out.width() + "x" + out.height() + fitted(settings, input) + " " + means;
        }
        return Words.number(settings.real(FACTOR).orElse(2.0)) + "x " + means;
    }

    private static String means(Settings settings) {
        if (!withModel(settings)) {
            return kernel(settings).id();
        }
        String model = settings.choice(MODEL).orElseThrow();
        if (isMade(settings)) {
            return model + ", " + texture(settings) + " % texture made up";
        }
        return settings.choice(MODE)
                .filter(mode -> !mode.equals(ModelCard.Mode.QUALITY.id()))
                .map(mode -> model + " " + mode)
                .orElse(model);
    }

    private static boolean isMade(Settings settings) {
        return isMode(settings, ModelCard.Mode.MADE.id());
    }

    private static boolean isMode(Settings settings, String mode) {
        return settings.choice(MODE).filter(mode::equals).isPresent();
    }

    private static long texture(Settings settings) {
        return settings.whole(TEXTURE).orElse((long) USUAL_TEXTURE);
    }

    /** Of made texture less than all is what the model of least error says, and a share of what the other does to it. */
    private static NetRunner net(Settings settings, ModelCard card, NetForm form) {
        NetRunner net = OpenedModel.of(card, "model", form);
        if (!isMade(settings) || texture(settings) == 100) {
            return net;
        }
        ModelCard plain = Models.find(card.id(), ModelCard.Mode.QUALITY).orElseThrow();
        NetRunner quality = OpenedModel.of(plain, "model", form);
        return new MixedNet(quality, net, texture(settings) / 100f);
    }

    private static Softness softness(Settings settings) {
        return settings.whole(SOFTNESS)
                .map(percent -> Softness.of(percent / 100.0))
                .orElseGet(Softness::unknown);
    }

    private static Kernel kernel(Settings settings) {
        return Kernel.byId(settings.choice(KERNEL).orElseThrow());
    }

    private static String fitted(Settings settings, Format input) {
        return box(settings, input)
                .filter(box -> !fit(settings).equals("shape"))
                .map(box -> " " + fit(settings))
                .orElse("");
    }

    private static String fit(Settings settings) {
        return settings.choice(FIT).orElseThrow();
    }

    /** Width and height of the frame that the picture goes into; none where its own shape says one of them. */
    private static Optional<Size> box(Settings settings, Format input) {
        Optional<Size> named = settings.choice(TARGET).map(EnlargeStep::named);
        if (named.isPresent()) {
            Size size = named.get();
            return Optional.of(TargetSize.isUpright(input) ? new Size(size.height(), size.width()) : size);
        }
        return settings.has("width") && settings.has("height")
                ? Optional.of(new Size(
                        Math.toIntExact(settings.whole(WIDTH).orElseThrow()),
                        Math.toIntExact(settings.whole(HEIGHT).orElseThrow())))
                : Optional.empty();
    }

    private static Size named(String target) {
        return target.equals(CINEMA)
                ? new Size(CINEMA_WIDTH, CINEMA_HEIGHT)
                : new Size(lines(target) * 16 / 9, lines(target));
    }

    private static int lines(String target) {
        return Integer.parseInt(target.substring(0, target.length() - 1));
    }

    private record Size(int width, int height) {}

    /** What comes out: the picture, or the frame it is fitted into. */
    private static Format frame(Settings settings, Format input) {
        Format picture = size(settings, input);
        return box(settings, input)
                .filter(box -> !fit(settings).equals("shape"))
                .map(box -> picture.withSize(
                        even(box.width(), input.chroma().stepX()),
                        even(box.height(), input.chroma().stepY()),
                        Rational.ONE))
                .orElse(picture);
    }

    private static int even(int side, int step) {
        return Math.ceilDiv(side, step) * step;
    }

    /** Where the picture's edge lies, on whole chroma samples. */
    private static int at(int room, Settings settings, int step) {
        double share = (settings.whole(OFFSET).orElseThrow() + 100) / 200.0;
        return (int) Math.round(room * share / step) * step;
    }

    /** The picture's size before anything is cut off it or put beside it. Resized lines belong to no field any more. */
    private static Format size(Settings settings, Format input) {
        Format size = sized(settings, input);
        return size.height() == input.height() ? size : size.withScan(Scan.PROGRESSIVE);
    }

    private static Format sized(Settings settings, Format input) {
        Optional<Size> box = box(settings, input);
        if (box.isPresent() && !fit(settings).equals("shape")) {
            int width = even(box.get().width(), input.chroma().stepX());
            int height = even(box.get().height(), input.chroma().stepY());
            return fit(settings).equals("fill")
                    ? TargetSize.squareCovering(input, width, height)
                    : TargetSize.squareInside(input, width, height);
        }
        boolean square = settings.choice(PIXELS).orElseThrow().equals("square");
        if (settings.has("target")) {
            int width = box.orElseThrow().width();
            int height = box.orElseThrow().height();
            return square ? TargetSize.squareInside(input, width, height) : TargetSize.inside(input, width, height);
        }
        if (settings.has("width") || settings.has("height")) {
            return TargetSize.byPixels(
                    input,
                    Math.toIntExact(settings.whole(WIDTH).orElse(0L)),
                    Math.toIntExact(settings.whole(HEIGHT).orElse(0L)));
        }
        Format larger = TargetSize.byFactor(input, settings.real(FACTOR).orElse(2.0));
        return square ? TargetSize.squared(larger) : larger;
    }

    private static String label(Kernel kernel) {
        String words = kernel.id().replace('-', ' ').replaceAll("(\\d)", " $1");
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }
}
