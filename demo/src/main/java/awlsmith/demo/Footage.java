package awlsmith.demo;

import awlsmith.core.picture.Rational;
import java.nio.file.Path;

/**
 * One clip of the archive.
 *
 * @param id file name without ending
 * @param title as people read it
 * @param clip the degraded file
 * @param truth the clean, large file it was made from; frame n of the clip is frame {@code n * truthStep} of it
 * @param truthStep truth frames to one clip frame
 * @param scale truth pixels to one clip pixel
 */
public record Footage(String id, String title, Path clip, Path truth, int truthStep, Rational scale) {}
