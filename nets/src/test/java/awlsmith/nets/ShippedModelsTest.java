package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ai.onnxruntime.OrtEnvironment;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.core.upscale.ModelCard;
import awlsmith.core.upscale.ModelUnavailable;
import awlsmith.core.upscale.Models;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class ShippedModelsTest {
    static List<ModelCard> cards() {
        return Models.all();
    }

    /** A card that promised less reach than the net has would leave seams. */
    @ParameterizedTest
    @MethodSource("cards")
    void whatTheCardSaysIsWhatTheFileHolds(ModelCard card) throws Exception {
        assertThat(card.training()).containsKeys("pictures", "made worse", "held out", "design", "training", "gain");
        if (card.mode() == ModelCard.Mode.FAST) {
            assertThat(card.reach()).isEqualTo(HashedFilters.REACH);
            return;
        }
        byte[] file =
                ShippedModels.class.getResourceAsStream(card.id() + "-2x.onnx").readAllBytes();
        try (var session = OrtEnvironment.getEnvironment().createSession(file)) {
            Map<String, String> notes = session.getMetadata().getCustomMetadata();
            assertThat(notes)
                    .containsEntry("reach", "" + card.reach())
                    .containsEntry("base", card.base().id())
                    .containsEntry("factor", "" + card.factor());
        }
    }

    @Test
    void aMissingOrDamagedFileIsASentence() {
        var broken = new ShippedModels("broken-cards.json");
        for (ModelCard card : broken.cards()) {
            assertThatThrownBy(() -> broken.open(card))
                    .isInstanceOf(ModelUnavailable.class)
                    .hasMessageContaining(card.label())
                    .hasMessageContaining("install Awlsmith again, or choose another model");
        }
    }
}
