package awlsmith.nets;

import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtProvider;
import ai.onnxruntime.OrtSession;
import awlsmith.core.model.ModelUnavailable;
import java.util.Arrays;
import java.util.List;

/** What nets run on. Which cores, and how many, is for the operating system to say: all that this process may use. */
public enum Processor {
    CORES("cores", "the processor's cores") {
        @Override
        void prepare(OrtSession.SessionOptions options) {
            // ONNX Runtime's own kernels, always there
        }
    },
    /** A graphics processor with CUDA, in a build with the Maven profile "graphics". */
    GRAPHICS("graphics", "the graphics processor") {
        @Override
        void prepare(OrtSession.SessionOptions options) {
            try {
                options.addCUDA();
            } catch (OrtException e) {
                throw new ModelUnavailable(
                        "the graphics processor cannot be used (" + e.getMessage() + "); unset AWLSMITH_PROCESSOR", e);
            }
        }
    };

    /** System property that chooses one. */
    public static final String PROPERTY = "awlsmith.processor";

    private final String id;
    private final String words;

    Processor(String id, String words) {
        this.id = id;
        this.words = words;
    }

    /** For the screen. */
    public String words() {
        return words;
    }

    public String id() {
        return id;
    }

    /** @throws ModelUnavailable when it cannot be used after all */
    abstract void prepare(OrtSession.SessionOptions options);

    /** Those that the runtime at hand was built for. */
    public static List<Processor> built() {
        // asked for first, because only there the runtime is started on a thread it does not overflow
        OnnxNet.environment();
        boolean cuda = OrtEnvironment.getAvailableProviders().contains(OrtProvider.CUDA);
        return cuda ? List.of(values()) : List.of(CORES);
    }

    /** Whether the cores are chosen, or nothing is. */
    static boolean isCores() {
        return System.getProperty(PROPERTY, CORES.id).equals(CORES.id);
    }

    /**
     * The one chosen; the cores when nothing was.
     *
     * @throws ModelUnavailable when it does not exist or this build cannot use it
     */
    public static Processor chosen() {
        String id = System.getProperty(PROPERTY, CORES.id);
        Processor wanted = Arrays.stream(values())
                .filter(one -> one.id.equals(id))
                .findFirst()
                .orElseThrow(() -> new ModelUnavailable(
                        "AWLSMITH_PROCESSOR is '" + id + "', must be one of cores, graphics", null));
        if (!built().contains(wanted)) {
            throw new ModelUnavailable(
                    "this build has no support for a graphics processor; unset AWLSMITH_PROCESSOR, or build it with the"
                            + " Maven profile graphics",
                    null);
        }
        return wanted;
    }
}
