package awlsmith.core.condition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

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
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import awlsmith.core.plan.ModelSuggestion;
import awlsmith.core.recipe.Step;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Clips with known faults, painted here. */
class ConditionTest {
    private static final ModelSuggestion NOTHING = new ModelSuggestion("photographic", "nothing speaks for another");
    private static final Format FORMAT =
            new Format(192, 144, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    /** Luma of a sample of one frame. */
    private interface Paint {
        double at(int frame, int x, int y);
    }

    private record Painted(int count, Paint paint) implements FrameSource {
        @Override
        public Format format() {
            return FORMAT;
        }

        @Override
        public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
            return new FrameStream() {
                private int next = (int) range.from();

                @Override
                public Format format() {
                    return FORMAT;
                }

                @Override
                public Optional<Frame> next() {
                    if (next >= Math.min(range.end(), count)) {
                        return Optional.empty();
                    }
                    Frame frame = Frame.blank(FORMAT, window, next, new Rational(next, 25), pool);
                    for (int y = 0; y < window.height(); y++) {
                        for (int x = 0; x < window.width(); x++) {
                            frame.plane(0).set(x, y, (float) paint.at(next, x, y));
                        }
                    }
                    for (int i = 0; i < frame.plane(1).data().length; i++) {
                        frame.plane(1).data()[i] = i % 2 == 0 ? 0.08f : -0.08f;
                        frame.plane(2).data()[i] = i % 4 < 2 ? 0.08f : -0.08f;
                    }
                    next++;
                    return Optional.of(frame);
                }

                @Override
                public void close() {}
            };
        }
    }

    private static Judge judge(int count, Paint paint) {
        var notes = new Examiner(new Painted(count, paint), 25, new PlanePool(0)).examine(Work.alone(), done -> {});
        return new Judge(notes);
    }

    /** A textured wall that slides by; t in frames. */
    private static double wall(double t, int x, int y) {
        double u = x - 1.5 * t;
        return 0.45
                + 0.08 * Math.sin(u * 0.31 + 3 * Math.sin(u * 0.017))
                + 0.08 * Math.cos(y * 0.17 + 2 * Math.sin(y * 0.023))
                + 0.1 * Math.sin(u * 0.05 + y * 0.03);
    }

    @Test
    void aCleanClipHasNothingToComplainOf() {
        var condition = judge(60, (n, x, y) -> wall(n, x, y)).condition();
        assertThat(condition.scan()).isEqualTo(Scan.PROGRESSIVE);
        assertThat(condition.cuts()).isZero();
        for (String id : new String[] {"noise", "blocks", "comb", "shake", "repeats", "flicker", "borders"}) {
            assertThat(condition.finding(id).isNoticed()).as(id).isFalse();
        }
    }

    @Test
    void noiseIsNamedWithItsFigure() {
        var random = new Random(1);
        var condition = judge(30, (n, x, y) -> wall(n, x, y) + 8.0 / 255 * random.nextGaussian())
                .condition();
        Finding noise = condition.finding("noise");
        assertThat(noise.value()).isBetween(7.2, 8.8);
        assertThat(noise.words()).startsWith("noise ").contains("of 255, fine-grained");
        assertThat(condition.worst()).contains(noise);
        var suggestion = Suggestion.of(condition, FORMAT, NOTHING);
        assertThat(suggestion.parts()).anySatisfy(part -> {
            assertThat(part.step().kind()).isEqualTo("denoise");
            assertThat(part.reason()).isEqualTo(noise.words());
        });
        assertThat(suggestion.parts()).noneMatch(part -> part.step().kind().equals("even-light"));
        assertThat(suggestion.parts().getLast().reason()).isEqualTo("photographic: clean enough once it is cleaned");
    }

    @Test
    void cutsRepeatsAndFlashesAreTold() {
        var curves = judge(80, (n, x, y) -> {
                    int at = n == 21 || n == 47 ? n - 1 : n;
                    return (n < 40 ? wall(at, x, y) : 1.1 - wall(at, y, x)) + (n == 60 ? 0.15 : 0);
                })
                .curves();
        assertThat(curves.cuts()).containsExactly(40L);
        assertThat(curves.repeats()).containsExactly(21L, 47L);
        assertThat(curves.flashes()).containsExactly(60L);
    }

