package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.plan.TargetSize;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.core.upscale.ModelCard;
import awlsmith.core.upscale.ModelUnavailable;
import awlsmith.core.upscale.Models;
import awlsmith.core.upscale.NetRunner;
import awlsmith.core.upscale.UpscaleStage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Enlarges (or reduces) by a factor, to a number of lines, or to a size in pixels; plainly with a kernel, or with a model
 * in as many passes as it takes and a kernel for what is over.
 */
final class EnlargeStep implements StepKind {
    private static final String PLAIN = "none";
    private static final Param.Real FACTOR = new Param.Real(
            "factor", "Factor", "x", 0.125, 8, null, "times wider and higher; 2 when nothing else is set");
    private static final Param.Choice TARGET = new Param.Choice(
            "target",
            "Target",
            List.of(
                    new Param.Choice.Option("576p", "576 lines", "standard definition height"),
                    new Param.Choice.Option("720p", "720 lines", "small high definition height"),
                    new Param.Choice.Option("1080p", "1080 lines", "high definition height"),
                    new Param.Choice.Option("1440p", "1440 lines", "between high and ultra-high definition"),
                    new Param.Choice.Option("2160p", "2160 lines", "ultra-high definition height"),
                    new Param.Choice.Option("4320p", "4320 lines", "the largest broadcast height")),
            null,
            "this many lines; the width follows from the picture's shape");
    private static final Param.Whole WIDTH =
            new Param.Whole("width", "Width", "px", 2, 16384, null, "pixels across; alone, the height follows");
    private static final Param.Whole HEIGHT =
            new Param.Whole("height", "Height", "px", 2, 16384, null, "pixels down; alone, the width follows");
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
                    new Param.Choice.Option("quality", "Quality", "the best picture"),
                    new Param.Choice.Option("fast", "Fast", "several times faster, less detail")),
            null,
            "how much computing the model takes; quality where the model has it");
    private static final Param.Whole STRENGTH = new Param.Whole(
            "strength",
            "Strength",
            "%",
            0,
            150,
            100L,
            "share of the model's detail that is added; less keeps more of the source as it is");

    /** Passes beyond which a model would only work on what it made itself. */
    private static final int MOST_PASSES = 2;

    /** Side beyond which neither our codecs nor most players go. */
    private static final int LARGEST_SIDE = 16384;

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
    public List<Param> params() {
        return List.of(FACTOR, TARGET, WIDTH, HEIGHT, MODEL, MODE, STRENGTH, KERNEL);
    }

    @Override
    public List<Problem> check(Settings settings, Format input) {
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
            out = size(settings, input);
        } catch (IllegalArgumentException e) {
            out = null;
        }
        if (out == null || Math.max(out.width(), out.height()) > LARGEST_SIDE) {
            double most = (double) LARGEST_SIDE / Math.max(input.width(), input.height());
            problems.add(Problem.at(
                    pixels ? "width" : settings.has("target") ? "target" : "factor",
                    "enlarging " + input.width() + "x" + input.height() + " that far passes " + LARGEST_SIDE
                            + " pixels on a side; the most for this clip is factor "
                            + Words.number(Math.floor(most * 100) / 100)));
        }
        if (withModel(settings) && card(settings).isEmpty()) {
            problems.add(Problem.at(
                    "mode",
                    "the model " + settings.choice(MODEL).orElseThrow() + " has no mode "
                            + settings.choice(MODE).orElseThrow() + "; choose the other"));
        }
        return problems;
    }

    @Override
    public List<Stage> stages(Settings settings, Format input) {
        Format out = size(settings, input);
        var stages = new ArrayList<Stage>();
        Format at = input;
        if (withModel(settings) && out.width() >= input.width() && out.height() >= input.height()) {
            ModelCard card = card(settings).orElseThrow();
            NetRunner net = opened(card);
            double strength = settings.whole(STRENGTH).orElseThrow() / 100.0;
            do {
                stages.add(new UpscaleStage(at, card, net, strength));
                at = stages.getLast().output();
            } while (stages.size() < MOST_PASSES && (at.width() < out.width() || at.height() < out.height()));
        }
        if (stages.isEmpty() || at.width() != out.width() || at.height() != out.height()) {
            stages.add(new EnlargeStage(at, out, kernel(settings)));
        }
        return stages;
    }

    private static NetRunner opened(ModelCard card) {
        try {
            return Models.open(card);
        } catch (ModelUnavailable e) {
            throw new RecipeException(Problem.at("model", e.getMessage()));
        }
    }

    private static boolean withModel(Settings settings) {
        return !settings.choice(MODEL).orElseThrow().equals(PLAIN);
    }

    private static Optional<ModelCard> card(Settings settings) {
        String model = settings.choice(MODEL).orElseThrow();
        Optional<String> mode = settings.choice(MODE);
        return mode.isPresent()
                ? Models.find(model, ModelCard.Mode.byId(mode.get()))
                : Models.families().stream()
                        .filter(card -> card.id().equals(model))
                        .findFirst();
    }

    @Override
    public String summary(Settings settings, Format input) {
        String means = means(settings);
        Optional<String> target = settings.choice(TARGET);
        if (target.isPresent()) {
            return target.get() + " " + means;
        }
        if (settings.has("width") || settings.has("height")) {
            Format out = size(settings, input);
            return out.width() + "x" + out.height() + " " + means;
        }
        return Words.number(settings.real(FACTOR).orElse(2.0)) + "x " + means;
    }

    private static String means(Settings settings) {
        if (!withModel(settings)) {
            return kernel(settings).id();
        }
        String model = settings.choice(MODEL).orElseThrow();
        boolean fast = card(settings)
                .filter(card -> card.mode() == ModelCard.Mode.FAST)
                .isPresent();
        return fast ? model + " fast" : model;
    }

    private static Kernel kernel(Settings settings) {
        return Kernel.byId(settings.choice(KERNEL).orElseThrow());
    }

    private static Format size(Settings settings, Format input) {
        Optional<String> target = settings.choice(TARGET);
        if (target.isPresent()) {
            return TargetSize.byLines(
                    input,
                    Integer.parseInt(target.get().substring(0, target.get().length() - 1)));
        }
        if (settings.has("width") || settings.has("height")) {
            return TargetSize.byPixels(
                    input,
                    Math.toIntExact(settings.whole(WIDTH).orElse(0L)),
                    Math.toIntExact(settings.whole(HEIGHT).orElse(0L)));
        }
        return TargetSize.byFactor(input, settings.real(FACTOR).orElse(2.0));
    }

    private static String label(Kernel kernel) {
        String words = kernel.id().replace('-', ' ').replaceAll("(\\d)", " $1");
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }
}
