package awlsmith.core.condition;

import awlsmith.core.measure.Swim;
import awlsmith.core.retime.Blending;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** What is told of fades and missing frames. */
final class TimeFindings {
    /** From here on motion looks fluent, frames a second: what silent films were shown at. */
    private static final double FLUENT = 18;
    /** So many frames a second fewer are as bad as it gets. */
    private static final double STUTTERS = 10;

    /** From here on texture counts as following, and so much less is as bad as it gets. */
    private static final double FOLLOWS = 0.85;

    private static final double SWIMS = 0.5;
    /** Share of a picture's squares that must have texture to ask. */
    private static final double ENOUGH = 0.08;

    private TimeFindings() {}

    static Finding fades(List<Fade> fades) {
        long in = fades.stream().filter(Fade::in).count();
        long out = fades.size() - in;
        String words = fades.isEmpty()
                ? "no fades"
                : (in == 0 ? "" : in + (in == 1 ? " fade in" : " fades in"))
                        + (in > 0 && out > 0 ? ", " : "")
                        + (out == 0 ? "" : out + (out == 1 ? " fade out" : " fades out"));
        return new Finding(
                "fades",
                "Fades",
                fades.size(),
                "in the clip",
                // a fade is no fault
                0,
                words,
                "mean light that rises or falls steadily out of or into black or white (common practice, no source)");
    }

    /**
     * That what no mix can hold is nearly nothing: at most 0.16 of what it usually is where frames were mixed by FFmpeg's minterpolate and framerate,
     * compressed or not, and 0.36 and more on ten sound clips (by hand, docs/decisions/016).
     *
     * @param looked whether frames are whole, so that it could be looked for
     */
    static Finding blends(Optional<Blending> blending, double rate, boolean looked) {
        Optional<Blending> told = blending.filter(found -> looked);
        return new Finding(
                "blends",
                "Mixed frames",
                told.map(found -> found.rate().toDouble()).orElse(rate),
                "frames/s before",
                told.isPresent() ? 0.5 : 0,
                told.map(found -> String.format(
                                Locale.ROOT,
                                "frames are mixes of two: %s a second were made %s",
                                number(found.rate().toDouble()),
                                number(rate)))
                        .orElse(looked ? "no frame is a mix of two" : "not looked for in woven fields"),
                "what is left of least squares over runs of frames (our own)");
    }

    private static String number(double rate) {
        return String.format(Locale.ROOT, Math.abs(rate - Math.rint(rate)) < 0.005 ? "%.0f" : "%.2f", rate);
    }

    /** @param rate frames a second that differ from each other; @param meant whether that is no fault */
    static Finding slow(double rate, boolean meant) {
        double severity = meant ? 0 : (FLUENT - rate) / STUTTERS;
        return new Finding(
                "slow",
                "Low rate",
                rate,
                "frames/s",
                severity,
                String.format(Locale.ROOT, rate == Math.rint(rate) ? "%.0f" : "%.2f", rate)
                        + (severity < Finding.NOTICED ? " frames a second" : " frames a second: motion stutters"),
                "frames a second, without those that only repeat (common practice, no source)");
    }

    /**
     * Of weak texture on sound clips, compressed ones too, the middle square follows by 0.87 and more; on the demo's made clip, whose texture is
     * plain to see, by 0.69 (by hand, docs/decisions/014).
     */
    static Finding swim(List<FilmNote> notes) {
        double[] follows = notes.stream()
                .map(FilmNote::swim)
                .filter(swim -> swim.asked() >= ENOUGH)
                .mapToDouble(Swim::follows)
                .sorted()
                .toArray();
        double middle = follows.length == 0 ? 1 : follows[follows.length / 2];
        double severity = (FOLLOWS - middle) / SWIMS;
        return new Finding(
                "swim",
                "Swimming texture",
                100 * middle,
                "% that follows",
                severity,
                severity < Finding.NOTICED
                        ? "texture goes with what it lies on"
                        : String.format(
                                Locale.ROOT,
                                "only %.0f %% of fine texture goes with what it lies on, as in clips that a program made",
                                100 * Math.max(0, middle)),
                "correlation of fine light along the motion, where coarser light agrees (our own)");
    }

    static Finding dropped(List<Dropped> dropped, int frames) {
        int lost = dropped.stream().mapToInt(Dropped::lost).sum();
        double share = 100.0 * lost / Math.max(1, frames + lost);
        String words = lost == 0
                ? "no frame is missing"
                : lost + (lost == 1 ? " frame is" : " frames are") + " missing at " + dropped.size()
                        + (dropped.size() == 1 ? " place" : " places");
        return new Finding(
                "dropped",
                "Dropped frames",
                share,
                "% of frames",
                share / 10,
                words,
                "the file's own times, and steady motion that leaps (common practice, no source)");
    }
}
