package awlsmith.core.recipe;

import awlsmith.core.picture.Frame;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/**
 * Looks at every so manieth frame: at first each, and each time there are too many every second one of them. So the same frames are looked at
 * whether anybody knows beforehand how many will come or not.
 *
 * @param <F> what is kept of a frame
 * @param <T> what is found in all of them
 */
final class SomeFrames<F, T> implements Analysis.Fold<T> {
    private final int least;
    private final Function<Frame, F> look;
    private final Function<List<F>, T> sum;
    private final List<F> looks = new ArrayList<>();
    private long every = 1;
    private long seen;

    /** @param least frames that are looked at of a long clip; at most twice as many */
    SomeFrames(int least, Function<Frame, F> look, Function<List<F>, T> sum) {
        this.least = least;
        this.look = look;
        this.sum = sum;
    }

    @Override
    public void see(Frame frame, Work work) {
        if (seen++ % every != 0) {
            return;
        }
        looks.add(look.apply(frame));
        if (looks.size() == 2 * least) {
            for (int i = looks.size() - 1; i > 0; i -= 2) {
                looks.remove(i);
            }
            every *= 2;
        }
    }

    @Override
    public T found() {
        return sum.apply(looks);
    }
}
