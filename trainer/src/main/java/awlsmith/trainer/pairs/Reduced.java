package awlsmith.trainer.pairs;

import awlsmith.benchmarks.footage.Pictures;
import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import java.util.List;
import java.util.SplittableRandom;

/** Only smaller: reduced by each of a few kernels, rounded to eight bits as footage is. */
public record Reduced(List<Kernel> kernels) implements PairMaker {
    @Override
    public String words() {
        return "reduced by "
                + String.join(", ", kernels.stream().map(Kernel::id).toList());
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return kernels.stream()
                .map(kernel -> new Pair(
                        Pictures.eightBits(
                                Pictures.resized(sharp, sharp.width() / factor, sharp.height() / factor, kernel)),
                        sharp,
                        factor))
                .toList();
    }
}
