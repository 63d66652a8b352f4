package awlsmith.core.upscale;

import awlsmith.core.model.ModelCard;
import awlsmith.core.resample.Kernel;
import java.util.Map;

/** Cards of models that tests make up. */
public final class TestCards {
    private TestCards() {}

    /** @param factor of the enlargement, 1 for one that fills fields */
    public static ModelCard of(ModelCard.Job job, int factor, int reach) {
        return of(job, factor, reach, 1);
    }

    /** @param frames that it reads */
    public static ModelCard of(ModelCard.Job job, int factor, int reach, int frames) {
        return of(job, factor, reach, frames, false);
    }

    /** @param told whether it can be told how soft footage is */
    public static ModelCard of(ModelCard.Job job, int factor, int reach, int frames, boolean told) {
        return new ModelCard(
                job,
                "test",
                ModelCard.Mode.QUALITY,
                "Test",
                "tests",
                factor,
                reach,
                1,
                frames,
                told,
                Kernel.CATMULL_ROM,
                1,
                Map.of());
    }
}
