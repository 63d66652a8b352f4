package awlsmith.server.models;

import awlsmith.core.upscale.ModelCard;
import awlsmith.core.upscale.Models;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
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
            String id,
            String mode,
            String label,
            String purpose,
            int factor,
            long weights,
            Map<String, String> training,
            @Nullable Double pixelsASecond) {}

    @GetMapping("/api/models")
    List<ModelView> models() {
        return Models.all().stream().map(this::view).toList();
    }

    /** Measures every model anew. */
    @PostMapping("/api/models/speeds")
    List<ModelView> measure() {
        Models.all().forEach(speeds::measureAgain);
        return models();
    }

    private ModelView view(ModelCard card) {
        OptionalDouble speed = speeds.ifKnown(card);
        return new ModelView(
                card.id(),
                card.mode().id(),
                card.label(),
                card.purpose(),
                card.factor(),
                card.weights(),
                new TreeMap<>(card.training()),
                speed.isPresent() ? speed.getAsDouble() : null);
    }
}