    @Test
    void aRhythmOfRepeatsIsFound() {
        var condition =
                judge(60, (n, x, y) -> wall(n % 5 == 3 ? n - 1 : n, x, y)).condition();
        assertThat(condition.pulldown()).contains(new Condition.Pulldown(false, 5, 3));
        assertThat(condition.finding("repeats").words()).contains("every fifth frame");
    }

    /** Two fields of every film picture, then three: SMPTE RP 197. Frames 2 and 3 of each five are woven from two pictures. */
    @Test
    void filmBroughtToVideoByFieldsIsFound() {
        int[] upper = {0, 1, 1, 2, 3};
        int[] lower = {0, 1, 2, 3, 3};
        var condition = judge(60, (n, x, y) -> {
                    int picture = 4 * (n / 5) + (y % 2 == 0 ? upper[n % 5] : lower[n % 5]);
                    return wall(2.5 * picture, x, y);
                })
                .condition();
        assertThat(condition.scan()).isEqualTo(Scan.TOP_FIRST);
        assertThat(condition.pulldown()).contains(new Condition.Pulldown(true, 5, 2));
    }

    @Test
    void fieldsAreToldWithTheirOrder() {
        var condition = judge(40, (n, x, y) -> wall(2 * (n + (y % 2 == 0 ? 0.5 : 0)), x, y))
                .condition();
        assertThat(condition.scan()).isEqualTo(Scan.BOTTOM_FIRST);
        assertThat(condition.finding("comb").isNoticed()).isTrue();
        assertThat(condition.finding("comb").words()).contains("bottom field first");
        assertThat(condition.pulldown()).isEmpty();
    }

    @Test
    void aShakingHandIsMeasured() {
        var random = new Random(7);
        double[] hand = new double[60];
        for (int i = 0; i < 60; i++) {
            hand[i] = 1.2 * random.nextGaussian();
        }
        Condition condition = judge(60, (n, x, y) -> wall(hand[n] / 1.5, x, y)).condition();
        var shake = condition.finding("shake");
        // 1.2 samples of 192 are 0.63 %; the mean over a second takes a little of it
        assertThat(shake.value()).isBetween(0.4, 0.75);
        assertThat(shake.isNoticed()).isTrue();
        var steady = Suggestion.of(condition, FORMAT, NOTHING).parts().stream()
                .filter(part -> part.step().kind().equals("steady"))
                .findFirst();
        assertThat(steady).isPresent();
        assertThat(steady.get().reason()).contains("shakes by");
        assertThat(steady.get().step().settings().given()).containsEntry("rim", 3L);
    }

    /** Faded light is led back to the range, by what the whole clip uses of it: a darker scene in the middle is not crushed. */
    @Test
    void fadedLightIsSuggestedItsLevels() {
        Condition faded = judge(60, (n, x, y) -> (n < 20 ? 0.3 : n < 40 ? 0.22 : 0.3) + 0.35 * wall(n, x, y))
                .condition();
        assertThat(faded.finding("contrast").isNoticed()).isTrue();
        var levels = Suggestion.of(faded, FORMAT, NOTHING).parts().stream()
                .filter(part -> part.step().kind().equals("levels"))
                .findFirst()
                .orElseThrow();
        assertThat(levels.reason()).contains("light spans");
        double black = (Double) levels.step().settings().given().get("black");
        double white = (Double) levels.step().settings().given().get("white");
        assertThat(black / 100)
                .isLessThanOrEqualTo(faded.light().low())
                .isGreaterThan(faded.light().low() - 0.04);
        assertThat(white / 100).isGreaterThanOrEqualTo(faded.light().high()).isLessThan(0.9);
        Condition whole = judge(30, (n, x, y) -> 1.7 * wall(n, x, y) - 0.25).condition();
        assertThat(Suggestion.of(whole, FORMAT, NOTHING).parts())
                .noneMatch(part -> part.step().kind().equals("levels"));
    }

