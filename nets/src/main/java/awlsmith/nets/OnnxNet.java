package awlsmith.nets;

import ai.onnxruntime.OnnxTensor;
import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtSession;
import awlsmith.core.model.ModelUnavailable;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Plane;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Queue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentLinkedQueue;

/**
 * One ONNX model under ONNX Runtime. On cores a call runs on the calling thread alone: the parallel work is the
 * tiles', which wait for no one. Buffers are kept from call to call.
 */
final class OnnxNet implements NetRunner, AutoCloseable {
    /** Sets of inner planes that live at once: what a block reads, makes and adds to, what goes around them all, a copy. */
    private static final int INNER_SETS = 5;

    private static final long START_STACK_BYTES = 256L << 20;

    private final OrtSession session;
    private final int factor;
    private final int step;
    private final int channels;
    private final String input;
    private final String output;
    /** One for each call that runs at the same time; threads themselves come and go. */
    private final Queue<Buffers> free = new ConcurrentLinkedQueue<>();

    private OnnxNet(OrtSession session, int factor, int step) throws OrtException {
        this.session = session;
        this.factor = factor;
        this.step = step;
        // the trainer notes it; a file without the note is counted as a net of the usual width
        channels = Integer.parseInt(session.getMetadata().getCustomMetadata().getOrDefault("channels", "32"));
        input = session.getInputNames().iterator().next();
        output = session.getOutputNames().iterator().next();
    }

    /**
     * @param graphics whether it runs on the graphics processor
     * @throws OrtException when the bytes are not a model, or there is no such processor
     */
    static OnnxNet of(byte[] model, int factor, int step, boolean graphics) throws OrtException {
        try (var options = new OrtSession.SessionOptions()) {
            if (graphics) {
                Graphics.prepare(options);
            }
            options.setIntraOpNumThreads(1);
            options.setInterOpNumThreads(1);
            options.addConfigEntry("session.intra_op.allow_spinning", "0");
            // planes of any size come and go: memory that only grows would keep the largest
            options.setMemoryPatternOptimization(false);
            return new OnnxNet(Started.ENVIRONMENT.createSession(model, options), factor, step);
        }
    }

    static OrtEnvironment environment() {
        return Started.ENVIRONMENT;
    }

    /** Held by a class of its own, so that it starts when the first model is opened. */
    private static final class Started {
        static final OrtEnvironment ENVIRONMENT = OnnxNet.start();
    }

    /**
     * As it starts, some versions of ONNX Runtime (1.29) match a regular expression that recurses once for every character of the process's
     * command line. A class path of some ten thousand characters overflows a thread's usual stack and the whole process
     * dies; so it starts on a thread with a large one, of which only what is used takes memory.
     */
    private static OrtEnvironment start() {
        var made = new CompletableFuture<OrtEnvironment>();
        new Thread(
                        null,
                        () -> {
                            try {
                                made.complete(OrtEnvironment.getEnvironment());
                            } catch (RuntimeException | Error e) {
                                made.completeExceptionally(e);
                            }
                        },
                        "onnx-start",
                        START_STACK_BYTES)
                .start();
        return made.join();
    }

    @Override
    public void run(List<Plane> frames, Plane correction) {
        run(frames, List.of(correction));
    }

    @Override
    public void run(List<Plane> frames, List<Plane> given) {
        int width = frames.getFirst().width();
        int height = frames.getFirst().height();
        Buffers mine = Objects.requireNonNullElseGet(free.poll(), Buffers::new);
        // up to a multiple of the step, the last column and row are repeated
        int across = Math.ceilDiv(width, step) * step;
        int down = Math.ceilDiv(height, step) * step;
        FloatBuffer in = mine.input(across * down * frames.size());
        int samples = across * down * factor * factor;
        FloatBuffer out = mine.output(samples * given.size());
        for (Plane frame : frames) {
            for (int y = 0; y < down; y++) {
                int row = frame.row(Math.min(y, height - 1));
                in.put(frame.data(), row, width);
                for (int x = width; x < across; x++) {
                    in.put(frame.data()[row + width - 1]);
                }
            }
        }
        in.flip();
        try (var tensor =
                        OnnxTensor.createTensor(Started.ENVIRONMENT, in, new long[] {1, frames.size(), down, across});
                var result = OnnxTensor.createTensor(Started.ENVIRONMENT, out, new long[] {
                    1, given.size(), (long) down * factor, (long) across * factor
                });
                var ran = session.run(Map.of(input, tensor), Map.of(output, result))) {
            for (int p = 0; p < given.size(); p++) {
                Plane plane = given.get(p);
                for (int y = 0; y < height * factor; y++) {
                    out.get(p * samples + y * across * factor, plane.data(), plane.row(y), width * factor);
                }
            }
        } catch (OrtException e) {
            throw new ModelUnavailable("the model could not be run, perhaps for want of memory: " + e.getMessage(), e);
        } finally {
            free.add(mine);
        }
    }

    @Override
    public long bytes(int width, int height) {
        long samples = (long) width * height;
        return Float.BYTES * samples * ((long) INNER_SETS * channels / (step * step) + 2L * factor * factor + 1);
    }

    @Override
    public void close() throws OrtException {
        session.close();
    }

    private static final class Buffers {
        private FloatBuffer in = direct(0);
        private FloatBuffer out = direct(0);

        FloatBuffer input(int samples) {
            if (in.capacity() < samples) {
                in = direct(samples);
            }
            return in.clear().limit(samples);
        }

        FloatBuffer output(int samples) {
            if (out.capacity() < samples) {
                out = direct(samples);
            }
            return out.clear().limit(samples);
        }

        private static FloatBuffer direct(int samples) {
            return ByteBuffer.allocateDirect(samples * Float.BYTES)
                    .order(ByteOrder.nativeOrder())
                    .asFloatBuffer();
        }
    }
}
