package awlsmith.core.condition;

import awlsmith.core.measure.Fields;

/**
 * What a frame's lines tell against both neighbours.
 *
 * @param combed share of its blocks
 */
record FieldNote(long frame, Fields.Verdict verdict, double combed, double topRepeat, double bottomRepeat) {}
