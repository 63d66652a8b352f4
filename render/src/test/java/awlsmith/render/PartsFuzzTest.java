package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.mark.MarkPicture;
import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
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
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.FileRef;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.SideFiles;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.StepKind;
import awlsmith.core.recipe.StepRegistry;
import awlsmith.core.recipe.Treatment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;

/**
 * Recipes by chance on pictures by chance: every part of every range is, bit for bit, the same cut out of the whole. More cases:
 * {@code -Dawlsmith.fuzz=5000}, others: {@code -Dawlsmith.fuzz.seed=7}.
 */
class PartsFuzzTest {
    private static final int CASES = Integer.getInteger("awlsmith.fuzz", 250);
    private static final long SEED = Long.getLong("awlsmith.fuzz.seed", 1);
    private static final int FRAMES = 8;
    private static final Siting[] SITINGS = {
        Siting.LEFT,
        Siting.CENTRE,
        Siting.TOP_LEFT,
        Siting.TOP,
        Siting.BOTTOM_LEFT,
        new Siting(1, 0.5),
        new Siting(0.5, 1)
    };
    /** A small cube that turns colours about. */
    private static final byte[] TABLE = ("LUT_3D_SIZE 2\n0 0 0\n0 1 0\n0 0 1\n0 .9 1\n1 0 .1\n1 1 0\n1 0 1\n1 1 1\n")
            .getBytes(StandardCharsets.US_ASCII);

    /** Half of it half clear. */
    private static final byte[] MARK =
            MarkPicture.write(2, 1, new byte[] {(byte) 200, 30, 90, (byte) 255, 20, (byte) 220, 0, (byte) 128});

    private static final SideFiles FILES = file -> Optional.of(file.name().endsWith("png") ? MARK : TABLE);
    private static final int[] DEPTHS = {8, 10, 12, 16};

    @Test
    void everyPartIsCutOutOfTheWhole() {
        var steps = new TreeSet<String>();
        Set<Chroma> layouts = EnumSet.noneOf(Chroma.class);
        Set<Alpha> alphas = EnumSet.noneOf(Alpha.class);
        int held = 0;
        try (var threads = new ForkJoinPool(3)) {
            for (int number = 0; number < CASES; number++) {
                var random = new SplittableRandom(SEED * 1_000_003 + number);
                Format format = format(random);
                var recipe = recipe(random, format);
                if (recipe.isEmpty()) {
                    continue;
                }
                String what =
                        "case " + number + ": " + format + " " + recipe.get().toTree();
                try {
                    hold(what, format, recipe.get(), random, threads);
                } catch (RuntimeException e) {
                    throw new AssertionError(what, e);
                }
                recipe.get().steps().forEach(step -> steps.add(step.kind()));
                layouts.add(format.chroma());
                alphas.add(format.alpha());
                held++;
            }
        }
        assertThat(held).isGreaterThan(CASES / 2);
        assertThat(layouts).containsExactlyInAnyOrder(Chroma.values());
        assertThat(alphas).containsExactlyInAnyOrder(Alpha.values());
        assertThat(steps)
                .containsExactlyInAnyOrderElementsOf(
                        StepRegistry.all().stream().map(StepKind::id).toList());
    }

