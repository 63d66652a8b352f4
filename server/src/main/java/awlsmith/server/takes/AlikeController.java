package awlsmith.server.takes;

import java.util.List;
import java.util.UUID;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** One recipe for many clips, over HTTP. */
@RestController
class AlikeController {
    private final Alike alike;
    private final FirstRecipe first;

    AlikeController(Alike alike, FirstRecipe first) {
        this.alike = alike;
        this.first = first;
    }

    record Give(List<UUID> clips, Way way) {}

    /** @return a sentence for every clip that did not get its recipe */
    @PostMapping("/api/takes/alike")
    List<String> give(@RequestBody Give give) {
        return alike.give(give.clips(), give.way());
    }

    /** What new clips are treated with. */
    @GetMapping("/api/first-recipe")
    Way way() {
        return first.way();
    }

    @PutMapping("/api/first-recipe")
    Way set(@RequestBody Way way) {
        return first.set(way);
    }
}
