package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ai.onnxruntime.OrtEnvironment;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelUnavailable;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.upscale.HashedFilters;
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
        String mode =
                card.mode() == ModelCard.Mode.QUALITY ? "" : "-" + card.mode().id();
        byte[] file;
        try (var net = ShippedModels.class.getResourceAsStream(
                card.id() + (card.job() == ModelCard.Job.ENLARGE ? "-2x" : "") + mode + ".onnx")) {
            if (net == null) {
                assertThat(card.reach()).isEqualTo(HashedFilters.REACH);
                assertThat(card.step()).isEqualTo(1);
                return;
            }
            file = net.readAllBytes();
        }
        try (var session = OrtEnvironment.getEnvironment().createSession(file)) {
            Map<String, String> notes = session.getMetadata().getCustomMetadata();
            assertThat(notes)
                    .containsEntry("reach", "" + card.reach())
                    .containsEntry("base", card.base().id())
                    .containsEntry("factor", "" + card.factor());
            // files of the first runs were written before nets could have a step
            assertThat(notes.getOrDefault("step", "1")).isEqualTo("" + card.step());
            if (card.job() == ModelCard.Job.ENLARGE) {
                assertThat(notes).containsEntry("planes", "" + (card.frames() + (card.told() ? 1 : 0)));
            }
        }
    }

    @Test
    void aMissingOrDamagedFileIsASentence() {
        var broken = new ShippedModels("broken-cards.json");
        for (ModelCard card : broken.cards()) {
            assertThatThrownBy(() -> broken.open(card, NetForm.FLOAT))
                    .isInstanceOf(ModelUnavailable.class)
                    .hasMessageContaining(card.label())
                    .hasMessageContaining("install Awlsmith again, or choose another model");
        }
    }
}
