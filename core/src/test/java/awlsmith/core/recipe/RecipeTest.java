package awlsmith.core.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Placement;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RecipeTest {
    private static final Format TAPE =
            new Format(720, 576, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, new Rational(16, 15));
    private static final Format FILM =
            new Format(1920, 1080, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    private static Format sized(Format in, String step) {
        return new Recipe(List.of(Step.parse(step))).chain(in).output();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "enlarge factor=2 | 1440 | 1152 | 16/15",
                "enlarge | 1440 | 1152 | 16/15",
                "enlarge factor=1.5 kernel=mitchell | 1080 | 864 | 16/15",
                "enlarge target=1080p | 1350 | 1080 | 16/15",
                "enlarge height=1152 | 1440 | 1152 | 16/15",
                "enlarge width=721 | 722 | 576 | 16/15",
                "enlarge width=768 height=576 | 768 | 576 | 1",
                "enlarge width=1440 height=1080 | 1440 | 1080 | 1",
                "enlarge target=cinema | 2700 | 2160 | 16/15",
                "enlarge target=cinema fit=letterbox | 4096 | 2160 | 1",
                "enlarge target=1080p fit=fill | 1920 | 1080 | 1",
                "enlarge target=4320p fit=letterbox | 7680 | 4320 | 1",
                "enlarge width=1000 height=1001 fit=fill | 1000 | 1002 | 1",
                "enlarge width=1000 fit=fill | 1000 | 800 | 16/15"
            })
    void sizesAreEvenAndTheShapeAsSeenIsKept(String step, int width, int height, String sar) {
        Format out = sized(TAPE, step);
        assertThat(out.width()).isEqualTo(width);
        assertThat(out.height()).isEqualTo(height);
        assertThat(out.sar()).isEqualTo(Rational.parse(sar));
    }

    /** 720x576 with samples of 16:15 is seen as 4:3: in a 1920x1080 frame it is 1440 wide, or 1440 high. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "fit=letterbox | 240 | 0 | 1440 | 1080",
                "fit=letterbox offset=-100 | 0 | 0 | 1440 | 1080",
                "fit=letterbox offset=100 | 480 | 0 | 1440 | 1080",
                "fit=fill | 0 | -180 | 1920 | 1440",
                "fit=fill offset=-100 | 0 | 0 | 1920 | 1440",
                "fit=fill offset=100 | 0 | -360 | 1920 | 1440",
                "fit=shape | 0 | 0 | 1350 | 1080"
            })
    void aPictureIsPutIntoAFrameOfAnotherShape(String fit, int x, int y, int width, int height) {
        var chain = new Recipe(List.of(Step.parse("enlarge target=1080p " + fit))).chain(TAPE);
        assertThat(chain.placement()).isEqualTo(new Placement(x, y, width, height));
    }

    /** A target is a frame that the picture fits into, upright for upright pictures: sizes worked by hand. */
    @ParameterizedTest
    @CsvSource({
        "640, 338, target=2160p, 3840, 2028",
        "640, 338, target=cinema, 4090, 2160",
        "498, 280, target=1080p, 1920, 1080",
        "406, 720, target=1080p, 1080, 1916",
        "720, 405, target=1080p, 1920, 1080",
        "720, 1280, target=cinema, 2160, 3840",
        "1920, 1080, target=cinema fit=fill, 4096, 2160",
        "1080, 1920, target=1080p fit=letterbox, 1080, 1920",
        "480, 480, target=720p, 720, 720"
    })
    void aTargetIsAFrameThePictureFitsInto(int width, int height, String settings, int outWidth, int outHeight) {
        Format out = sized(FILM.withSize(width, height, Rational.ONE), "enlarge " + settings);
        assertThat(out.width() + "x" + out.height()).isEqualTo(outWidth + "x" + outHeight);
    }

    /** 1080p covering 4096x2160 is 4096x2304: 144 lines are cut, where the offset says. */
    @ParameterizedTest
    @CsvSource({"0, -72", "-100, 0", "100, -144"})
    void whatOverhangsIsCutWhereTheOffsetSays(int offset, int y) {
        var chain = new Recipe(List.of(Step.parse("enlarge target=cinema fit=fill offset=" + offset))).chain(FILM);
        assertThat(chain.placement()).isEqualTo(new Placement(0, y, 4096, 2304));
    }

    @Test
    void grownPicturesOfOnePixelWork() {
        Format dot = new Format(1, 1, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        assertThat(sized(dot, "enlarge factor=2").width()).isEqualTo(2);
        assertThat(sized(dot, "enlarge factor=0.125").width()).isEqualTo(2);
        assertThat(sized(dot.withChroma(Chroma.GREY), "enlarge factor=0.125").width())
                .isEqualTo(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "enlarge factor=9 | factor is 9, outside: allowed is 0.125..8 x",
                "enlarge factor=nan | allowed is 0.125..8 x",
                "enlarge factor=two | factor is two, not a number",
                "enlarge kernel=bicubic | allowed is one of area, bilinear, mitchell",
                "enlarge width=1.5 | width is 1.5, not a whole number: allowed is 2..16384 px",
                "enlarge glow=1 | enlarge has no setting 'glow'; it has: factor, target, width, height, fit, offset, pixels, model, mode, texture, softness, strength, kernel",
                "blow-up factor=2 | there is no step called 'blow-up'; there are: transparency, cadence, deinterlace, unblend, rate, speed, turn, crop, steady, even-light, dust, repair, undither, denoise, true-size, stairs, haloes, deblur, unsmear, refine, bands, exposure, levels, contrast, table, enlarge, sharpen, lines, smooth, original, grain",
                "haloes kind=glow | allowed is one of seams, mask",
                "enlarge factor | 'factor' is not a setting; write key=value",
                "enlarge factor=2 factor=3 | factor is given twice"
            })
    void badStepsKeysAndValuesAreRefusedWithWhatIsAllowed(String step, String sentence) {
        assertThatThrownBy(() -> Step.parse(step))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining(sentence);
    }

    @Test
    void askingForTooMuchIsRefusedEarlyWithWhatWouldWork() {
        Format large = FILM.withSize(3840, 2160, Rational.ONE);
        assertThatThrownBy(() -> sized(large, "enlarge factor=8"))
                .hasMessageContaining("35 million pixels")
                .hasMessageContaining("the most for this clip is factor 2.07");
        // 1080p four times as large is the largest broadcast frame (ITU-R BT.2020), ultra-high definition four times no
        // player's
        assertThat(sized(FILM, "enlarge factor=4")).satisfies(out -> {
            assertThat(out.width()).isEqualTo(7680);
            assertThat(out.height()).isEqualTo(4320);
        });
        assertThatThrownBy(() -> sized(large, "enlarge factor=4")).hasMessageContaining("enlarging 3840x2160");
        // what is larger already may become smaller
        assertThat(sized(FILM.withSize(16000, 16000, Rational.ONE), "enlarge factor=0.5")
                        .width())
                .isEqualTo(8000);
        assertThatThrownBy(() -> sized(TAPE, "enlarge factor=2 target=1080p"))
                .hasMessageContaining("in more than one way");
    }

    @Test
    void theOpenFormGoesRound() {
        var recipe = new Recipe(List.of(
                Step.parse("enlarge factor=1.5 kernel=catmull-rom"), Step.of("enlarge", false, Map.of("width", 640))));
        assertThat(Recipe.fromTree(recipe.toTree())).isEqualTo(recipe);
        assertThat(recipe.toTree()).containsEntry("awlsmith", 1);
    }

    /** Two changes of the form, one after the other: a recipe of the first version goes through both. */
    @Test
    void recipesOfEarlierVersionsAreBroughtToThisOne() {
        List<java.util.function.UnaryOperator<Map<String, Object>>> changes = List.of(
                tree -> {
                    tree.put("steps", List.of(Map.of("step", "enlarge", "settings", Map.of("factor", 3))));
                    return tree;
                },
                tree -> Map.of("steps", tree.get("steps"), "name", "kept"));
        Map<?, ?> brought = RecipeVersions.brought(Map.of("awlsmith", 1, "steps", List.of()), changes, 3);
        assertThat(brought.get("awlsmith")).isEqualTo(3);
        assertThat(brought.get("name")).isEqualTo("kept");
        assertThat(brought.get("steps").toString()).contains("factor=3");
        assertThatThrownBy(() -> Recipe.fromTree(Map.of("awlsmith", 99, "steps", List.of())))
                .hasMessageContaining("of version 99")
                .hasMessageContaining("reads up to 1");
    }

    @Test
    void foreignTreesAreRefusedWithTheirPlace() {
        assertThatThrownBy(() -> Recipe.fromTree(Map.of("steps", List.of())))
                .hasMessageContaining("not a recipe of version 1");
        assertThatThrownBy(() -> Recipe.fromTree(Map.of("awlsmith", 1))).hasMessageContaining("no list");
        var wrong = Map.of(
                "awlsmith",
                1,
                "steps",
                List.of(Map.of("step", "enlarge"), Map.of("step", "enlarge", "settings", Map.of("factor", 99)), "x"));
        assertThatThrownBy(() -> Recipe.fromTree(wrong)).isInstanceOfSatisfying(RecipeException.class, e -> {
            assertThat(e.problems()).extracting(Problem::step).containsExactly(1, 2);
            assertThat(e.problems().getFirst().key()).isEqualTo("factor");
        });
        var many = java.util.Collections.nCopies(65, Map.of("step", "enlarge"));
        assertThatThrownBy(() -> Recipe.fromTree(Map.of("awlsmith", 1, "steps", many)))
                .hasMessageContaining("at most 64");
    }

    @Test
    void stepsSwitchedOffPassThePictureOn() {
        var recipe = new Recipe(
                List.of(Step.of("enlarge", false, Map.of("factor", 4)), Step.of("enlarge", true, Map.of("factor", 2))));
        var treatment = recipe.on(Material.of(FILM));
        assertThat(treatment.format(0).width()).isEqualTo(1920);
        assertThat(treatment.format(1).width()).isEqualTo(3840);
        assertThat(treatment.summary(0)).isEmpty();
        assertThat(treatment.summary(1)).startsWith("2x");
        assertThat(recipe.chain(FILM).stages()).hasSize(1);
    }

    @Test
    void everyStepDescribesItself() {
        Material film = Material.of(FILM);
        Given.Look nothing = analysis -> Optional.empty();
        var given = new Given(
                film.format(),
                film.times(),
                NetForm.FLOAT,
                SideFiles.NONE,
                nothing,
                new Given.Raw(1, nothing),
                nothing,
                Recipe.EMPTY.chain(film.format()));
        for (StepKind kind : StepRegistry.all()) {
            assertThat(kind.purpose()).isNotBlank();
            assertThat(kind.params()).extracting(Param::key).doesNotHaveDuplicates();
            for (Param param : kind.params()) {
                assertThat(param.effect()).isNotBlank();
                assertThat(param.allowed()).isNotBlank();
                if (param.fallback() != null) {
                    assertThat(param.read(param.fallback())).isEqualTo(param.fallback());
                }
            }
            assertThat(kind.summary(new Settings(Map.of()), given)).isNotBlank();
        }
    }

    /** Motion needs whole frames, and pictures in which there is something to follow. */
    @Test
    void framesBetweenAreNotMadeOfWhatHasNoMotionToFind() {
        var made = new Recipe(List.of(Step.parse("rate rate=2x frames=made")));
        Format small = new Format(20, 64, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        assertThatThrownBy(() -> made.on(Material.of(small)).output())
                .hasMessageContaining("20x64")
                .hasMessageContaining("at least 32 pixels");
        Format woven =
                new Format(64, 64, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE, Scan.TOP_FIRST);
        assertThatThrownBy(() -> made.on(Material.of(woven)).output())
                .hasMessageContaining("interlaced")
                .hasMessageContaining("Deinterlace before");
    }

    @Test
    void cutsByHandAreTimesWithOneOrNought() {
        Format format = new Format(64, 64, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        assertThat(new Recipe(List.of(Step.parse("rate rate=2x frames=made scenes=1.5:1,3:0")))
                        .on(Material.of(format))
                        .output())
                .isEqualTo(format);
        for (String wrong : List.of("1.5:2", "-1:1", "soon", "2:1,1:0")) {
            assertThatThrownBy(() -> Step.parse("rate rate=2x frames=made scenes=" + wrong))
                    .as(wrong)
                    .hasMessageContaining("scenes");
        }
    }
}
