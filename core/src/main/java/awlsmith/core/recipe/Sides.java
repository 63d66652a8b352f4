package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.Placement;

/**
 * A recipe on a clip as the two pictures that are held against each other: what is shown as the source, which the steps up to
 * the last that turns the picture make, and the treated one.
 *
 * @param base the steps up to the last that turns the picture
 * @param source the picture they make
 * @param chain all stages
 * @param place where the source picture lies in the treated one
 */
public record Sides(Recipe base, Format source, Chain chain, Placement place) {
    /** @throws RecipeException when a step cannot work on what reaches it */
    public static Sides of(Recipe recipe, Format clip) {
        int turned = recipe.turned(clip);
        Recipe base = new Recipe(recipe.steps().subList(0, turned));
        Recipe behind = new Recipe(recipe.steps().subList(turned, recipe.steps().size()));
        Format source = base.chain(clip).output();
        return new Sides(base, source, recipe.chain(clip), behind.chain(source).placement());
    }

    public Format treated() {
        return chain.output();
    }
}
