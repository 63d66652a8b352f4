package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.StepRegistry;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Nothing clips before the end: samples far beyond black and white go through every step, and come out as far beyond. */
class ExcursionsTest {
    /** What a step needs beside its defaults to do anything; those that need what is not here are named by why. */
    private static final Map<String, String> NEEDS = Map.ofEntries(
            Map.entry("deinterlace", "deinterlace order=top"),
            Map.entry("rate", "rate rate=50"),
            Map.entry("speed", "speed speed=50"),
            Map.entry("turn", "turn turn=90 angle=2"),
            Map.entry("crop", "crop left=8 top=4"),
            Map.entry("denoise", "denoise noise=5"),
            Map.entry("sharpen", "sharpen kind=mask"),
            Map.entry("deblur", "deblur noise=2"),
            Map.entry("original", "original blend=20 texture=50 light=50"),
            Map.entry("grain", "grain amount=0"),
            Map.entry("repair", "repair rounding=20"),
            Map.entry("enlarge", "enlarge factor=2 model=photographic"));

    static Stream<String> steps() {
        return StepRegistry.all().stream()
                .map(kind -> NEEDS.getOrDefault(kind.id(), kind.id()))
                // works on transparent pictures alone, and pixel by pixel; see AlphaTest
                .filter(step -> !step.equals("transparency"));
    }

    @ParameterizedTest
    @MethodSource("steps")
    void samplesBeyondBlackAndWhiteStayBeyond(String step) {
        for (Chroma chroma : new Chroma[] {Chroma.S420, Chroma.RGB}) {
            for (float value : new float[] {-0.35f, 1.4f}) {
                var clip =
                        new Flat(new Format(96, 64, chroma, Siting.LEFT, 10, ColourTags.UNKNOWN, Rational.ONE), value);
                var treatment = Analyses.complete(
                        new Recipe(List.of(Step.parse(step))).on(new Material(clip.format(), clip.times())),
                        clip,
                        Analyses.Store.NONE,
                        new PlanePool(0),
                        Work.alone(),
                        (doing, frames) -> {});
                Format out = treatment.output();
                try (var frames = treatment
                        .chain()
                        .open(clip, FrameRange.single(1), out.whole(), new PlanePool(0), Work.alone())) {
                    Frame made = frames.next().orElseThrow();
                    assertThat(made.plane(0).at(out.width() / 2, out.height() / 2))
                            .as("%s of %s at %s", step, chroma, value)
                            .isCloseTo(value, within(0.03f));
                }
            }
        }
    }

    @Test
    void everyStepIsTried() {
        var tried = new TreeSet<String>();
        steps().forEach(step -> tried.add(step.split(" ")[0]));
        assertThat(tried).hasSize(StepRegistry.all().size() - 1);
    }

    /** One value everywhere. */
    private record Flat(Format format, float value) implements FrameSource {
        private static final int FRAMES = 5;

        awlsmith.core.pipeline.Timing times() {
            return awlsmith.core.pipeline.Timing.steady(Rational.of(25), FRAMES);
        }

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
                    if (next >= Math.min(FRAMES, range.end())) {
                        return Optional.empty();
                    }
                    Frame frame = Frame.blank(format, window, next, Rational.of(next), pool);
                    for (int p = 0; p < frame.planes().size(); p++) {
                        frame.plane(p).fill(format.chroma().isDifference(p) ? 0 : value);
                    }
                    next++;
                    return Optional.of(frame);
                }

                @Override
                public void close() {
                    next = Long.MAX_VALUE;
                }
            };
        }
    }
}
