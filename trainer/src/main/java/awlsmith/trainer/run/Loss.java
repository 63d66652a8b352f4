package awlsmith.trainer.run;

import static awlsmith.trainer.run.Slopes.times;

import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.types.Shape;
import ai.djl.nn.convolutional.Conv2d;
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

    /** How much a {@link Critic} that learns beside counts; none where 0. */
    default double critic() {
        return 0;
    }

    /** (N, phases, H, W) to (N, 1, H * factor, W * factor), as ONNX DepthToSpace does in CRD mode. */
    static NDArray picture(NDArray phases) {
        Shape s = phases.getShape();
        long factor = Math.round(Math.sqrt(s.get(1)));
        return phases.reshape(s.get(0), factor, factor, s.get(2), s.get(3))
                .transpose(0, 3, 1, 4, 2)
                .reshape(s.get(0), 1, s.get(2) * factor, s.get(3) * factor);
    }

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
            return error.add(times(strength, weight));
        }

        private static NDArray smoothed(NDArray before, NDArray middle, NDArray after) {
            return times(before.add(after), 0.25).add(times(middle, 0.5));
        }

        /** By the operator of Sobel and Feldman: a chequer or stripes of single samples count as nothing. */
        private static NDArray strength(NDArray p) {
            NDArray down = smoothed(p.get(":, :, :-2, :"), p.get(":, :, 1:-1, :"), p.get(":, :, 2:, :"));
            NDArray across = smoothed(p.get(":, :, :, :-2"), p.get(":, :, :, 1:-1"), p.get(":, :, :, 2:"));
            NDArray right = times(down.get(":, :, :, 2:").sub(down.get(":, :, :, :-2")), 0.5);
            NDArray below = times(across.get(":, :, 2:, :").sub(across.get(":, :, :-2, :")), 0.5);
            NDArray length = right.square().add(below.square()).add(LEAST).sqrt();
            return Pool.avgPool2d(
                    length, new Shape(SQUARE, SQUARE), new Shape(SQUARE, SQUARE), new Shape(0, 0), false, false);
        }
    }

    /**
     * The mean absolute error, and how far the local energy of fine texture is from the truth's, band by band. The bands are the
     * eight filters with a mean of nought of the 3x3 cosine transform; the energy of a band is its mean absolute answer in
     * overlapping squares, after K. I. Laws, "Textured image segmentation", USC 1980 (from memory). Because every band has to have
     * its own strength, a chequer or stripes cannot stand for texture that runs another way; because squares are large, strength pays
     * off where grains cannot be put where they were.
     *
     * @param weight of the second part
     * @param square side of the squares
     */
    record Texture(double weight, int square) implements Loss {
        private static final float LEAST = 1e-6f;

        @Override
        public String words() {
            return "mean absolute error and " + weight + " times the error of eight bands' energies in squares of "
                    + square + "x" + square;
        }

        @Override
        public boolean judgedByPsnr() {
            return false;
        }

        @Override
        public NDArray of(NDArray out, NDArray answers, NDArray plain) {
            NDArray filters = out.getManager().create(bands(), new Shape(8, 1, 3, 3));
            NDArray error = out.sub(answers).abs().mean();
            NDArray texture = energies(picture(plain.add(out)), filters)
                    .sub(energies(picture(plain.add(answers)), filters))
                    .abs()
                    .mean();
            return error.add(times(texture, weight));
        }

        private NDArray energies(NDArray picture, NDArray filters) {
            NDArray answers = Conv2d.conv2d(picture, filters).singletonOrThrow();
            return Pool.avgPool2d(
                    answers.square().add(LEAST).sqrt(),
                    new Shape(square, square),
                    new Shape(square / 2, square / 2),
                    new Shape(0, 0),
                    false,
                    false);
        }

        /** The 3x3 cosine transform without its mean, orthonormal; row by row of each filter. */
        static float[] bands() {
            double[][] waves = {
                {1 / Math.sqrt(3), 1 / Math.sqrt(3), 1 / Math.sqrt(3)},
                {1 / Math.sqrt(2), 0, -1 / Math.sqrt(2)},
                {1 / Math.sqrt(6), -2 / Math.sqrt(6), 1 / Math.sqrt(6)}
            };
            var all = new float[8 * 9];
            for (int band = 1; band < 9; band++) {
                for (int i = 0; i < 9; i++) {
                    all[(band - 1) * 9 + i] = (float) (waves[band / 3][i / 3] * waves[band % 3][i % 3]);
                }
            }
            return all;
        }
    }

    /**
     * Texture made: beside the error and the bands' energies a critic that learns to tell the made from the true.
     *
     * @param critic its weight
     */
    record Made(Texture texture, double critic) implements Loss {
        @Override
        public String words() {
            return texture.words() + ", and " + critic + " times what a critic that learns beside tells apart";
        }

        @Override
        public boolean judgedByPsnr() {
            return false;
        }

        @Override
        public NDArray of(NDArray out, NDArray answers, NDArray plain) {
            return texture.of(out, answers, plain);
        }
    }
}
