package awlsmith.server.takes;

import awlsmith.core.recipe.Recipe;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
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

    /**
     * @param recipe of each new take, and its name where the user gave one
     * @param like the take whose span they get
     */
    record Fresh(List<Named> takes, @Nullable UUID like) {}

    record Named(@Nullable String name, Map<String, Object> recipe) {}

    record Label(@Nullable String name, TakeView.@Nullable Verdict verdict) {}

    record Version(int version) {}

    @GetMapping("/api/clips/{clip}/takes")
    List<TakeView> takes(@PathVariable UUID clip) {
        return takes.of(clip);
    }

    @PostMapping("/api/clips/{clip}/takes")
    List<TakeView> add(@PathVariable UUID clip, @RequestBody Fresh fresh) {
        var recipes = fresh.takes().stream()
                .map(one -> new Takes.Fresh(one.name(), Recipe.fromTree(one.recipe())))
                .toList();
        return takes.add(clip, recipes, fresh.like());
    }

    @PutMapping("/api/takes/{id}")
    TakeView change(@PathVariable UUID id, @RequestBody Change change) {
        return takes.change(
                id, Recipe.fromTree(change.recipe()), change.inFrame(), change.outFrame(), change.version());
    }

    @PostMapping("/api/takes/{id}/undo")
    TakeView undo(@PathVariable UUID id, @RequestBody Version on) {
        return takes.step(id, -1, on.version());
    }

    @PostMapping("/api/takes/{id}/redo")
    TakeView redo(@PathVariable UUID id, @RequestBody Version on) {
        return takes.step(id, 1, on.version());
    }

    @PatchMapping("/api/takes/{id}")
    TakeView label(@PathVariable UUID id, @RequestBody Label label) {
        return takes.label(id, label.name(), label.verdict());
    }

    @DeleteMapping("/api/takes/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        takes.remove(id);
    }
}
