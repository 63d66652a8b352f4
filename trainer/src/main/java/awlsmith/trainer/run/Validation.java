package awlsmith.trainer.run;

import ai.onnxruntime.OnnxTensor;
import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtSession;
import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.resample.Kernel;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.pictures.Photographs;
import java.nio.FloatBuffer;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** How good a written model file is on held-out pairs, run as it will be run in the application. */
public final class Validation {
    private static final int BORDER = 8;

    private final List<Pair> pairs;
    private final double lanczos;

    public record Score(double psnr, double gain, double ssim) {}

    public Validation(List<Pair> pairs) {
        this.pairs = List.copyOf(pairs);
        lanczos = pairs.stream()
                .mapToDouble(p -> Psnr.of(
                        clipped(Photographs.resized(
                                p.small(), p.sharp().width(), p.sharp().height(), Kernel.LANCZOS3)),
                        p.sharp(),
                        BORDER))
                .average()
                .orElseThrow();
    }

    public Score of(Path model) throws OrtException {
        var environment = OrtEnvironment.getEnvironment();
        double psnr = 0;
        double ssim = 0;
        try (var options = new OrtSession.SessionOptions();
                var session = environment.createSession(model.toString(), options)) {
            for (Pair pair : pairs) {
                Plane out = clipped(enlarged(session, environment, pair));
                psnr += Psnr.of(out, pair.sharp(), BORDER) / pairs.size();
                ssim += Ssim.of(out, pair.sharp(), BORDER) / pairs.size();
            }
        }
        return new Score(psnr, psnr - lanczos, ssim);
    }

    private static Plane enlarged(OrtSession session, OrtEnvironment environment, Pair pair) throws OrtException {
        Plane small = pair.small();
        long[] dims = {1, 1, small.height(), small.width()};
        Plane out = pair.plain(new Region(0, 0, small.width(), small.height()));
        try (var input = OnnxTensor.createTensor(environment, FloatBuffer.wrap(small.packed()), dims);
                var result = session.run(Map.of("frame", input))) {
            FloatBuffer correction = ((OnnxTensor) result.get(0)).getFloatBuffer();
            float[] data = out.data();
            for (int i = 0; i < data.length; i++) {
                data[i] += correction.get(i);
            }
        }
        return out;
    }

    private static Plane clipped(Plane p) {
        float[] data = p.data();
        for (int i = 0; i < data.length; i++) {
            data[i] = Math.clamp(data[i], 0, 1);
        }
        return p;
    }
}
