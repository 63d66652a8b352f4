package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.resample.PlaceStage;
import java.util.ArrayList;
import java.util.List;

/** Keeps a rectangle of the picture, sample for sample. */
final class CropStep implements StepKind {
    private static final int LARGEST = 16384;
    private static final int SMALLEST = 16;

    private static final Param.Whole LEFT =
            new Param.Whole("left", "Left", "px", 0, LARGEST, 0L, "columns cut off at the left");
    private static final Param.Whole TOP =
            new Param.Whole("top", "Top", "px", 0, LARGEST, 0L, "rows cut off at the top");
    private static final Param.Whole WIDTH = new Param.Whole(
            "width", "Width", "px", SMALLEST, LARGEST, null, "columns kept; to the right edge when not set");
    private static final Param.Whole HEIGHT = new Param.Whole(
            "height", "Height", "px", SMALLEST, LARGEST, null, "rows kept; to the lower edge when not set");

    @Override
    public String id() {
        return "crop";
    }

    @Override
    public String name() {
        return "Crop";
    }

    @Override
    public String purpose() {
        return "keeps a part of the picture, to take off borders or come closer";
    }

    @Override
    public StepGroup group() {
        return StepGroup.PREPARE;
    }

    @Override
    public List<Param> params() {
        return List.of(LEFT, TOP, WIDTH, HEIGHT);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Format input = given.format();
        var problems = new ArrayList<Problem>();
        int left = value(settings, LEFT, 0);
        int top = value(settings, TOP, 0);
        int width = value(settings, WIDTH, input.width() - left);
        int height = value(settings, HEIGHT, input.height() - top);
        String picture = "the picture here is " + input.width() + "x" + input.height();
        if (left + width > input.width() || width < SMALLEST) {
            problems.add(Problem.at(
                    "left",
                    "columns " + left + " to " + (left + width) + " do not lie in it: " + picture + ", at least "
                            + SMALLEST + " columns must be kept"));
        }
        if (top + height > input.height() || height < SMALLEST) {
            problems.add(Problem.at(
                    "top",
                    "rows " + top + " to " + (top + height) + " do not lie in it: " + picture + ", at least " + SMALLEST
                            + " rows must be kept"));
        }
        int stepX = input.chroma().stepX();
        int stepY = lineStep(input);
        if (left % stepX != 0) {
            problems.add(Problem.at(
                    "left", "left is " + left + "; colour is stored for every second column here, so it must be even"));
        }
        if (top % stepY != 0) {
            problems.add(Problem.at(
                    "top",
                    "top is " + top + "; it must be a multiple of " + stepY
                            + (input.scan().isInterlaced()
                                    ? ", or fields would change places; deinterlace before for finer steps"
                                    : ": colour is stored for every second row here")));
        }
        return problems;
    }

    /** Rows that must be cut together, so that chroma rows stay whole and fields stay what they are. */
    private static int lineStep(Format input) {
        return input.chroma().stepY() * (input.scan().isInterlaced() ? 2 : 1);
    }

    private static int value(Settings settings, Param.Whole param, int fallback) {
        return settings.whole(param).map(Math::toIntExact).orElse(fallback);
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        int left = value(settings, LEFT, 0);
        int top = value(settings, TOP, 0);
        Format kept = input.withSize(
                value(settings, WIDTH, input.width() - left),
                value(settings, HEIGHT, input.height() - top),
                input.sar());
        boolean all = kept.width() == input.width() && kept.height() == input.height();
        return all ? List.of() : List.of(new PlaceStage(input, kept, -left, -top));
    }

    @Override
    public String summary(Settings settings, Given given) {
        Format input = given.format();
        int left = value(settings, LEFT, 0);
        int top = value(settings, TOP, 0);
        return value(settings, WIDTH, input.width() - left) + "x" + value(settings, HEIGHT, input.height() - top)
                + " at " + left + "," + top;
    }
}