    @Test
    void flickerAndBordersAreFound() {
        var random = new Random(2);
        double[] gain = new double[50];
        for (int i = 0; i < 50; i++) {
            gain[i] = 1 + 0.02 * random.nextGaussian();
        }
        var condition = judge(50, (n, x, y) -> y < 16 || y >= 128 ? 0 : wall(n, x, y) * gain[n])
                .condition();
        assertThat(condition.finding("flicker").isNoticed()).isTrue();
        assertThat(condition.borders().top()).isEqualTo(16);
        assertThat(condition.borders().bottom()).isEqualTo(16);
        assertThat(condition.finding("borders").isNoticed()).isTrue();
    }

    /** Colour differences of the full bars, worked from the luma weights of ITU-R BT.601: 0.299, 0.587, 0.114. */
    @Test
    void castsAreNamedByTheColourTheyLeanTo() {
        double[][] bars = {{1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 1, 1}, {0, 0, 1}, {1, 0, 1}};
        String[] names = {"red", "yellow", "green", "cyan", "blue", "magenta"};
        for (int i = 0; i < bars.length; i++) {
            double luma = 0.299 * bars[i][0] + 0.587 * bars[i][1] + 0.114 * bars[i][2];
            assertThat(Judge.hue((bars[i][2] - luma) / 1.772, (bars[i][0] - luma) / 1.402))
                    .isEqualTo(names[i]);
        }
    }

    @Test
    void stoppingStops() {
        var cancel = new Cancel();
        var examiner = new Examiner(new Painted(100, (n, x, y) -> 0.5), 25, new PlanePool(0));
        assertThatThrownBy(() -> examiner.examine(Work.alone().with(cancel), done -> cancel.ask()))
                .isInstanceOf(Cancel.Stopped.class);
    }

    @Test
    void aClipOfOneFrameIsJudgedToo() {
        var condition = judge(1, (n, x, y) -> wall(n, x, y)).condition();
        assertThat(condition.findings()).hasSize(27);
        assertThat(condition.scan()).isEqualTo(Scan.PROGRESSIVE);
    }

    private static double stones(long x, int y) {
        return 0.4 + 0.1 * Math.sin(5000 * Math.sin(x / 6 * 1.7 + y / 6 * 2.9));
    }

    /** Brought from 25 to 30 frames a second by mixing: found, and taken apart before all else. */
    @Test
    void mixedFramesAreFoundAndTakenApartFirst() {
        Paint mixed = (n, x, y) -> {
            double at = n * 25 / 30.0;
            long before = (long) Math.floor(at);
            double later = at - before;
            return (1 - later) * stones(x + 7 * before, y) + later * stones(x + 7 * (before + 1), y);
        };
        var notes = new Examiner(new Painted(80, mixed), 30, new PlanePool(0)).examine(Work.alone(), done -> {});
        var condition = new Judge(notes).condition();
        assertThat(condition.finding("blends").words()).isEqualTo("frames are mixes of two: 25 a second were made 30");
        assertThat(Suggestion.of(condition, FORMAT, NOTHING).parts().getFirst().step())
                .isEqualTo(Step.of("unblend", Map.of()));
    }

    /** Twelve frames a second stutter, and become twice as many behind all else; of drawings they are meant so. */
    @Test
    void lowRatesAreFoundAndMadeFluent() {
        Paint goes = (n, x, y) -> wall(n, x, y) + 0.02 * Math.sin(0.9 * x + 1.7 * y + 2.3 * n);
        var notes = new Examiner(new Painted(24, goes), 12, new PlanePool(0)).examine(Work.alone(), done -> {});
        var condition = new Judge(notes).condition();
        assertThat(condition.finding("slow").isNoticed()).isTrue();
        assertThat(condition.finding("slow").words()).isEqualTo("12 frames a second: motion stutters");
        var last = Suggestion.of(condition, FORMAT, NOTHING).parts().getLast();
        assertThat(last.step()).isEqualTo(Step.of("rate", Map.of("rate", "2x", "frames", "made")));
        var still = new Examiner(new Painted(1, goes), 5, new PlanePool(0)).examine(Work.alone(), done -> {});
        assertThat(new Judge(still).condition().finding("slow").isNoticed()).isFalse();
        assertThat(TimeFindings.slow(12, true).isNoticed()).isFalse();
        assertThat(TimeFindings.slow(18, false).isNoticed()).isFalse();
        assertThat(TimeFindings.slow(8, false).severity()).isEqualTo(1);
    }

