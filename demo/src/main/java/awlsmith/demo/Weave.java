package awlsmith.demo;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;

/** Weaves the upper lines of one moment with the lower lines of the next, top field first. */
final class Weave {
    private final Frame woven;

    Weave(Format format) {
        woven = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
    }

    Frame add(Frame moment, long number) {
        int parity = (int) (number % 2);
        for (int p = 0; p < 3; p++) {
            Plane from = moment.plane(p);
            Plane to = woven.plane(p);
            for (int y = parity; y < to.height(); y += 2) {
                System.arraycopy(from.data(), from.row(y), to.data(), to.row(y), to.width());
            }
        }
        return parity == 1 ? woven : null;
    }
}
