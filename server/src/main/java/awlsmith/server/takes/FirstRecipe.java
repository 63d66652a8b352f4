package awlsmith.server.takes;

import org.springframework.stereotype.Service;

/** What new clips are treated with. */
@Service
class FirstRecipe {
    private final FirstRecipeRepository repository;

    FirstRecipe(FirstRecipeRepository repository) {
        this.repository = repository;
    }

    Way way() {
        return repository.find().orElse(Way.USUAL);
    }

    Way set(Way way) {
        Way checked = way.checked();
        repository.save(checked);
        return checked;
    }
}
