package awlsmith.server.steps;

import awlsmith.core.recipe.StepRegistry;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Every kind of step with its parameters: the screens' controls follow from these. */
@RestController
class StepController {
    record StepDescription(String id, String name, String purpose, String group, List<ParamDescription> params) {}

    @GetMapping("/api/steps")
    List<StepDescription> steps() {
        return StepRegistry.all().stream()
                .map(kind -> new StepDescription(
                        kind.id(),
                        kind.name(),
                        kind.purpose(),
                        kind.group().id(),
                        kind.params().stream().map(ParamDescription::of).toList()))
                .toList();
    }
}
