package awlsmith.core.recipe;

import awlsmith.core.upscale.ModelCard;
import awlsmith.core.upscale.ModelUnavailable;
import awlsmith.core.upscale.Models;
import awlsmith.core.upscale.NetForm;
import awlsmith.core.upscale.NetRunner;

/** A model made ready for a step. */
final class OpenedModel {
    private OpenedModel() {}

    /**
     * @param key of the setting that chose it
     * @throws RecipeException when it cannot be had
     */
    static NetRunner of(ModelCard card, String key, NetForm form) {
        try {
            return Models.open(card, form);
        } catch (ModelUnavailable e) {
            throw new RecipeException(Problem.at(key, e.getMessage()));
        }
    }
}
