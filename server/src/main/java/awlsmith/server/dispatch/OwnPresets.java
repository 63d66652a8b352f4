package awlsmith.server.dispatch;

import awlsmith.core.plan.Deliverable;
import awlsmith.server.problem.Refusal;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;

/** What people send out often, by their own names: kept, listed, thrown away. */
@Service
class OwnPresets {
    private static final int MOST = 200;
    private static final int LONGEST_NAME = 60;

    private final OwnPresetRepository presets;

    OwnPresets(OwnPresetRepository presets) {
        this.presets = presets;
    }

    /** @param isDefault whether it is what a dialog begins with; one at most is */
    record Own(UUID id, String name, Deliverable deliverable, boolean isDefault) {}

    List<Own> all() {
        return presets.all();
    }

    /** @param name one that is taken already is replaced */
    Own save(String name, Deliverable deliverable, boolean isDefault) {
        String clean = name.replaceAll("\\p{Cntrl}+", " ").strip();
        if (clean.isEmpty() || clean.length() > LONGEST_NAME) {
            throw new Refusal(Refusal.Kind.INVALID, "a preset's name has 1 to " + LONGEST_NAME + " letters");
        }
        if (presets.all().size() >= MOST) {
            throw new Refusal(Refusal.Kind.INVALID, MOST + " presets are the most; throw some away first");
        }
        presets.save(clean, deliverable, isDefault);
        return presets.all().stream()
                .filter(own -> own.name().equalsIgnoreCase(clean))
                .findFirst()
                .orElseThrow(() -> Refusal.unknown("this preset"));
    }

    void remove(UUID id) {
        if (!presets.delete(id)) {
            throw Refusal.unknown("this preset");
        }
    }
}
