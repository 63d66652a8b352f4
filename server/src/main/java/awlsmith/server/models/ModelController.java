package awlsmith.server.models;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.server.problem.Refusal;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The models' cards. */
@RestController
class ModelController {
    private final ModelSpeeds speeds;

    ModelController(ModelSpeeds speeds) {
        this.speeds = speeds;
    }

    /** @param pixelsASecond input pixels treated here; null while it was not measured */
    record ModelView(
            String job,
            String id,
            String mode,
            String label,
            String purpose,
            int factor,
            int frames,
            boolean told,
            long weights,
            Map<String, String> training,
            @Nullable Double pixelsASecond) {}

    @GetMapping("/api/models")
    List<ModelView> models() {
        return Models.all().stream().map(this::view).toList();
    }

    /** @param id of the model; @param mode what it aims at */
    record Which(String id, String mode) {}

    /** Measures one model anew, which takes about a second; who wants all asks for one after another and may stop. */
    @PostMapping("/api/models/speeds")
    ModelView measure(@RequestBody Which which) {
        ModelCard card = Models.all().stream()
                .filter(one -> one.id().equals(which.id()) && one.mode().id().equals(which.mode()))
                .findFirst()
                .orElseThrow(() -> Refusal.unknown("this model"));
        speeds.measureAgain(card);
        return view(card);
    }

    private ModelView view(ModelCard card) {
        OptionalDouble speed = speeds.ifKnown(card);
        return new ModelView(
                card.job().id(),
                card.id(),
                card.mode().id(),
                card.label(),
                card.purpose(),
                card.factor(),
                card.frames(),
                card.told(),
                card.weights(),
                new TreeMap<>(card.training()),
                speed.isPresent() ? speed.getAsDouble() : null);
    }
}
