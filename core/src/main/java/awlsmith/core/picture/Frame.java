package awlsmith.core.picture;

import java.util.List;

/**
 * One picture in time, or a window cut out of it.
 *
 * @param format of the whole picture, even when only a window is held
 * @param window which part the planes cover; starts on whole chroma samples
 * @param planes one per component, that of transparency last, each just as large as its share of the window
 * @param number frame number in the clip, from 0
 * @param time presentation time in seconds from the clip's start
 */
public record Frame(Format format, Region window, List<Plane> planes, long number, Rational time) {
    public Frame {
        planes = List.copyOf(planes);
        Chroma chroma = format.chroma();
        if (planes.size() != format.planes()) {
            throw new IllegalArgumentException(
                    "frame has " + planes.size() + " planes, " + chroma + " needs " + format.planes());
        }
        if (window.x() % chroma.stepX() != 0 || window.y() % chroma.stepY() != 0) {
            throw new IllegalArgumentException("window " + window + " does not start on a whole chroma sample");
        }
        for (int p = 0; p < planes.size(); p++) {
            Plane plane = planes.get(p);
            if (plane.width() != chroma.planeWidth(p, window.width())
                    || plane.height() != chroma.planeHeight(p, window.height())) {
                throw new IllegalArgumentException(
                        "plane " + p + " is " + plane.width() + "x" + plane.height() + " for window " + window);
            }
        }
    }

    /** A frame over the given window with planes from the pool; every sample must be written. */
    public static Frame blank(Format format, Region window, long number, Rational time, PlanePool pool) {
        Chroma chroma = format.chroma();
        var planes = new Plane[format.planes()];
        for (int p = 0; p < planes.length; p++) {
            planes[p] = pool.borrow(chroma.planeWidth(p, window.width()), chroma.planeHeight(p, window.height()));
        }
        return new Frame(format, window, List.of(planes), number, time);
    }

    /** Plane p; that of transparency is the last. */
    public Plane plane(int p) {
        return planes.get(p);
    }

    /**
     * The plane that motion and light are looked for in: luma; of R'G'B' green, which is nearest to what luma would be and costs nothing.
     * Whoever needs luma itself takes {@link awlsmith.core.compare.Luma}.
     */
    public Plane light() {
        return plane(format.chroma() == Chroma.RGB ? 1 : 0);
    }

    /** The given part of this frame as a view; the samples are shared. */
    public Frame cut(Region part) {
        if (!window.contains(part)) {
            throw new IllegalArgumentException("frame holds " + window + ", asked for " + part);
        }
        Chroma chroma = format.chroma();
        var cut = new Plane[planes.size()];
        for (int p = 0; p < cut.length; p++) {
            int sx = chroma.stepX(p);
            int sy = chroma.stepY(p);
            cut[p] = planes.get(p)
                    .window(new Region(
                            (part.x() - window.x()) / sx,
                            (part.y() - window.y()) / sy,
                            chroma.planeWidth(p, part.width()),
                            chroma.planeHeight(p, part.height())));
        }
        return new Frame(format, part, List.of(cut), number, time);
    }

    /** The same frame shown at another time; the samples are shared. */
    public Frame timed(Rational other) {
        return other.equals(time) ? this : new Frame(format, window, planes, number, other);
    }

    /** A copy of the given part, with planes from the pool. */
    public Frame copy(Region part, long newNumber, Rational newTime, PlanePool pool) {
        Frame from = cut(part);
        Frame to = blank(format, part, newNumber, newTime, pool);
        for (int p = 0; p < planes.size(); p++) {
            Plane source = from.plane(p);
            Plane copy = to.plane(p);
            for (int y = 0; y < copy.height(); y++) {
                copy.takeRow(y, source, y);
            }
        }
        return to;
    }

    /** Gives the planes back to the pool they came from; the frame must not be used afterwards. */
    public void release(PlanePool pool) {
        planes.forEach(pool::giveBack);
    }
}
