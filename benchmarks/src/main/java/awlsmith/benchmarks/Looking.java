package awlsmith.benchmarks;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.HeldFrames;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.render.Machine;
import awlsmith.render.Png;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/**
 * How long it takes from a changed setting to new pixels: a part of one treated frame, as the glass asks for it, against
 * the whole frame. Source frames are decoded already, as they are while somebody works on one; the picture is packed for
 * the page as well.
 */
public final class Looking {
    private static final int WIDTH = 640;
    private static final int HEIGHT = 360;
    private static final int RUNS = 7;
    private static final int WHOLE_RUNS = 3;

    private record Case(String name, String... steps) {}

    private static final List<Case> CASES = List.of(
            new Case("enlarge 2x, Lanczos", "enlarge factor=2 kernel=lanczos3"),
            new Case("enlarge 2x, photographic fast", "enlarge factor=2 model=photographic mode=fast"),
            new Case("enlarge 2x, photographic quality", "enlarge factor=2 model=photographic mode=quality"),
            new Case("enlarge 2x, worn fast", "enlarge factor=2 model=worn mode=fast"),
            new Case("enlarge 2x, worn quality", "enlarge factor=2 model=worn mode=quality"),
            new Case("enlarge 2x, drawn quality", "enlarge factor=2 model=drawn mode=quality"),
            new Case("cadence, repeated frames out", "cadence"),
            new Case("deinterlace to fields", "deinterlace order=top rate=fields"),
            new Case("straighten 1 degree", "turn angle=1"),
            new Case("crop", "crop left=16 top=16"),
            new Case(
                    "five steps: cadence, deinterlace, straighten, crop, enlarge 2x photographic fast",
                    "cadence",
                    "deinterlace order=top rate=frames",
                    "turn angle=1",
                    "crop left=16 top=16",
                    "enlarge factor=2 model=photographic mode=fast"));

    /** The spot of a swatch, as large as the page draws it. */
    private static final int SPOT_WIDTH = 76;

    private static final int SPOT_HEIGHT = 56;

    /** What may come before the step whose treatments are compared; nothing, or one that takes time. */
    private static final List<List<String>> BEFORE = List.of(
            List.of(), List.of("denoise mode=fast noise=8"), List.of("repair rounding=20"), List.of("denoise noise=8"));

    /** Every treatment that can be chosen by looking. */
    private static final List<String> SWATCHES = List.of(
            "model=photographic mode=quality",
            "model=photographic mode=crisp",
            "model=photographic mode=smooth",
            "model=photographic mode=fast",
            "model=photographic mode=made",
            "model=worn mode=quality",
            "model=worn mode=crisp",
            "model=worn mode=smooth",
            "model=worn mode=fast",
            "model=drawn mode=quality",
            "model=drawn mode=smooth",
            "model=drawn mode=fast",
            "kernel=lanczos3");

    private final List<String> report = new ArrayList<>();
    private final Machine machine = Machine.whole();

    private Looking() {}

