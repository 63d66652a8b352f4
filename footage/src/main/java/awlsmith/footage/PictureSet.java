package awlsmith.footage;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import java.util.ArrayList;
import java.util.List;

/**
 * The clean pictures a model learns from and those it is checked on; no picture is in both.
 *
 * @param words what they are and under which licences, for the model's card
 * @param learn luma planes, sides multiples of 12
 * @param check luma planes
 */
public record PictureSet(String words, List<Plane> learn, List<Plane> check) {
    private static final int CHECK_SIDE = 384;

    /** Room for sides of every factor's multiples. */
    public static int side(double wanted) {
        return (int) wanted / 12 * 12;
    }

    /** Gathers pictures one by one. */
    public static final class Gathering {
        private final List<Plane> learn = new ArrayList<>();
        private final List<Plane> check = new ArrayList<>();

        public void add(Plane picture, boolean heldOut) {
            if (heldOut) {
                int side = Math.min(CHECK_SIDE, side(Math.min(picture.width(), picture.height())));
                Plane part = picture.window(
                        new Region((picture.width() - side) / 2, (picture.height() - side) / 2, side, side));
                check.add(new Plane(part.packed(), 0, side, side, side));
            } else {
                learn.add(picture);
            }
        }

        public PictureSet done(String words) {
            return new PictureSet(words, learn, check);
        }
    }
}
