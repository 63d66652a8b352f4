package awlsmith.server.analyses;

import awlsmith.core.recipe.Recipe;
import java.util.Map;
import java.util.UUID;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Looks through clips over HTTP. */
@RestController
@RequestMapping("/api/clips/{clip}/analyses")
class AnalysisController {
    private final ClipAnalyses analyses;

    AnalysisController(ClipAnalyses analyses) {
        this.analyses = analyses;
    }

    /** @param recipe whose steps wait */
    record Wanted(Map<String, Object> recipe) {}

    /** Nothing comes back when nothing is missing. */
    @PostMapping
    ResponseEntity<AnalysisView> ask(@PathVariable UUID clip, @RequestBody Wanted wanted) {
        return analyses.ask(clip, Recipe.fromTree(wanted.recipe()))
                .map(ResponseEntity::ok)
                .orElse(ResponseEntity.noContent().build());
    }

    @DeleteMapping("/{id}")
    AnalysisView stop(@PathVariable UUID clip, @PathVariable UUID id) {
        return analyses.stop(clip, id);
    }
}
