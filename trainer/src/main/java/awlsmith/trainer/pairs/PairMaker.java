package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import java.util.List;
import java.util.SplittableRandom;

/** Makes degraded small pictures of a clean one: a declared way in which footage gets worse. */
public interface PairMaker {
    /** What is done, in a phrase for the model's card. */
    String words();

    /**
     * Pairs from one clean picture.
     *
     * @param sharp luma 0..1, its sides multiples of the factor
     */
    List<Pair> of(Plane sharp, int factor, SplittableRandom random);
}
