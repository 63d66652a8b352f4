package awlsmith.server.takes;

import awlsmith.core.recipe.Recipe;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Takes over HTTP. */
@RestController
class TakeController {
    private final Takes takes;

    TakeController(Takes takes) {
        this.takes = takes;
    }

    record Change(
            Map<String, Object> recipe,
            @Nullable Integer inFrame,
            @Nullable Integer outFrame,
            int version) {}

    @GetMapping("/api/clips/{clip}/takes")
    List<TakeView> takes(@PathVariable UUID clip) {
        return takes.of(clip);
    }

    @PutMapping("/api/takes/{id}")
    TakeView change(@PathVariable UUID id, @RequestBody Change change) {
        return takes.change(
                id, Recipe.fromTree(change.recipe()), change.inFrame(), change.outFrame(), change.version());
    }
}
