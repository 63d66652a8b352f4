package awlsmith.core.model;

import awlsmith.core.pipeline.Stage;
import java.util.Optional;

/** A treatment that may run a model; whoever estimates its time asks which. */
public interface ModelStage extends Stage {
    /** Empty when it works without one. */
    Optional<ModelCard> model();
}
