package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import awlsmith.footage.Pictures;
import java.util.Collections;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.Collectors;

/**
 * Only smaller: reduced by each of a few kernels, rounded to eight bits as footage is.
 *
 * @param kernels one named twice is seen twice as often
 */
public record Reduced(List<Kernel> kernels) implements PairMaker {
    @Override
    public String words() {
        return "reduced by "
                + kernels.stream()
                        .distinct()
                        .map(kernel -> kernel.id() + " (" + Collections.frequency(kernels, kernel) + " of "
                                + kernels.size() + ")")
                        .collect(Collectors.joining(", "));
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return kernels.stream()
                .<Pair>map(kernel -> new Enlarging(
                        Pictures.eightBits(
                                Pictures.resized(sharp, sharp.width() / factor, sharp.height() / factor, kernel)),
                        sharp,
                        factor))
                .toList();
    }
}
