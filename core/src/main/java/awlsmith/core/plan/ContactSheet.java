package awlsmith.core.plan;

import awlsmith.core.mark.Digits;
import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Frames from all over the span side by side in one picture, in the order they are read. */
public final class ContactSheet implements Codec {
    private static final Param.Whole COLUMNS =
            new Param.Whole("columns", "Columns", "", 1, 16, 5L, "frames beside each other");

    private static final Param.Whole ROWS =
            new Param.Whole("rows", "Rows", "", 1, 32, 4L, "of frames; fewer where the span has fewer");

    private static final Param.Whole WIDTH =
            new Param.Whole("width", "Width", "px", 320, 16000, 1920L, "of the whole sheet");

    private static final Param.Choice TIMES = new Param.Choice(
            "times",
            "Below each",
            List.of(
                    new Param.Choice.Option(
                            "time", "its time", "from the clip's start, or its time code where it has one"),
                    new Param.Choice.Option("nothing", "nothing", "pictures alone")),
            "time",
            "what is written below each frame");

    /** Bytes of a raw byte that is kept (common practice, no source). */
    private static final double SHARE = 0.5;

    /** Figures that shall find room below a frame. */
    private static final int LETTERS = 22;

    private static final int LARGEST_DOT = 6;

    /** Narrower and nothing is seen. */
    private static final int NARROWEST = 16;

    ContactSheet() {}

    @Override
    public String id() {
        return "sheet";
    }

    @Override
    public String label() {
        return "Contact sheet";
    }

    @Override
    public String purpose() {
        return "frames from all over the span in one picture, to see at a glance what is in it";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.PNG, Container.JPEG);
    }

    @Override
    public List<Param> params() {
        return List.of(COLUMNS, ROWS, WIDTH, TIMES);
    }

    @Override
    public int largestSide() {
        return 32767;
    }

    @Override
    public boolean tellsColour() {
        return false;
    }

    /** It is to find things by. */
    @Override
    public boolean holdsPictures() {
        return false;
    }

    @Override
    public Taking taking(Container container) {
        return Taking.FEW;
    }

    /** In the middle of as many equal parts of the span as there are places. */
    @Override
    public List<Long> picks(Settings settings, FrameRange made) {
        long places = Math.min(made.count(), many(settings, COLUMNS) * many(settings, ROWS));
        var picks = new ArrayList<Long>();
        for (long n = 0; n < places; n++) {
            picks.add(made.from() + made.count() * (2 * n + 1) / (2 * places));
        }
        return List.copyOf(picks);
    }

    /**
     * Where frames lie.
     *
     * @param width of one frame, pixels; @param height likewise
     * @param gap around each; @param caption lines below each, 0 for none
     */
    public record Layout(int columns, int rows, int width, int height, int gap, int caption) {
        public int left(int number) {
            return gap + number % columns * (width + gap);
        }

        public int top(int number) {
            return gap + number / columns * (height + caption + gap);
        }

        public int sheetWidth() {
            return gap + columns * (width + gap);
        }

        public int sheetHeight() {
            return gap + rows * (height + caption + gap);
        }
    }

    /**
     * Of treated pictures, shown in their right proportions.
     *
     * @param frames there are; rows that would stay empty are left out
     */
    public static Layout layout(Format treated, Settings settings, long frames) {
        int columns = (int) Math.min(many(settings, COLUMNS), Math.max(1, frames));
        int rows = (int) Math.min(many(settings, ROWS), Math.ceilDiv(Math.max(1, frames), columns));
        int whole = (int) many(settings, WIDTH);
        int gap = Math.max(2, whole / 240);
        // pairs of samples share their colour in most files: sides are even
        int width = Math.max(NARROWEST, 2 * (((whole - gap) / columns - gap) / 2));
        double shape = treated.height() / (treated.width() * treated.sar().toDouble());
        int height = Math.max(2, 2 * (int) Math.round(width * shape / 2));
        boolean times = settings.choice(TIMES).orElse("time").equals("time");
        return new Layout(columns, rows, width, height, gap, times ? dot(width) * (Digits.HIGH + 3) : 0);
    }

    private static long many(Settings settings, Param.Whole of) {
        return settings.whole(of).orElseThrow();
    }

    /** Pixels on a side of one dot of the figures below frames of such a width. */
    public static int dot(int width) {
        return Math.clamp(width / (LETTERS * Digits.WIDE), 1, LARGEST_DOT);
    }

    /** As large as with all its places taken. */
    @Override
    public Format format(Format treated, Settings settings) {
        Layout layout = layout(treated, settings, Long.MAX_VALUE);
        return ofSheet(treated, layout);
    }

    /** The format of a sheet. */
    public static Format ofSheet(Format treated, Layout layout) {
        return new Format(
                layout.sheetWidth(),
                layout.sheetHeight(),
                Chroma.RGB,
                Siting.LEFT,
                8,
                treated.colour().ofRgb(),
                Rational.ONE,
                Scan.PROGRESSIVE,
                Alpha.NONE);
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return file.floatBytes() / 4.0 * SHARE;
    }

    /** The time that stands below a frame. @param timecode its label where it has one */
    public static String words(Rational time, Optional<String> timecode) {
        return timecode.orElseGet(() -> {
            long thousandths = time.ticks(new Rational(1, 1000));
            long seconds = thousandths / 1000;
            return seconds >= 3600
                    ? "%d:%02d:%02d.%d"
                            .formatted(seconds / 3600, seconds / 60 % 60, seconds % 60, thousandths % 1000 / 100)
                    : "%d:%02d.%02d".formatted(seconds / 60, seconds % 60, thousandths % 1000 / 10);
        });
    }
}
