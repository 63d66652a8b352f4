package awlsmith.core.fields;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;

/**
 * The lines of one parity of one plane, over a window of the picture. Line j is the picture's line 2j + parity.
 *
 * @param plane of the frame it belongs to; rows of both parities
 * @param parity 0 for the upper field
 * @param top the plane's first row in the picture, in rows of this plane
 * @param left the plane's first column in the picture
 */
record FieldWindow(Plane plane, int parity, int left, int top) {
    static FieldWindow of(Frame frame, int p, int parity) {
        int sx = frame.format().chroma().stepX(p);
        int sy = frame.format().chroma().stepY(p);
        return new FieldWindow(
                frame.plane(p), parity, frame.window().x() / sx, frame.window().y() / sy);
    }

    /** First line held. */
    int first() {
        return Math.floorDiv(top - parity + 1, 2);
    }

    /** Last line held. */
    int last() {
        return Math.floorDiv(top + plane.height() - 1 - parity, 2);
    }

    /** Index of the line's sample at picture column 0 in the plane's data; lines beyond those held repeat the nearest. */
    int row(int line) {
        int held = Math.clamp(line, first(), Math.max(first(), last()));
        int y = Math.clamp(2 * held + parity - top, 0, plane.height() - 1);
        return plane.row(y) - left;
    }

    int firstColumn() {
        return left;
    }

    int lastColumn() {
        return left + plane.width() - 1;
    }
}
