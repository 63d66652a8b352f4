package awlsmith.core.condition;

import awlsmith.core.measure.Swim;

/**
 * What is measured on a few frames, with those before and after.
 *
 * @param frame number
 * @param spots of dust
 * @param scratches upright lines
 * @param swim how well fine texture follows the motion
 */
record FilmNote(long frame, int spots, int scratches, Swim swim) {}