    /** Arguments: the report's file, and files with what the browser tests measured, if they are there. */
    public static void main(String[] arguments) throws IOException {
        var looking = new Looking();
        try {
            looking.all();
        } finally {
            looking.machine.close();
        }
        for (String name : List.of(arguments).subList(1, arguments.length)) {
            Path measured = Path.of(name);
            if (Files.exists(measured)) {
                looking.report.add("");
                looking.report.addAll(Files.readAllLines(measured));
            }
        }
        Files.writeString(Path.of(arguments[0]), String.join("\n", looking.report) + "\n");
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private void all() {
        say("# From a changed setting to new pixels");
        say("");
        say("Made by `./awlsmith measure --looking`; do not edit. " + machine.threads() + " threads.");
        say("");
        say("A part of " + WIDTH + "x" + HEIGHT + " of the treated picture, packed for the page, median of " + RUNS
                + " parts; beside it what it took against its share of the whole frame's time (1 is ideal).");
        say("");
        say("| recipe | SD 720x576 | HD 1920x1080 | 4K 3840x2160 |");
        say("|---|---|---|---|");
        for (Case one : CASES) {
            var cells = new ArrayList<String>();
            for (int[] size : new int[][] {{720, 576}, {1920, 1080}, {3840, 2160}}) {
                cells.add(cell(one, size[0], size[1]));
            }
            say("| " + one.name() + " | " + String.join(" | ", cells) + " |");
        }
        say("");
        swatches();
    }

    private void swatches() {
        say("## Swatches");
        say("");
        say("One spot of 720x576 enlarged 2x in each of " + SWATCHES.size() + " ways, " + SPOT_WIDTH + "x" + SPOT_HEIGHT
                + " pixels of each; what comes before is held once the first was made. Median of " + RUNS + " spots.");
        say("");
        say("| before enlarging | first swatch | slowest of the others | all |");
        say("|---|---|---|---|");
        for (List<String> before : BEFORE) {
            // once for the processor's and the compiler's sake
            spot(before, 0);
            double[] first = new double[RUNS];
            double[] slowest = new double[RUNS];
            double[] all = new double[RUNS];
            for (int run = 0; run < RUNS; run++) {
                double[] times = spot(before, run + 1);
                first[run] = times[0];
                slowest[run] = Arrays.stream(times).skip(1).max().orElseThrow();
                all[run] = Arrays.stream(times).sum();
            }
            say(Figures.text(
                    "| %s | %.0f ms | %.0f ms | %.0f ms |",
                    before.isEmpty() ? "nothing" : "`" + String.join(", ", before) + "`",
                    1000 * median(first),
                    1000 * median(slowest),
                    1000 * median(all)));
        }
        say("");
    }

    /** @return seconds of each swatch, in order */
    private double[] spot(List<String> before, int run) {
        var source = new Still(720, 576, false);
        var held = new HeldFrames<String>(1L << 28);
        var times = new double[SWATCHES.size()];
        for (int i = 0; i < times.length; i++) {
            var steps = new ArrayList<Step>();
            before.forEach(step -> steps.add(Step.parse(step)));
            steps.add(Step.parse("enlarge factor=2 " + SWATCHES.get(i)));
            var treatment = new Recipe(steps).on(Material.of(source.format()));
            var spot = new Region(200 + 40 * run, 300 + 30 * run, SPOT_WIDTH, SPOT_HEIGHT);
            long begun = System.nanoTime();
            FrameSource reached = before.isEmpty()
                    ? source
                    : held.source(
                            "before", treatment.upTo(before.size()), Still.FRAMES, source, machine.work(new Cancel()));
            look(treatment.behind(before.size()), reached, spot);
            times[i] = (System.nanoTime() - begun) / 1e9;
        }
        return times;
    }

    private String cell(Case one, int width, int height) {
        Recipe recipe = new Recipe(Arrays.stream(one.steps()).map(Step::parse).toList());
        boolean woven = one.name().contains("deinterlace");
        var source = new Still(width, height, woven);
        Chain chain = recipe.chain(source.format());
        Format out = chain.output();
        Region whole = out.whole();
        look(chain, source, part(out, 0));
        double[] parts = new double[RUNS];
        for (int i = 0; i < RUNS; i++) {
            parts[i] = look(chain, source, part(out, i));
        }
        // a whole 8K frame through a net takes long and tells no more: a quarter of it stands for it
        boolean huge = whole.area() > 20_000_000L;
        Region large = huge ? new Region(0, 0, out.width() / 2 & -2, out.height() / 2 & -2) : whole;
        double[] wholes = new double[WHOLE_RUNS];
        for (int i = 0; i < WHOLE_RUNS; i++) {
            wholes[i] = look(chain, source, large);
        }
        double share = (double) WIDTH * HEIGHT / large.area();
        double median = median(parts);
        return Figures.text("%.0f ms, %.2f", 1000 * median, median / (median(wholes) * share));
    }

    private static Region part(Format out, int n) {
        int roomX = out.width() - WIDTH;
        int roomY = out.height() - HEIGHT;
        return new Region((roomX * (n + 1) / (RUNS + 2)) & -2, (roomY * (RUNS - n) / (RUNS + 2)) & -2, WIDTH, HEIGHT);
    }

    private double look(Chain chain, FrameSource source, Region part) {
        long begun = System.nanoTime();
        var work = machine.work(new Cancel());
        Region needed = ScreenPicture.needs(chain.output(), part);
        FrameRange middle =
                FrameRange.single(chain.outputOf(FrameRange.single(10)).from());
        try (FrameStream stream = chain.open(source, middle, needed, machine.planes(), work)) {
            Frame frame = stream.next().orElseThrow();
            byte[] png = Png.encode(ScreenPicture.of(frame, part, 1, machine.planes(), work));
            frame.release(machine.planes());
            if (png.length == 0) {
                throw new IllegalStateException("an empty picture");
            }
        }
        return (System.nanoTime() - begun) / 1e9;
    }

    private static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    /** A source whose frames are in memory: a textured picture that moves a little. */
    private static final class Still implements FrameSource {
        private static final int FRAMES = 24;
        private final Format format;
        private final Frame picture;

        Still(int width, int height, boolean woven) {
            Format progressive =
                    new Format(width, height, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
            format = woven ? progressive.withScan(Scan.TOP_FIRST) : progressive;
            picture = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
            var random = new Random(5);
            for (Plane plane : picture.planes()) {
                for (int y = 0; y < plane.height(); y++) {
                    for (int x = 0; x < plane.width(); x++) {
                        double v = 0.4 + 0.2 * Math.sin(x * 0.11) * Math.cos(y * 0.07) + 0.02 * random.nextGaussian();
                        plane.set(x, y, (float) (plane == picture.plane(0) ? v : v - 0.4));
                    }
                }
            }
        }

        @Override
        public Format format() {
            return format;
        }

        @Override
        public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
            return new FrameStream() {
                private long next = Math.max(0, range.from());

                @Override
                public Format format() {
                    return format;
                }

                @Override
                public Optional<Frame> next() {
                    if (next >= Math.min(range.end(), FRAMES)) {
                        return Optional.empty();
                    }
                    Frame frame = Frame.blank(format, window, next, Rational.of(next), pool);
                    Frame cut = picture.cut(window);
                    for (int p = 0; p < frame.planes().size(); p++) {
                        Plane from = cut.plane(p);
                        Plane to = frame.plane(p);
                        for (int y = 0; y < to.height(); y++) {
                            System.arraycopy(from.data(), from.row(y), to.data(), to.row(y), to.width());
                        }
                    }
                    next++;
                    return Optional.of(frame);
                }

                @Override
                public void close() {
                    next = FRAMES;
                }
            };
        }
    }
}
