package awlsmith.server.takes;

import awlsmith.server.settings.SettingRepository;
import org.springframework.stereotype.Service;

/** What new clips are treated with. */
@Service
class FirstRecipe {
    private static final String NAME = "first-recipe";

    private final SettingRepository settings;

    FirstRecipe(SettingRepository settings) {
        this.settings = settings;
    }

    Way way() {
        return settings.find(NAME, Way.class).orElse(Way.USUAL);
    }

    Way set(Way way) {
        Way checked = way.checked();
        settings.save(NAME, checked);
        return checked;
    }
}
