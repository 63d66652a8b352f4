package awlsmith.nets;

import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtProvider;
import ai.onnxruntime.OrtSession;
import ai.onnxruntime.providers.OrtCUDAProviderOptions;
import java.util.Optional;

/** A graphics processor that nets run on, through CUDA, in a build with the Maven profile "graphics". */
final class Graphics {
    private Graphics() {}

    /** Why this build cannot use one, in a sentence; empty where it can, if there is one. */
    static Optional<String> notBuilt() {
        // asked for first, because only there the runtime is started on a thread it does not overflow
        OnnxNet.environment();
        return OrtEnvironment.getAvailableProviders().contains(OrtProvider.CUDA)
                ? Optional.empty()
                : Optional.of(
                        "this build runs nets on cores alone; AWLSMITH_PROCESSOR=graphics ./awlsmith start makes one"
                                + " for graphics processors with CUDA");
    }

    /**
     * The same net gives the same pixels again: products are not cut to fewer bits, and the way of summing is not chosen by a race.
     *
     * @throws OrtException where there is none, or the build is for cores
     */
    static void prepare(OrtSession.SessionOptions options) throws OrtException {
        try (var cuda = new OrtCUDAProviderOptions()) {
            cuda.add("use_tf32", "0");
            cuda.add("cudnn_conv_algo_search", "HEURISTIC");
            options.addCUDA(cuda);
        }
        options.setDeterministicCompute(true);
    }
}
