package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import java.util.List;

/**
 * A picture that keeps its size, and the truth. The first plane shown is what a net adds its correction to, and the rival.
 *
 * @param sharp as large as what is shown
 */
public record Corrected(List<Plane> shown, Plane sharp) implements Pair {
    public Corrected {
        shown = List.copyOf(shown);
    }

    @Override
    public Plane plain(Region part) {
        Plane window = shown.getFirst().window(part);
        return new Plane(window.packed(), 0, part.width(), part.height(), part.width());
    }

    @Override
    public Plane rival() {
        return plain(new Region(0, 0, width(), height()));
    }

    @Override
    public boolean turns() {
        return true;
    }
}