    /** A wall whose fine texture goes with it is sound, however it moves; where it is another in every frame it swims. */
    @Test
    void textureThatDoesNotFollowIsFound() {
        Paint follows = (n, x, y) -> rough(x - 2 * n, y, 0);
        assertThat(judge(16, follows).condition().finding("swim").isNoticed()).isFalse();
        Paint swims = (n, x, y) -> rough(x - 2 * n, y, n);
        var condition = judge(16, swims).condition();
        assertThat(condition.finding("swim").isNoticed()).isTrue();
        assertThat(condition.finding("dust").isNoticed()).isFalse();
        // noise is not texture
        var random = new java.util.Random(9);
        Paint noisy = (n, x, y) -> rough(x - 2 * n, y, 0) + 0.008 * random.nextGaussian();
        assertThat(judge(16, noisy).condition().finding("swim").isNoticed()).isFalse();
    }

    /** Hills of light that make the motion known, and on the lower ones waves of some samples, of a direction that the seed turns. */
    private static double rough(double x, double y, int seed) {
        double hills = 0.5 + 0.15 * Math.sin(x * 0.21 + 2 * Math.sin(y * 0.17)) * Math.cos(y * 0.19);
        double fine = 0;
        for (int k = 0; k < 6; k++) {
            double turn = 1.1 * k + 2.4 * seed;
            fine += Math.sin((x * Math.cos(turn) + y * Math.sin(turn)) * (1.1 + 0.1 * k) + 3.7 * seed * k + k);
        }
        return hills + (y > 60 ? 0.008 * fine : 0);
    }

    /** Dots in flat colours are told, and smoothed before a model for drawings enlarges. */
    @Test
    void ditherIsFoundAndSmoothed() {
        var condition = judge(8, (n, x, y) -> 0.3 + (x / 40 % 2) * 0.2 + ((x * 3 + y * 5) % 14 == 0 ? 0.14 : 0))
                .condition();
        assertThat(condition.finding("dither").isNoticed()).isTrue();
        assertThat(condition.drawn()).isTrue();
        assertThat(Suggestion.of(condition, FORMAT, NOTHING).parts().stream()
                        .map(part -> part.step().kind())
                        .toList())
                .contains("undither")
                .doesNotContain("denoise", "bands");
    }

    /** A slope of few code values is told as bands, and made a slope again. */
    @Test
    void bandsAreFoundAndSmoothed() {
        var condition = judge(8, (n, x, y) -> Math.rint((0.3 + 0.0001 * x + 0.0001 * y) * 219) / 219)
                .condition();
        assertThat(condition.finding("bands").isNoticed()).isTrue();
        assertThat(Suggestion.of(condition, FORMAT, NOTHING).parts().stream()
                        .map(part -> part.step().kind())
                        .toList())
                .contains("bands");
    }

    /** How coarsely a codec rounded is a finding where it is known, and none where not. */
    @Test
    void compressionIsAFindingWhereTheCodecTells() {
        var notes = new Examiner(new Painted(4, (n, x, y) -> wall(n, x, y)), 25, new PlanePool(0))
                .examine(Work.alone(), done -> {});
        var told = new Judge(notes, Optional.empty(), java.util.OptionalDouble.of(36)).condition();
        assertThat(told.ifThere("rounding").orElseThrow().isNoticed()).isTrue();
        assertThat(told.ifThere("rounding").orElseThrow().words()).isEqualTo("compressed: rounded to 36 of 255");
        assertThat(new Judge(notes).condition().ifThere("rounding")).isEmpty();
    }

