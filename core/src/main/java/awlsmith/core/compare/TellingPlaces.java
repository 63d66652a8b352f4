package awlsmith.core.compare;

import awlsmith.core.measure.NoiseLevel;
import awlsmith.core.picture.Plane;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * The places of a picture that tell most about a treatment: where there is most to see (lettering, faces, crossing edges), where it changes
 * most, and where it most likely does harm. All by comparing blocks of source and treated luma at the source's scale (our own measures, no
 * source; detail as J. Shi and C. Tomasi choose points, "Good features to track", CVPR 1994). Near black, where nobody sees anything,
 * nothing is told.
 */
public final class TellingPlaces {
    /** Side of the blocks that are compared, in source pixels. */
    static final int BLOCK = 16;

    /** Fine structure weaker than this, in steps of 255, is none. */
    private static final double FAINT = 1.2;
    /** Share of fine structure that may go before it is called lost. */
    private static final double KEPT = 0.55;
    /** A halo weaker than this, in steps of 255, is not seen. */
    private static final double SEEN = 4;

    /** Luma below which a place is too dark to judge by eye, where the picture is not all as dark. */
    private static final double DARK = 0.12;

    private static final double CODES = 255;

    private TellingPlaces() {}

    /** What makes a place worth looking at. */
    public enum Why {
        DETAIL("most detail"),
        CHANGED("changes most"),
        FLATTENED("texture lost"),
        HALO("halo"),
        NEW_EDGES("new edges in flat");

        private final String words;

        Why(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public boolean isHarm() {
            return this != CHANGED && this != DETAIL;
        }
    }

    /**
     * @param x middle of the place in source pixels, @param y likewise
     * @param amount how much, in steps of 255
     */
    public record Place(int x, int y, Why why, double amount) {}

    /**
     * @param source luma, at least 64x64
     * @param treated luma at the source's scale, same size
     * @param each at most so many places of each kind
     * @return for each kind the strongest first, no two of one kind close together
     */
    public static List<Place> of(Plane source, Plane treated, int each) {
        double noise = CODES * NoiseLevel.of(source).sigma();
        double left = CODES * NoiseLevel.of(treated).sigma();
        double dark = Math.min(DARK, 0.5 * mean(source, 0, 0, source.width(), source.height()));
        var found = new ArrayList<Place>();
        for (int y = 2; y + BLOCK + 2 <= source.height(); y += BLOCK / 2) {
            for (int x = 2; x + BLOCK + 2 <= source.width(); x += BLOCK / 2) {
                if (mean(source, x, y, BLOCK, BLOCK) >= dark) {
                    look(source, treated, x, y, noise, left, found);
                }
            }
        }
        var kept = new ArrayList<Place>();
        for (Why why : Why.values()) {
            keepStrongest(found.stream().filter(p -> p.why() == why).toList(), each, kept);
        }
        return kept;
    }

    private static double mean(Plane p, int x0, int y0, int width, int height) {
        double sum = 0;
        for (int y = y0; y < y0 + height; y++) {
            for (int x = x0; x < x0 + width; x++) {
                sum += p.at(x, y);
            }
        }
        return sum / ((double) width * height);
    }

    private static void look(Plane s, Plane t, int x0, int y0, double noise, double left, List<Place> found) {
        double change = 0;
        double fineS = 0;
        double fineT = 0;
        double broadS = 0;
        double shot = 0;
        double across = 0;
        double down = 0;
        double both = 0;
        for (int y = y0; y < y0 + BLOCK; y++) {
            for (int x = x0; x < x0 + BLOCK; x++) {
                double d = CODES * (t.at(x, y) - s.at(x, y));
                change += d * d;
                double hs = CODES * fine(s, x, y);
                double ht = CODES * fine(t, x, y);
                fineS += hs * hs;
                fineT += ht * ht;
                double gx = CODES * (s.at(x + 2, y) - s.at(x - 2, y)) / 2;
                double gy = CODES * (s.at(x, y + 2) - s.at(x, y - 2)) / 2;
                double step = 2 * (gx + gy);
                broadS += step * step;
                across += gx * gx;
                down += gy * gy;
                both += gx * gy;
                shot = Math.max(shot, beyond(s, t, x, y) - 3 * noise);
            }
        }
        int count = BLOCK * BLOCK;
        int mx = x0 + BLOCK / 2;
        int my = y0 + BLOCK / 2;
        // the smaller eigenvalue of the slopes: large only where they go several ways
        double weaker = (across + down) / 2 - Math.hypot((across - down) / 2, both);
        double detail = Math.sqrt(Math.max(0, weaker / count - noise * noise / 2));
        if (detail > FAINT) {
            found.add(new Place(mx, my, Why.DETAIL, detail));
        }
        found.add(new Place(mx, my, Why.CHANGED, Math.sqrt(change / count)));
        // noise answers fine() with its own square times FINE_GAIN in the mean: only what goes beyond is structure
        double structureS = Math.sqrt(Math.max(0, fineS / count - noise * noise * FINE_GAIN));
        double structureT = Math.sqrt(Math.max(0, fineT / count - left * left * FINE_GAIN));
        if (structureS > FAINT && structureT < KEPT * structureS) {
            found.add(new Place(mx, my, Why.FLATTENED, structureS - structureT));
        }
        if (shot > SEEN) {
            found.add(new Place(mx, my, Why.HALO, shot));
        }
        boolean flat = Math.sqrt(broadS / count) < 4 * noise + 3 && structureS < FAINT;
        if (flat && Math.sqrt(fineT / count) > Math.sqrt(fineS / count) + FAINT) {
            found.add(new Place(mx, my, Why.NEW_EDGES, Math.sqrt(fineT / count) - Math.sqrt(fineS / count)));
        }
    }

    /** A sample less the mean of its eight neighbours; squares of its taps add up to {@link #FINE_GAIN}. */
    private static double fine(Plane p, int x, int y) {
        double around = p.at(x - 1, y - 1)
                + p.at(x, y - 1)
                + p.at(x + 1, y - 1)
                + p.at(x - 1, y)
                + p.at(x + 1, y)
                + p.at(x - 1, y + 1)
                + p.at(x, y + 1)
                + p.at(x + 1, y + 1);
        return p.at(x, y) - around / 8;
    }

    private static final double FINE_GAIN = 1 + 8 / 64.0;

    /** How far the treated sample lies beyond all source samples around it, in steps of 255. */
    private static double beyond(Plane s, Plane t, int x, int y) {
        float low = Float.MAX_VALUE;
        float high = -Float.MAX_VALUE;
        for (int j = -2; j <= 2; j++) {
            for (int i = -2; i <= 2; i++) {
                float v = s.at(x + i, y + j);
                low = Math.min(low, v);
                high = Math.max(high, v);
            }
        }
        float v = t.at(x, y);
        return CODES * Math.max(0, Math.max(v - high, low - v));
    }

    private static void keepStrongest(List<Place> some, int each, List<Place> kept) {
        var mine = new ArrayList<Place>();
        for (Place place : some.stream()
                .sorted(Comparator.comparingDouble(Place::amount).reversed())
                .toList()) {
            boolean close = mine.stream()
                    .anyMatch(p -> Math.abs(p.x() - place.x()) < 3 * BLOCK && Math.abs(p.y() - place.y()) < 3 * BLOCK);
            if (!close) {
                mine.add(place);
            }
            if (mine.size() == each) {
                break;
            }
        }
        kept.addAll(mine);
    }
}
