package awlsmith.core.condition;

import awlsmith.core.measure.Blocking;
import awlsmith.core.measure.BlurWidth;
import awlsmith.core.measure.Dots;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Levels;
import awlsmith.core.measure.NoiseLevel;
import awlsmith.core.measure.TrueSize;

/**
 * What is measured on a few frames a second, because it takes longer and changes slowly.
 *
 * @param colourNoise standard deviation of the colour differences' noise, 0..1; NaN without colour
 * @param bell that edges look blurred by
 * @param seams as {@link awlsmith.core.measure.Seams} tells them
 * @param size whether it was enlarged before
 * @param softness as {@link awlsmith.core.upscale.SoftnessGuess} tells it; NaN where it was not asked
 */
record Sample(
        long frame,
        NoiseLevel.Noise noise,
        double colourNoise,
        Blocking.Blocks blocks,
        EdgeWidth.Edges edges,
        BlurWidth.Widths bell,
        double seams,
        double stairs,
        TrueSize size,
        Dots.Found dots,
        double bands,
        double softness,
        Levels levels) {}
