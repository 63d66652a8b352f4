package awlsmith.core.condition;

import java.util.List;
import java.util.Locale;

/** What is told of dust and scratches. */
final class FilmFindings {
    /** Spots a frame that cannot be overlooked (common practice, no source). */
    private static final double MANY = 5;

    private FilmFindings() {}

    /** @param whyNot why dust cannot be told from something else here; empty where it can */
    static Finding dust(List<FilmNote> notes, String whyNot) {
        boolean untold = !whyNot.isEmpty();
        double spots =
                untold ? 0 : notes.stream().mapToInt(FilmNote::spots).average().orElse(0);
        return new Finding(
                "dust",
                "Dust",
                spots,
                "spots a frame",
                spots / MANY,
                untold
                        ? whyNot
                        : spots < 0.5
                                ? "hardly any dust"
                                : String.format(Locale.ROOT, "%.1f spots a frame that no other frame has", spots),
                "places beyond all that both neighbours show there, along the motion (after Nadenau and Mitra 1997)");
    }

    static Finding scratches(List<FilmNote> notes, boolean woven) {
        long with = notes.stream().filter(note -> note.scratches() > 0).count();
        double share = woven || notes.isEmpty() ? 0 : 100.0 * with / notes.size();
        return new Finding(
                "scratches",
                "Scratches",
                share,
                "% of frames",
                // one frame with a straight pole in it is no scratch
                share < 30 ? share / 150 : 0.25 + share / 200,
                share < 30
                        ? "no scratches along the film"
                        : String.format(Locale.ROOT, "upright scratches in %.0f %% of the frames", share),
                "lines of one to three samples over most of the height (after Kokaram 1998)");
    }
}
