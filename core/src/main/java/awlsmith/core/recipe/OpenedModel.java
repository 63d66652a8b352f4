package awlsmith.core.recipe;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelUnavailable;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.model.NetRunner;

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
