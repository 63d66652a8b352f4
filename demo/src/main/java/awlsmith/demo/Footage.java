package awlsmith.demo;

import awlsmith.core.picture.Rational;
import java.nio.file.Path;

/**
 * One clip of the archive.
 *
 * @param id file name without ending
 * @param title as people read it
 * @param clip the degraded file
 * @param truth the clean, large file it was made from, frame for frame; of interlaced clips it shows the first field's moment
 * @param scale truth pixels to one clip pixel
 */
public record Footage(String id, String title, Path clip, Path truth, Rational scale) {}
