package awlsmith.core.retime;

import awlsmith.core.picture.Rational;
import java.util.List;
import java.util.Optional;

/**
 * Where somebody said that a scene begins, or that none does.
 *
 * @param marks in any order
 */
public record ScenesByHand(List<Mark> marks) {
    /** Nobody said anything. */
    public static final ScenesByHand NONE = new ScenesByHand(List.of());

    /** Times are written in thousandths of a second. */
    private static final double ROUNDED = 0.001;

    /** @param seconds of the frame that comes first behind it; @param begins whether a scene begins with that frame */
    public record Mark(double seconds, boolean begins) {}

    public ScenesByHand {
        marks = List.copyOf(marks);
    }

    /** Whether another scene begins behind a frame, with the next one; empty where nobody said. @param one and next: their times, seconds */
    public Optional<Boolean> between(Rational one, Rational next) {
        return marks.stream()
                .filter(mark -> mark.seconds > one.toDouble() + ROUNDED && mark.seconds <= next.toDouble() + ROUNDED)
                .map(Mark::begins)
                .findFirst();
    }
}
