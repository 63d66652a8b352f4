package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.plan.TargetSize;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Enlarges (or reduces) by a factor, to a number of lines, or to a size in pixels. */
final class EnlargeStep implements StepKind {
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
        return "resamples the picture to a larger or smaller size";
    }

    @Override
    public List<Param> params() {
        return List.of(FACTOR, TARGET, WIDTH, HEIGHT, KERNEL);
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
        return problems;
    }

    @Override
    public Stage stage(Settings settings, Format input) {
        return new EnlargeStage(input, size(settings, input), kernel(settings));
    }

    @Override
    public String summary(Settings settings, Format input) {
        String kernel = kernel(settings).id();
        Optional<String> target = settings.choice(TARGET);
        if (target.isPresent()) {
            return target.get() + " " + kernel;
        }
        if (settings.has("width") || settings.has("height")) {
            Format out = size(settings, input);
            return out.width() + "x" + out.height() + " " + kernel;
        }
        return Words.number(settings.real(FACTOR).orElse(2.0)) + "x " + kernel;
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
