package awlsmith.server.dispatch;

import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Preset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What to send out, by what it is for: those that come along, and people's own. */
@RestController
@RequestMapping("/api/presets")
class PresetController {
    private final OwnPresets own;

    PresetController(OwnPresets own) {
        this.own = own;
    }

    /**
     * @param id of one's own; null of those that come along
     * @param deliverable in its open form
     * @param isDefault whether it is what a dialog begins with
     */
    record PresetDescription(
            String key,
            @Nullable UUID id,
            String label,
            String purpose,
            Map<String, Object> deliverable,
            boolean isDefault) {
        static PresetDescription of(Preset preset) {
            return new PresetDescription(
                    preset.id(),
                    null,
                    preset.label(),
                    preset.purpose(),
                    preset.deliverable().toTree(),
                    false);
        }

        static PresetDescription of(OwnPresets.Own own) {
            Deliverable deliverable = own.deliverable();
            return new PresetDescription(
                    own.id().toString(),
                    own.id(),
                    own.name(),
                    "your own: " + deliverable.codec().label() + " in "
                            + deliverable.container().label(),
                    deliverable.toTree(),
                    own.isDefault());
        }
    }

    /** @param name one that is taken already is replaced */
    record Save(String name, DeliverableChoice deliverable, boolean isDefault) {}

    @GetMapping
    List<PresetDescription> presets() {
        var all = new ArrayList<PresetDescription>();
        Preset.all().forEach(preset -> all.add(PresetDescription.of(preset)));
        own.all().forEach(preset -> all.add(PresetDescription.of(preset)));
        return all;
    }

    @PostMapping
    PresetDescription save(@RequestBody Save save) {
        return PresetDescription.of(own.save(save.name(), save.deliverable().deliverable(), save.isDefault()));
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        own.remove(id);
    }
}
