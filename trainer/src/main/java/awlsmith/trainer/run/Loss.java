package awlsmith.trainer.run;

import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.types.Shape;
import ai.djl.nn.pooling.Pool;

/** What a net is trained to make small. */
public sealed interface Loss {
    /** For the model's card. */
    String words();

    /** Whether PSNR tells which state of a run is the best; where it does not, the last one is. */
    boolean judgedByPsnr();

    /**
     * One number for a batch.
     *
     * @param out corrections the net gave: (N, phases, H, W)
     * @param answers corrections that would give the truth, as large
     * @param plain the plain enlargement both are added to, as large
     */
    NDArray of(NDArray out, NDArray answers, NDArray plain);

    /** The mean absolute error: the middle of all that could have been there, which is soft where much could. */
    record MeanError() implements Loss {
        @Override
        public String words() {
            return "mean absolute error";
        }

        @Override
        public boolean judgedByPsnr() {
            return true;
        }

        @Override
        public NDArray of(NDArray out, NDArray answers, NDArray plain) {
            return out.sub(answers).abs().mean();
        }
    }

    /**
     * The mean absolute error, and how far the strength of edges and texture is from the truth's. Strength is the length of
     * the gradient, averaged over small squares, so that texture pays off where the truth has some even when its grains
     * cannot be put where they were, and costs where the truth has none. The gradient is blind to patterns of single
     * samples: with plain steps between neighbours the net found its strength in a fine chequer.
     *
     * @param weight of the second part
     */
    record Crisp(double weight) implements Loss {
        private static final int SQUARE = 4;
        /** Keeps the root's slope finite; a step of a quarter of 1/255 is as good as none. */
        private static final float LEAST = 1e-6f;

        @Override
        public String words() {
            return "mean absolute error and " + weight + " times the error of the gradient's strength in squares of "
                    + SQUARE + "x" + SQUARE;
        }

        @Override
        public boolean judgedByPsnr() {
            return false;
        }

        @Override
        public NDArray of(NDArray out, NDArray answers, NDArray plain) {
            NDArray error = out.sub(answers).abs().mean();
            NDArray strength = strength(picture(plain.add(out)))
                    .sub(strength(picture(plain.add(answers))))
                    .abs()
                    .mean();
            return error.add(strength.mul((float) weight));
        }

        /** (N, phases, H, W) to (N, 1, H * factor, W * factor), as ONNX DepthToSpace does in CRD mode. */
        static NDArray picture(NDArray phases) {
            Shape s = phases.getShape();
            long factor = Math.round(Math.sqrt(s.get(1)));
            return phases.reshape(s.get(0), factor, factor, s.get(2), s.get(3))
                    .transpose(0, 3, 1, 4, 2)
                    .reshape(s.get(0), 1, s.get(2) * factor, s.get(3) * factor);
        }

        private static NDArray smoothed(NDArray before, NDArray middle, NDArray after) {
            return before.add(after).mul(0.25f).add(middle.mul(0.5f));
        }

        /** By the operator of Sobel and Feldman: a chequer or stripes of single samples count as nothing. */
        private static NDArray strength(NDArray p) {
            NDArray down = smoothed(p.get(":, :, :-2, :"), p.get(":, :, 1:-1, :"), p.get(":, :, 2:, :"));
            NDArray across = smoothed(p.get(":, :, :, :-2"), p.get(":, :, :, 1:-1"), p.get(":, :, :, 2:"));
            NDArray right =
                    down.get(":, :, :, 2:").sub(down.get(":, :, :, :-2")).mul(0.5f);
            NDArray below =
                    across.get(":, :, 2:, :").sub(across.get(":, :, :-2, :")).mul(0.5f);
            NDArray length = right.square().add(below.square()).add(LEAST).sqrt();
            return Pool.avgPool2d(
                    length, new Shape(SQUARE, SQUARE), new Shape(SQUARE, SQUARE), new Shape(0, 0), false, false);
        }
    }
}
