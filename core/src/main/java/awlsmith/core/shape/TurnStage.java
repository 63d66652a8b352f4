package awlsmith.core.shape;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Optional;

/** Mirrors a picture and turns it by quarters, sample for sample; where chroma lies turns with it. */
public final class TurnStage implements Stage {
    private final Format input;
    private final Format output;
    private final int quarters;
    private final boolean mirrorAcross;
    private final boolean mirrorDown;

    /**
     * @param quarters turns clockwise by 90 degrees, 0..3, after mirroring
     * @param mirrorAcross left becomes right, @param mirrorDown top becomes bottom
     */
    public TurnStage(Format input, int quarters, boolean mirrorAcross, boolean mirrorDown) {
        if (quarters < 0 || quarters > 3) {
            throw new IllegalArgumentException("quarters is " + quarters + ", must be in 0..3");
        }
        boolean lying = quarters % 2 == 1;
        if (lying && input.chroma().stepX() != input.chroma().stepY()) {
            throw new IllegalArgumentException("a " + input.chroma() + " picture cannot lie on its side as it is");
        }
        this.input = input;
        this.quarters = quarters;
        this.mirrorAcross = mirrorAcross;
        this.mirrorDown = mirrorDown;
        Format turned = lying
                ? input.withSize(input.height(), input.width(), input.sar().inverse())
                : input;
        Siting siting = input.siting();
        siting = mirrorAcross ? siting.mirroredAcross(input.chroma(), input.width()) : siting;
        siting = mirrorDown ? siting.mirroredDown(input.chroma(), input.height()) : siting;
        turned = turned.withSiting(siting.turned(quarters, input.chroma(), input.width(), input.height()));
        boolean upsideDown = mirrorDown ^ quarters == 2;
        this.output = turned.withScan(upsideDown && input.height() % 2 == 0 ? opposite(input.scan()) : input.scan());
    }

    private static Scan opposite(Scan scan) {
        return switch (scan) {
            case PROGRESSIVE -> Scan.PROGRESSIVE;
            case TOP_FIRST -> Scan.BOTTOM_FIRST;
            case BOTTOM_FIRST -> Scan.TOP_FIRST;
        };
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public boolean isAligned() {
        return false;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new TurnStage(plane, quarters, mirrorAcross, mirrorDown));
    }

    @Override
    public Region needs(Region wanted) {
        long a = source(wanted.x(), wanted.y(), input.width(), input.height());
        long b = source(wanted.right() - 1, wanted.bottom() - 1, input.width(), input.height());
        int left = Math.min(column(a), column(b));
        int top = Math.min(line(a), line(b));
        int right = Math.max(column(a), column(b)) + 1;
        int bottom = Math.max(line(a), line(b)) + 1;
        return new Region(left, top, right - left, bottom - top).aligned(input.chroma(), input.width(), input.height());
    }

    /** Column and line of the input plane, of the given size, that a sample of the output comes from; packed. */
    private long source(int x, int y, int width, int height) {
        int u = switch (quarters) {
            case 0 -> x;
            case 1 -> y;
            case 2 -> width - 1 - x;
            default -> width - 1 - y;
        };
        int v = switch (quarters) {
            case 0 -> y;
            case 1 -> height - 1 - x;
            case 2 -> height - 1 - y;
            default -> x;
        };
        int column = mirrorAcross ? width - 1 - u : u;
        int line = mirrorDown ? height - 1 - v : v;
        return (long) line << 32 | column;
    }

    private static int column(long packed) {
        return (int) packed;
    }

    private static int line(long packed) {
        return (int) (packed >> 32);
    }

    @Override
    public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
        Frame in = neighbours.at(0);
        Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
        Chroma chroma = input.chroma();
        for (int p = 0; p < chroma.planes(); p++) {
            int plane = p;
            Plane to = out.plane(p);
            Plane from = in.plane(p);
            int sx = chroma.stepX(p);
            int sy = chroma.stepY(p);
            int width = chroma.planeWidth(plane, input.width());
            int height = chroma.planeHeight(plane, input.height());
            int left = in.window().x() / sx;
            int top = in.window().y() / sy;
            work.bands(to.height(), 64, (first, end) -> {
                for (int y = first; y < end; y++) {
                    for (int x = 0; x < to.width(); x++) {
                        long at = source(x + wanted.x() / sx, y + wanted.y() / sy, width, height);
                        to.set(x, y, from.at(column(at) - left, line(at) - top));
                    }
                }
            });
        }
        return out;
    }
}
