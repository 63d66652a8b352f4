package awlsmith.core.condition;

import awlsmith.core.measure.Blocking;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Levels;
import awlsmith.core.measure.NoiseLevel;

/** What is measured on a few frames a second, because it takes longer and changes slowly. */
record Sample(
        long frame,
        NoiseLevel.Noise noise,
        Blocking.Blocks blocks,
        EdgeWidth.Edges edges,
        double stairs,
        Levels levels) {}
