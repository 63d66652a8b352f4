package awlsmith.trainer.run;

import ai.onnxruntime.OrtException;
import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.trainer.pairs.Pair;
import java.nio.file.Path;
import java.util.List;

/** How good a written model file is on held-out pairs, run as it will be run in the application. */
public final class Validation {
    private static final int BORDER = 8;

    private final List<Pair> pairs;
    private final double rival;

    /**
     * @param psnr dB, @param gain dB over the pairs' rival
     * @param gradient mean step between neighbours, as a share of the truth's
     */
    public record Score(double psnr, double gain, double ssim, double gradient) {}

    public Validation(List<Pair> pairs) {
        this.pairs = List.copyOf(pairs);
        rival = pairs.stream()
                .mapToDouble(p -> Psnr.of(rival(p), p.sharp(), BORDER))
                .average()
                .orElseThrow();
    }

    public Score of(Path model) throws OrtException {
        try (var run = new OnnxRun(model)) {
            return of(run);
        }
    }

    public Score of(NetRunner net) {
        double psnr = 0;
        double ssim = 0;
        double gradient = 0;
        for (Pair pair : pairs) {
            Plane out = enlarged(net, pair);
            psnr += Psnr.of(out, pair.sharp(), BORDER) / pairs.size();
            ssim += Ssim.of(out, pair.sharp(), BORDER) / pairs.size();
            gradient += Gradient.mean(out, BORDER) / Gradient.mean(pair.sharp(), BORDER) / pairs.size();
        }
        return new Score(psnr, psnr - rival, ssim, gradient);
    }

    /** The plain result of a pair with a net's correction, clipped to 0..1. */
    public static Plane enlarged(NetRunner net, Pair pair) {
        Plane out = pair.plain(new Region(0, 0, pair.width(), pair.height()));
        Plane correction = Plane.of(out.width(), out.height());
        net.run(pair.shown(), correction);
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] += correction.data()[i];
        }
        return clipped(out);
    }

    /** What a model's gain is told over, clipped to 0..1. */
    public static Plane rival(Pair pair) {
        return clipped(pair.rival());
    }

    private static Plane clipped(Plane p) {
        float[] data = p.data();
        for (int i = 0; i < data.length; i++) {
            data[i] = Math.clamp(data[i], 0, 1);
        }
        return p;
    }
}
