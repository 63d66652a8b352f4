package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Timing;

/**
 * What is known of a clip before its first pixel is asked for.
 *
 * @param format of its pictures, colour resolved
 * @param times of its frames
 * @param findings of analyses made so far
 * @param files that recipes name
 */
public record Material(Format format, Timing times, Findings findings, SideFiles files) {
    /** A clip of which no analysis was made, and no file is at hand. */
    public Material(Format format, Timing times) {
        this(format, times, Findings.NONE, SideFiles.NONE);
    }

    /** Pictures of which only the format is told: evenly, 25 a second, without end. */
    public static Material of(Format format) {
        return new Material(format, Timing.steady(Rational.of(25), FrameRange.OPEN));
    }

    /** The same with what other analyses found. */
    public Material with(Findings other) {
        return new Material(format, times, other, files);
    }

    /** The same with other files at hand. */
    public Material with(SideFiles other) {
        return new Material(format, times, findings, other);
    }
}
