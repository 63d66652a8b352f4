package awlsmith.core.detail;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/**
 * Takes away haloes: the bright and dark seams that too much sharpening leaves beside strong edges. A sample is part of one when, going along
 * its row or column, an edge falls off on one side, an even surface lies behind it on the other, and it goes beyond that surface by a part of
 * the edge's height. It is brought back to the surface. Textures and lines have no such surface behind them, and stay.
 *
 * <p>The rule is ours; no source.
 */
public final class HaloStage implements Stage {
    /** Samples of the surface that is looked at behind a halo. */
    private static final int SURFACE = 4;
    /** Least height of an edge: 30 of 255. */
    private static final float EDGE = 30f / 255;
    /** A halo goes beyond its surface by no more than this part of the edge; what does is a line of its own. */
    private static final float MOST = 0.45f;
    /** Surfaces may vary by this part of the halo's height, and by some. */
    private static final float UNEVEN = 0.5f;

    private static final float EVEN = 2f / 255;

    private final Format format;
    private final int width;

    /** @param width samples that haloes are wide at most, 1..8 */
    public HaloStage(Format format, int width) {
        this.format = format;
        this.width = width;
    }

    @Override
    public Format output() {
        return format;
    }

    /** Samples along a row or column that tell what one of them is. */
    private int reach() {
        return width + SURFACE;
    }

    @Override
    public Region needs(Region wanted) {
        return wanted.grown(Math.max(reach(), 2 * width + 1), format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame in = input.at(0).cut(held);
        Frame out = in.copy(wanted, in.number(), in.time(), pool);
        Region within = wanted.inside(held);
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < lights; p++) {
            Plane from = in.plane(p);
            Plane to = out.plane(p);
            work.bands(to.height(), 8, (first, end) -> {
                var line = new Line(from);
                for (int y = first; y < end; y++) {
                    work.cancel().check();
                    for (int x = 0; x < to.width(); x++) {
                        to.set(x, y, line.without(within.x() + x, within.y() + y));
                    }
                }
            });
        }
        return out;
    }

    /** Looks along rows and columns. */
    private final class Line {
        private final Plane plane;

        Line(Plane plane) {
            this.plane = plane;
        }

        float without(int x, int y) {
            float light = plane.at(x, y);
            float across = beyond(x, y, 1, 0);
            float down = beyond(x, y, 0, 1);
            return light - (Math.abs(across) >= Math.abs(down) ? across : down);
        }

        /** By how much a sample goes beyond the surface it belongs to, above 0 of bright haloes; 0 where it is none. */
        private float beyond(int x, int y, int stepX, int stepY) {
            float one = beyond(x, y, stepX, stepY, 1);
            float other = beyond(x, y, stepX, stepY, -1);
            return Math.abs(one) >= Math.abs(other) ? one : other;
        }

        /** @param side on which the edge would be */
        private float beyond(int x, int y, int stepX, int stepY, int side) {
            int dx = stepX * side;
            int dy = stepY * side;
            if (!isInside(x - dx * reach(), y - dy * reach()) || !isInside(x + dx, y + dy)) {
                return 0;
            }
            float light = plane.at(x, y);
            float least = Float.MAX_VALUE;
            float most = -Float.MAX_VALUE;
            float sum = 0;
            for (int k = width + 1; k <= reach(); k++) {
                float behind = plane.at(x - dx * k, y - dy * k);
                least = Math.min(least, behind);
                most = Math.max(most, behind);
                sum += behind;
            }
            float beyond = light - sum / SURFACE;
            float sign = Math.signum(beyond);
            if (Math.abs(beyond) < EVEN || most - least > UNEVEN * Math.abs(beyond) + EVEN) {
                return 0;
            }
            // the edge goes the other way than the halo
            float height = 0;
            for (int k = 1; k <= 2 * width + 1 && isInside(x + dx * k, y + dy * k); k++) {
                height = Math.max(height, sign * (light - plane.at(x + dx * k, y + dy * k)));
            }
            float edge = height - Math.abs(beyond);
            if (edge < EDGE || Math.abs(beyond) > MOST * edge) {
                return 0;
            }
            // what is near the bounds of the rule is moved less, so that nothing switches from frame to frame
            float strong = Math.min(1, (edge - EDGE) / EDGE);
            float small = Math.min(1, (MOST * edge - Math.abs(beyond)) / (0.1f * edge));
            float even = Math.min(1, (UNEVEN * Math.abs(beyond) + EVEN - (most - least)) / EVEN);
            return beyond * strong * small * even;
        }

        private boolean isInside(int x, int y) {
            return x >= 0 && y >= 0 && x < plane.width() && y < plane.height();
        }
    }
}