    private static void hold(String what, Format format, Recipe recipe, SplittableRandom random, ForkJoinPool threads) {
        var clip = new Painted(format, random.nextLong(), times(random));
        Treatment treatment = Analyses.complete(
                recipe.on(new Material(format, clip.times()).with(FILES)),
                clip,
                Analyses.Store.NONE,
                new PlanePool(0),
                Work.alone(),
                (doing, frames) -> {});
        Chain treated = treatment.chain();
        Timing shown = treatment.times();
        var codec = Deliverable.usual(random.nextBoolean() ? Codecs.H264 : Codecs.FFV1);
        Chain chain = treated.then(
                LayoutStages.between(treated.output(), codec.fileFormat(treated.output(), format.height())));
        Format out = chain.output();
        var kept = new HeldFrames<String>(1 << 22);
        List<Frame> whole = run(chain, clip, new FrameRange(0, 1000), out.whole(), Work.alone());
        assertThat(whole.size()).as(what).isPositive().isEqualTo((int) shown.count());
        for (Frame frame : whole) {
            assertThat(frame.time()).as("%s frame %d", what, frame.number()).isEqualTo(shown.at(frame.number()));
        }
        for (int i = 0; i < 5; i++) {
            Region part = part(out, random, i);
            int from = random.nextInt(whole.size());
            int end = from + 1 + random.nextInt(Math.min(3, whole.size() - from));
            var work = new Work(threads, 3, new Cancel());
            // in turn from the clip itself, and from frames held behind some of the steps
            int cut = random.nextInt(recipe.steps().size() + 1);
            Chain behind = treatment
                    .behind(cut)
                    .then(chain.stages()
                            .subList(treated.stages().size(), chain.stages().size()));
            boolean isCut = i % 2 == 1 && !behind.seesSourceBeside();
            FrameSource reached = isCut
                    ? kept.source(
                            "behind " + cut,
                            treatment.upTo(cut),
                            cut == 0 ? FRAMES : treatment.times(cut - 1).count(),
                            clip,
                            work)
                    : clip;
            List<Frame> some = run(isCut ? behind : chain, reached, new FrameRange(from, end), part, work);
            assertThat(some).as("%s frames %d..%d", what, from, end).hasSize(end - from);
            for (Frame frame : some) {
                Frame piece = whole.get((int) frame.number()).cut(part);
                assertThat(frame.time()).as(what).isEqualTo(piece.time());
                for (int p = 0; p < frame.planes().size(); p++) {
                    assertThat(frame.plane(p).packed())
                            .as("%s frame %d part %s plane %d", what, frame.number(), part, p)
                            .isEqualTo(piece.plane(p).packed());
                }
            }
        }
    }

