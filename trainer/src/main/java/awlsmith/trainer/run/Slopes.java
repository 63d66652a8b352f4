package awlsmith.trainer.run;

import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.index.NDIndex;
import ai.djl.nn.Block;
import java.util.List;

/** What a step of learning is taken along. */
final class Slopes {
    private Slopes() {}

    /**
     * An array times a number, where slopes are to be worked out from it. The engine's own product of an array and a number
     * looks at memory that nobody holds any more once the product is there; slopes need the number again, and where Java had
     * collected that memory by then they were multiplied by whatever stood there. This one is held as long as the array's manager.
     */
    static NDArray times(NDArray array, double number) {
        return array.mul(array.getManager().create((float) number));
    }

    /** Whether every slope is finite; one step along others would make every weight NaN, so all are forgotten. */
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
