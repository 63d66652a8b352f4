package awlsmith.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.FileRef;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.SideFiles;
import awlsmith.core.recipe.Step;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LookupTableTest {
    private static final Format FILM = new Format(8, 6, Chroma.S444, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    private static final String SAME = "# the same again\nTITLE \"same\"\nLUT_3D_SIZE 2\n\n"
            + "0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1\n";

    private static LookupTable table(String text) {
        return LookupTable.read(text.getBytes(StandardCharsets.US_ASCII));
    }

    private static float[] colour(LookupTable table, double r, double g, double b) {
        float[] made = new float[3];
        table.colour((float) r, (float) g, (float) b, made);
        return made;
    }

    @Test
    void aCubeOfItselfChangesNothingInsideAndBeyond() {
        var random = new SplittableRandom(4);
        for (int i = 0; i < 500; i++) {
            double r = random.nextDouble() * 2 - 0.5;
            double g = random.nextDouble() * 2 - 0.5;
            double b = random.nextDouble() * 2 - 0.5;
            float[] made = colour(table(SAME), r, g, b);
            assertThat(made[0]).isCloseTo((float) r, within(1e-6f));
            assertThat(made[1]).isCloseTo((float) g, within(1e-6f));
            assertThat(made[2]).isCloseTo((float) b, within(1e-6f));
        }
    }

    /** Red changes fastest. Worked by hand: in a cube whose far corner alone is lifted, r > g > b weighs that corner by b. */
    @Test
    void aCubeIsReadInItsOrderAndWeighedByTetrahedra() {
        LookupTable lifted = table(SAME.replace("1 1 1\n", "1 1 2\n"));
        assertThat(colour(lifted, 0.8, 0.5, 0.25)[2]).isCloseTo(0.25f + 0.25f, within(1e-6f));
        LookupTable redCorner = table(SAME.replaceFirst("\n1 0 0\n", "\n1 0 0.5\n"));
        assertThat(colour(redCorner, 0.8, 0.5, 0.25)[2]).isCloseTo(0.25f + 0.5f * 0.3f, within(1e-6f));
        assertThat(colour(redCorner, 0.2, 0.5, 0.25)[2]).isCloseTo(0.25f, within(1e-6f));
    }

    @Test
    void curvesGoStraightOverTheirDomain() {
        LookupTable curves = table("LUT_1D_SIZE 3\nDOMAIN_MIN 0 0 -1\nDOMAIN_MAX 2 1 1\n0 1 0\n0.5 0.5 0.3\n1 0 1\n");
        assertThat(curves.isCube()).isFalse();
        float[] made = colour(curves, 1, 0.25, 0.5);
        assertThat(made[0]).isCloseTo(0.5f, within(1e-6f));
        assertThat(made[1]).isCloseTo(0.75f, within(1e-6f));
        assertThat(made[2]).isCloseTo(0.65f, within(1e-6f));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "hello | line 1 is no part of a lookup table",
                "LUT_3D_SIZE 1 | size must be 2..256",
                "LUT_3D_SIZE 1000000 | size must be 2..256",
                "LUT_1D_SIZE 2\\n0 0 0 | holds 1 colours, its size promises 2; it is cut short",
                "LUT_1D_SIZE 2\\n0 0 0\\n1 1 1\\n2 2 2 | line 4 is one colour more",
                "LUT_1D_SIZE 2\\n0 0\\n1 1 1 | line 2 should hold 3 numbers",
                "LUT_1D_SIZE 2\\n0 0 NaN\\n1 1 1 | line 2 should hold 3 numbers",
                "LUT_1D_SIZE 2\\nDOMAIN_MAX 0 0 0\\n0 0 0\\n1 1 1 | domain ends before it begins",
                "LUT_1D_SIZE 2\\nLUT_3D_SIZE 2 | gives a second size",
                "# nothing | no LUT_1D_SIZE or LUT_3D_SIZE"
            })
    void whatIsNoTableIsRefusedWithASentence(String text, String sentence) {
        assertThatThrownBy(() -> table(text.replace("\\n", "\n")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(sentence);
    }

    private static Frame treated(String table, Format format, Object share, float... values) {
        byte[] content = table.getBytes(StandardCharsets.US_ASCII);
        var file = FileRef.of("/somewhere/A (b).cube", content);
        SideFiles files = asked -> asked.equals(file) ? Optional.of(content) : Optional.empty();
        var recipe = new Recipe(List.of(Step.of("table", Map.of("file", file.toString(), "share", share))));
        assertThat(Recipe.fromTree(recipe.toTree())).isEqualTo(recipe);
        Frame now = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
        for (int p = 0; p < now.planes().size(); p++) {
            now.plane(p).fill(values[p]);
        }
        var treatment = recipe.on(Material.of(format).with(files));
        assertThat(treatment.files()).containsExactly(file);
        assertThat(treatment.summary(0)).startsWith("A__b_.cube".substring(0, 2));
        for (Stage stage : treatment.chain().stages()) {
            Frame from = now;
            now = stage.treat(d -> from, stage.output().whole(), new PlanePool(0), Work.alone());
        }
        return now;
    }

    @Test
    void aStepLeadsColoursByItsFileInPart() {
        String inverse = "LUT_1D_SIZE 2\n1 1 1\n0 0 0\n";
        assertThat(treated(inverse, FILM, 100, 0.8f, 0.1f, 0).plane(0).at(1, 1)).isCloseTo(0.2f, within(1e-5f));
        assertThat(treated(inverse, FILM, 100, 0.8f, 0.1f, 0).plane(1).at(1, 1)).isCloseTo(-0.1f, within(1e-5f));
        assertThat(treated(inverse, FILM, 25, 0.8f, 0, 0).plane(0).at(1, 1)).isCloseTo(0.65f, within(1e-5f));
        Format grey = FILM.withChroma(Chroma.GREY);
        assertThat(treated(inverse, grey, 100, 0.8f).plane(0).at(1, 1)).isCloseTo(0.2f, within(1e-5f));
    }

    @Test
    void aTableThatIsNotHereIsNamed() {
        var file = FileRef.of("warm.cube", new byte[] {1});
        var recipe = new Recipe(List.of(Step.of("table", Map.of("file", file.toString()))));
        assertThatThrownBy(() -> recipe.chain(FILM))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("the table warm.cube is not here any more; add its file again");
        assertThatThrownBy(() -> recipe.on(Material.of(FILM).with((SideFiles) asked -> Optional.of(new byte[] {1}))))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("warm.cube cannot be used: no LUT_1D_SIZE");
        assertThatThrownBy(() -> Step.of("table", Map.of("file", "../../etc/passwd")))
                .hasMessageContaining("not the name of a file");
    }
}
