package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;

/**
 * Where the whole of one picture lies in another, in the other's pixels from its top left corner; parts may lie outside.
 *
 * @param width of the first picture in the other, more than 0
 */
public record Placement(double x, double y, double width, double height) {

    /** Over the whole of a picture. */
    public static Placement over(Format picture) {
        return new Placement(0, 0, picture.width(), picture.height());
    }

    /**
     * Where this picture lies in a third.
     *
     * @param middle the picture this one is placed in
     * @param next where the middle one lies in the third
     */
    public Placement within(Format middle, Placement next) {
        double across = next.width / middle.width();
        double down = next.height / middle.height();
        return new Placement(next.x + x * across, next.y + y * down, width * across, height * down);
    }
}
