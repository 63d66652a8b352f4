package awlsmith.core.condition;

import awlsmith.core.measure.Fields;

/**
 * What a frame's lines tell against both neighbours.
 *
 * @param combed share of its blocks
 */
record FieldNote(long frame, Fields.Verdict verdict, double combed) {
    /** Share of blocks from which on a frame counts as combed; whole frames have half of that at most. */
    static final double COMBED = 0.004;

    boolean isCombed() {
        return combed > COMBED;
    }
}
