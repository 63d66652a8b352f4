package awlsmith.core.condition;

import awlsmith.core.measure.FrameChange;
import awlsmith.core.measure.GlobalShift;

/**
 * What is measured on every frame.
 *
 * @param light mean luma, 0..1
 * @param time seconds from the clip's start
 * @param change against the frame before; of the first frame all zero
 * @param shift against the frame before, in samples; of the first frame none
 */
record FrameNote(double light, double time, FrameChange change, GlobalShift shift) {
    static final FrameChange NO_CHANGE = new FrameChange(0, 0);
    static final GlobalShift NO_SHIFT = new GlobalShift(0, 0, 0);
}
