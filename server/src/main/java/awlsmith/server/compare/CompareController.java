package awlsmith.server.compare;

import awlsmith.core.compare.SourceScale.Rect;
import awlsmith.core.recipe.Recipe;
import awlsmith.server.compare.Views.PixelView;
import awlsmith.server.compare.Views.PlaceView;
import awlsmith.server.compare.Views.ScopesView;
import awlsmith.server.compare.Views.StepsView;
import awlsmith.server.compare.Views.TakeFigures;
import awlsmith.server.stills.PageId;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Comparing over HTTP. */
@RestController
@RequestMapping("/api/clips/{id}/compare")
class CompareController {
    private final Comparing comparing;

    CompareController(Comparing comparing) {
        this.comparing = comparing;
    }

    /**
     * @param frame of the source; @param later output frames after the first one made of it
     * @param x left edge, y top edge, width and height of what is seen, in source pixels
     */
    record Seen(
            Map<String, Object> recipe,
            int frame,
            @Nullable Integer later,
            double x,
            double y,
            double width,
            double height) {
        int lateBy() {
            return later == null ? 0 : Math.max(0, later);
        }

        Rect view() {
            return new Rect(
                    (int) Math.floor(x), (int) Math.floor(y), Math.max(1, (int) width), Math.max(1, (int) height));
        }
    }

    /** @param frames where the take is looked at */
    record Measured(Map<String, Object> recipe, List<Integer> frames, String viewer) {}

    record Whole(Map<String, Object> recipe, int frame) {}

    @PostMapping("/steps")
    StepsView steps(@PathVariable UUID id, @RequestBody Seen seen, PageId page) {
        return comparing.steps(
                id, Recipe.fromTree(seen.recipe()), seen.frame(), seen.lateBy(), seen.view(), page + "/steps");
    }

    @PostMapping("/pixel")
    List<PixelView> pixel(@PathVariable UUID id, @RequestBody Seen seen, PageId page) {
        return comparing.pixel(
                id, Recipe.fromTree(seen.recipe()), seen.frame(), seen.lateBy(), seen.x(), seen.y(), page + "/pixel");
    }

    @PostMapping("/scopes")
    List<ScopesView> scopes(@PathVariable UUID id, @RequestBody Seen seen, PageId page) {
        return comparing.scopes(
                id, Recipe.fromTree(seen.recipe()), seen.frame(), seen.lateBy(), seen.view(), page + "/scopes");
    }

    @PostMapping("/places")
    List<PlaceView> places(@PathVariable UUID id, @RequestBody Whole whole, PageId page) {
        return comparing.places(id, Recipe.fromTree(whole.recipe()), whole.frame(), page + "/places");
    }

    @PostMapping("/take")
    TakeFigures take(@PathVariable UUID id, @RequestBody Measured measured, PageId page) {
        return comparing.take(
                id, Recipe.fromTree(measured.recipe()), measured.frames(), page + "/figures-" + measured.viewer());
    }
}