    private static List<Frame> run(Chain chain, FrameSource clip, FrameRange range, Region part, Work work) {
        var frames = new ArrayList<Frame>();
        try (var stream = chain.open(clip, range, part, new PlanePool(0), work)) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(frame.get());
            }
        }
        return frames;
    }

    /** Anywhere, and in turn at each corner, where bars and edges are. */
    private static Region part(Format out, SplittableRandom random, int corner) {
        int width = 1 + random.nextInt(Math.min(out.width(), 24));
        int height = 1 + random.nextInt(Math.min(out.height(), 24));
        int x = corner == 4 ? random.nextInt(out.width()) : corner % 2 * (out.width() - width);
        int y = corner == 4 ? random.nextInt(out.height()) : corner / 2 * (out.height() - height);
        return new Region(x, y, width, height)
                .within(out.width(), out.height())
                .aligned(out.chroma(), out.width(), out.height());
    }

    private static Format format(SplittableRandom random) {
        Chroma chroma = Chroma.values()[random.nextInt(Chroma.values().length)];
        int scan = random.nextInt(6);
        return new Format(
                18 + random.nextInt(50),
                18 + random.nextInt(40),
                chroma,
                SITINGS[random.nextInt(SITINGS.length)],
                DEPTHS[random.nextInt(DEPTHS.length)],
                ColourTags.UNKNOWN,
                random.nextInt(3) == 0 ? new Rational(16, 15) : Rational.ONE,
                scan == 0 ? Scan.TOP_FIRST : scan == 1 ? Scan.BOTTOM_FIRST : Scan.PROGRESSIVE,
                Alpha.values()[Math.max(0, random.nextInt(6) - 3)]);
    }

    /** Evenly, or each frame as long as chance has it. */
    private static Timing times(SplittableRandom random) {
        if (random.nextBoolean()) {
            return Timing.steady(new Rational(30000, 1001), FRAMES);
        }
        long[] ticks = new long[FRAMES + 1];
        for (int n = 0; n < FRAMES; n++) {
            ticks[n + 1] = ticks[n] + 5 + random.nextInt(90);
        }
        return new Timing() {
            @Override
            public long count() {
                return FRAMES;
            }

            @Override
            public Rational at(long frame) {
                return new Rational(ticks[(int) frame], 1000);
            }

            @Override
            public Optional<Rational> rate() {
                return Optional.empty();
            }
        };
    }

    /** One to three steps that work on what reaches them; empty when chance finds none in a few tries. */
    private static Optional<Recipe> recipe(SplittableRandom random, Format format) {
        var steps = new ArrayList<Step>();
        int wanted = 1 + random.nextInt(3);
        for (int tries = 0; tries < 12 && steps.size() < wanted; tries++) {
            List<StepKind> kinds = StepRegistry.all();
            var with = new ArrayList<>(steps);
            try {
                with.add(step(random, kinds.get(random.nextInt(kinds.size()))));
                Format out =
                        new Recipe(with).on(Material.of(format).with(FILES)).output();
                if (out.width() <= 400 && out.height() <= 400) {
                    steps = with;
                }
            } catch (RecipeException e) {
                // not on these pictures, or not with these settings
            }
        }
        return steps.isEmpty() ? Optional.empty() : Optional.of(new Recipe(steps));
    }

    private static Step step(SplittableRandom random, StepKind kind) {
        var values = new TreeMap<String, Object>();
        for (Param param : kind.params()) {
            if (random.nextInt(100) < 35) {
                values.put(param.key(), value(random, param));
            }
        }
        if (kind.id().equals("enlarge") && random.nextInt(3) == 0) {
            // chance alone seldom leaves bars that a part can lie in
            List.of("factor", "target", "pixels").forEach(values::remove);
            values.put("width", 20 + random.nextInt(100));
            values.put("height", 20 + random.nextInt(100));
            values.put("fit", random.nextInt(3) == 0 ? "fill" : "letterbox");
        }
        return Step.of(kind.id(), values);
    }

    private static Object value(SplittableRandom random, Param param) {
        return switch (param) {
            case Param.Choice choice -> {
                // targets of broadcasting are too large to try by the hundred
                var options = choice.options().stream()
                        .filter(option -> !choice.key().equals("target"))
                        .toList();
                yield options.isEmpty()
                        ? "576p"
                        : options.get(random.nextInt(options.size())).id();
            }
            case Param.Whole whole -> whole.min() + random.nextLong(Math.min(90, whole.max() - whole.min()) + 1);
            case Param.Real real -> {
                double one = number(random, real);
                // not all that chance finds lie apart as they must; such recipes are left out
                yield real.keyed() && random.nextBoolean() ? "0:" + one + ",0.2:" + number(random, real) : (Object) one;
            }
            case Param.Tint tint -> String.format("#%06x", random.nextInt(1 << 24));
            case Param.FromFile file ->
                (file.ending().equals("png") ? FileRef.of("mark.png", MARK) : FileRef.of("swap.cube", TABLE))
                        .toString();
            case Param.Marks marks -> "0.04:" + random.nextInt(2) + ",0.13:" + random.nextInt(2);
            case Param.Curve curve -> "0:0,0.3:" + random.nextDouble() + ",1:1.1";
        };
    }

    private static double number(SplittableRandom random, Param.Real real) {
        double most = real.key().equals("white") ? real.max() : Math.min(real.max(), 4);
        return real.min() + (most - real.min()) * random.nextDouble();
    }

    /** Noise over slopes that move, with an upright line that is a scratch in some. */
    private record Painted(Format format, long seed, Timing times) implements FrameSource {
        @Override
        public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
            return new FrameStream() {
                private long next = range.from();

                @Override
                public Format format() {
                    return format;
                }

                @Override
                public Optional<Frame> next() {
                    if (next >= Math.min(range.end(), FRAMES)) {
                        return Optional.empty();
                    }
                    Frame frame = Frame.blank(format, window, next, times.at(next), pool);
                    for (int p = 0; p < frame.planes().size(); p++) {
                        paint(frame, p);
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

        private void paint(Frame frame, int p) {
            int stepX = format.chroma().stepX(p);
            int stepY = format.chroma().stepY(p);
            int left = frame.window().x() / stepX;
            int top = frame.window().y() / stepY;
            int scratch = (int) Long.remainderUnsigned(seed, format.width());
            for (int y = 0; y < frame.plane(p).height(); y++) {
                for (int x = 0; x < frame.plane(p).width(); x++) {
                    int u = x + left;
                    int v = y + top;
                    long mixed = (seed + frame.number() * 31 + p) * 0x9E3779B97F4A7C15L
                            + u * 0xBF58476D1CE4E5B9L
                            + v * 0x94D049BB133111EBL;
                    mixed = (mixed ^ mixed >>> 29) * 0xBF58476D1CE4E5B9L;
                    double noise = (mixed >>> 40) / (double) (1 << 24) - 0.5;
                    double slope = 0.5
                            + 0.3 * Math.sin((u * stepX + 2 * frame.number()) * 0.2)
                            + 0.2 * Math.cos(v * stepY * 0.17);
                    double line = u * stepX / 2 == scratch / 2 && seed % 2 == 0 ? 0.35 : 0;
                    if (p == format.chroma().planes()) {
                        // clear, seen and in between
                        frame.plane(p).set(x, y, (float) Math.clamp(4 * slope - 1.6 + noise, 0, 1));
                        continue;
                    }
                    frame.plane(p).set(x, y, (float) ((p == 0 ? slope + line : slope / 3 - 0.2) + 0.05 * noise));
                }
            }
        }
    }
}
