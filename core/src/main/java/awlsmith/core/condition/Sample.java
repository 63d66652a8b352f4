package awlsmith.core.condition;

import awlsmith.core.measure.Blocking;
import awlsmith.core.measure.Dots;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Levels;
import awlsmith.core.measure.NoiseLevel;

/**
 * What is measured on a few frames a second, because it takes longer and changes slowly.
 *
 * @param colourNoise standard deviation of the colour differences' noise, 0..1; NaN without colour
 */
record Sample(
        long frame,
        NoiseLevel.Noise noise,
        double colourNoise,
        Blocking.Blocks blocks,
        EdgeWidth.Edges edges,
        double stairs,
        Dots.Found dots,
        double bands,
        Levels levels) {}
