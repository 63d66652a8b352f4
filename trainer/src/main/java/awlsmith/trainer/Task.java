package awlsmith.trainer;

import awlsmith.core.resample.Kernel;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.pairs.Reduced;
import awlsmith.trainer.pairs.Worn;
import java.util.Arrays;
import java.util.List;

/** What a model learns to undo. */
enum Task {
    PHOTOGRAPHIC("photographic", List.of(new Reduced(List.of(Kernel.CATMULL_ROM, Kernel.AREA)))),
    WORN("worn", List.of(new Worn()));

    private final String id;
    private final List<PairMaker> makers;

    Task(String id, List<PairMaker> makers) {
        this.id = id;
        this.makers = makers;
    }

    static Task byId(String id) {
        return Arrays.stream(values())
                .filter(task -> task.id.equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no task '" + id + "'"));
    }

    List<PairMaker> makers() {
        return makers;
    }
}
