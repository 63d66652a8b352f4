package awlsmith.core.condition;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;

/** Whether repeats keep a rhythm that can be undone. */
final class Rhythm {
    /** Periods looked for: 24 in 25, 24 in 30 and 15, 12 in 24 or 25, 20 in 25. */
    private static final int LONGEST = 25;
    /** Share of periods that must show the repeat in its place. */
    private static final double KEPT = 0.85;
    /** Repeats that fall out of the rhythm, as a share of those in it. */
    private static final double STRAYS = 0.25;

    private Rhythm() {}

    static Optional<Condition.Pulldown> frames(int count, List<Long> repeats) {
        var set = new HashSet<>(repeats);
        for (int period = 2; period <= LONGEST; period++) {
            for (int phase = 0; phase < period; phase++) {
                int places = 0;
                int hits = 0;
                for (int n = phase == 0 ? period : phase; n < count; n += period) {
                    places++;
                    hits += set.contains((long) n) ? 1 : 0;
                }
                if (places >= 4 && hits >= KEPT * places && repeats.size() - hits <= STRAYS * hits) {
                    return Optional.of(new Condition.Pulldown(false, period, phase));
                }
            }
        }
        return Optional.empty();
    }

    /**
     * Of film at 24 frames a second brought to 30 by fields (SMPTE RP 197 describes its phases): two frames of every five
     * are woven from two pictures, three are whole.
     */
    static Optional<Condition.Pulldown> fields(List<FieldNote> notes) {
        Optional<Condition.Pulldown> best = Optional.empty();
        double bestScore = KEPT;
        for (int phase = 0; phase < 5; phase++) {
            int places = 0;
            int fits = 0;
            int whole = 0;
            int wholeFits = 0;
            for (FieldNote note : notes) {
                int at = (int) Math.floorMod(note.frame() - phase, 5L);
                if (at < 2) {
                    places++;
                    fits += note.isCombed() ? 1 : 0;
                } else {
                    whole++;
                    wholeFits += note.isCombed() ? 0 : 1;
                }
            }
            double score = places < 6 || whole < 9 ? 0 : Math.min((double) fits / places, (double) wholeFits / whole);
            if (score > bestScore) {
                bestScore = score;
                best = Optional.of(new Condition.Pulldown(true, 5, phase));
            }
        }
        return best;
    }
}
