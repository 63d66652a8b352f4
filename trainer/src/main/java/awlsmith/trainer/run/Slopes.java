package awlsmith.trainer.run;

import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.index.NDIndex;
import ai.djl.nn.Block;
import java.util.List;

/** What a step of learning is taken along. */
final class Slopes {
    private Slopes() {}

    /**
     * On some processors the engine gives, once in some hundred steps, slopes that are no numbers for a batch and a loss that
     * are; one such step would make every weight NaN. It is left out, and its slopes are forgotten.
     */
    static boolean areNumbers(Block net) {
        List<NDArray> slopes = net.getParameters().values().stream()
                .map(parameter -> parameter.getArray().getGradient())
                .toList();
        boolean numbers = slopes.stream().allMatch(slope -> {
            try (NDArray sum = slope.sum()) {
                return Float.isFinite(sum.getFloat());
            }
        });
        if (!numbers) {
            slopes.forEach(slope -> slope.set(new NDIndex("..."), 0));
        }
        slopes.forEach(NDArray::close);
        return numbers;
    }
}
