package awlsmith.core.condition;

/**
 * What is measured on a few frames, with those before and after.
 *
 * @param frame number
 * @param spots of dust
 * @param scratches upright lines
 */
record FilmNote(long frame, int spots, int scratches) {}