    /** Doubled pixels are told with the size they were made at, brought back to it, and enlarged to what they would have become. */
    @Test
    void whatWasEnlargedBeforeIsMadeSmallerFirst() {
        var condition = judge(8, (n, x, y) -> wall(n, x / 2, y / 2)).condition();
        Finding enlarged = condition.finding("enlarged");
        assertThat(enlarged.value()).isEqualTo(2);
        assertThat(enlarged.words()).startsWith("enlarged 2 times before, by repeating pixels: made at about");
        var parts = Suggestion.of(condition, FORMAT, NOTHING).parts();
        assertThat(parts.stream().map(part -> part.step().kind()).toList())
                .containsSubsequence("true-size", "enlarge")
                .doesNotContain("deblur", "refine");
        assertThat(parts.getLast().step().settings().given()).containsEntry("factor", 4.0);
        assertThat(judge(8, (n, x, y) -> wall(n, x, y))
                        .condition()
                        .finding("enlarged")
                        .isNoticed())
                .isFalse();
    }

    /** Of two factors that fit the same rhythm the larger one needs a picture that is as soft as it would make it. */
    @Test
    void theSofterPictureWasEnlargedMore() {
        var sizes = java.util.Collections.nCopies(4, new awlsmith.core.measure.TrueSize(1.5, 3, false));
        assertThat(SizeFindings.size(sizes, 1.3).factor()).isEqualTo(3);
        assertThat(SizeFindings.size(sizes, 0.7).factor()).isEqualTo(1.5);
        assertThat(SizeFindings.size(sizes, 0.3).factor()).isEqualTo(1);
        assertThat(SizeFindings.size(java.util.List.of(), Double.NaN).factor()).isEqualTo(1);
    }

    /** Edges alone between even surfaces: where light overshoots them it was sharpened, and that is undone. */
    @Test
    void sharpeningIsFoundByItsSeams() {
        Paint plain = (n, x, y) -> x % 48 < 24 ? 0.3 : 0.7;
        Paint sharpened = (n, x, y) -> {
            int at = x % 48;
            double seam = at == 23 || at == 47 ? 1 : at == 24 || at == 0 ? -1 : 0;
            return (at < 24 ? 0.3 : 0.7) - (at < 24 ? 1 : -1) * 0.04 * Math.abs(seam);
        };
        assertThat(judge(8, plain).condition().finding("haloes").isNoticed()).isFalse();
        var condition = judge(8, sharpened).condition();
        assertThat(condition.finding("haloes").value()).isCloseTo(10, org.assertj.core.api.Assertions.within(1.0));
        var haloes = Suggestion.of(condition, FORMAT, NOTHING).parts().stream()
                .filter(part -> part.step().kind().equals("haloes"))
                .findFirst();
        // flat colours with hard edges count as drawn, which keeps its haloes
        assertThat(haloes.isPresent()).isEqualTo(!condition.drawn());
    }

    /** A blur of one way is undone along it, not in all directions. */
    @Test
    void whatWasMovedIsUndoneAlongItsWay() {
        // discs, each sample the mean of thirteen beside each other
        var condition = judge(8, (n, x, y) -> {
                    double sum = 0;
                    for (int t = -6; t <= 6; t++) {
                        double u = Math.floorMod(x + t, 48) - 24;
                        double v = y % 48 - 24;
                        sum += Math.clamp((15 - Math.hypot(u, v)) / 2, 0, 1);
                    }
                    return 0.25 + 0.5 * sum / 13;
                })
                .condition();
        double angle = condition.smear().orElseThrow().angle();
        assertThat(Math.min(angle, 180 - angle)).isLessThan(8);
        assertThat(condition.smear().orElseThrow().length()).isBetween(8.0, 16.0);
        var step = Suggestion.of(condition, FORMAT, NOTHING).parts().stream()
                .map(Suggestion.Part::step)
                .filter(one -> one.kind().equals("deblur"))
                .findFirst();
        if (!condition.drawn()) {
            assertThat(step.orElseThrow().settings().given()).containsEntry("kind", "line");
        }
    }
}
