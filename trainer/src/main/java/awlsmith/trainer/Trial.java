package awlsmith.trainer;

import awlsmith.benchmarks.footage.Condition;
import awlsmith.benchmarks.footage.Material;
import awlsmith.benchmarks.footage.PackageCache;
import awlsmith.benchmarks.footage.Pictures;
import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.upscale.FramesAround;
import awlsmith.core.upscale.Softness;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.run.OnnxRun;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A first look at model files on the clips of opencv-doc, which no training sees: a few frames each, much quicker than the whole
 * measurement of quality. Tells gain over Lanczos, SSIM, the gradient as a share of the truth's, and flicker as a share of Lanczos'.
 */
final class Trial {
    private static final int BORDER = 8;
    private static final int FIRST = 30;
    private static final int FRAMES = 7;
    /** Frames that are scored: those that have all their neighbours. */
    private static final int FROM = 2;

    private static final int TO = 5;

    private Trial() {}

    static void of(List<Path> models, PackageCache packages) throws Exception {
        for (String clip : List.of("vtest.avi", "Megamind.avi", "tree.avi")) {
            Material truth =
                    Material.clip(clip, packages.file("opencv-doc", "opencv-doc/examples/data/" + clip), FIRST, FRAMES);
            for (Condition condition :
                    List.of(Condition.BICUBIC, Condition.AREA, Condition.CRF_20, Condition.CRF_30, Condition.GRAIN)) {
                List<Plane> small = condition.of(truth.frames());
                List<Plane> plain = small.stream()
                        .map(p -> clipped(Pictures.resized(p, 2 * p.width(), 2 * p.height(), Kernel.LANCZOS3)))
                        .toList();
                for (Path model : models) {
                    String name = model.getParent().getFileName() + "/" + model.getFileName();
                    List<Plane> made = enlarged(model, Softness.unknown(), small);
                    tell(clip, condition, name, truth.frames(), plain, made);
                    if (isTold(model)) {
                        Softness known = Softness.of(condition.reducer() == Kernel.AREA ? 0 : 0.5);
                        tell(clip, condition, name + " told", truth.frames(), plain, enlarged(model, known, small));
                    }
                }
            }
        }
    }

    /** Frames are odd; one plane more tells how soft they are. */
    private static boolean isTold(Path model) throws IOException {
        return OnnxFile.read(model).shape().planes() % 2 == 0;
    }

    private static List<Plane> enlarged(Path model, Softness softness, List<Plane> small) throws Exception {
        NetShape shape = OnnxFile.read(model).shape();
        var out = new ArrayList<Plane>();
        Region all = Region.whole(small.getFirst().width(), small.getFirst().height());
        try (var net = new OnnxRun(model)) {
            for (int i = 0; i < small.size(); i++) {
                int now = i;
                Plane in = small.get(i);
                List<Plane> shown = FramesAround.shown(
                        d -> small.get(Math.clamp(now + d, 0, small.size() - 1)),
                        all,
                        all.width(),
                        all.height(),
                        all,
                        shape.planes() - (isTold(model) ? 1 : 0),
                        new PlanePool(0),
                        Work.alone());
                if (isTold(model)) {
                    shown.add(Plane.of(in.width(), in.height()).fill(softness.sample()));
                }
                Plane correction = Plane.of(2 * in.width(), 2 * in.height());
                net.run(shown, correction);
                Plane made = Pictures.resized(in, 2 * in.width(), 2 * in.height(), NetShape.BASE);
                for (int k = 0; k < made.data().length; k++) {
                    made.data()[k] += correction.data()[k];
                }
                out.add(clipped(made));
            }
        }
        return out;
    }

    private static Plane clipped(Plane p) {
        for (int i = 0; i < p.data().length; i++) {
            p.data()[i] = Math.clamp(p.data()[i], 0, 1);
        }
        return p;
    }

    private static void tell(
            String clip, Condition condition, String model, List<Plane> truth, List<Plane> plain, List<Plane> made) {
        int n = TO - FROM;
        double gain = 0;
        double ssim = 0;
        double gradient = 0;
        double flicker = 0;
        double plainFlicker = 0;
        for (int i = FROM; i < TO; i++) {
            gain += (Psnr.of(made.get(i), truth.get(i), BORDER) - Psnr.of(plain.get(i), truth.get(i), BORDER)) / n;
            ssim += Ssim.of(made.get(i), truth.get(i), BORDER) / n;
            gradient += Gradient.mean(made.get(i), BORDER) / Gradient.mean(truth.get(i), BORDER) / n;
            flicker += stepError(made, truth, i);
            plainFlicker += stepError(plain, truth, i);
        }
        System.out.printf(
                Locale.ROOT,
                "%-13s %-26s %-40s %+.2f dB, SSIM %.4f, gradient %.2f, flicker %.2f%n",
                clip,
                condition.name(),
                model,
                gain,
                ssim,
                gradient,
                Math.sqrt(flicker / plainFlicker));
    }

    /** Squared error of the step from the frame before. */
    private static double stepError(List<Plane> made, List<Plane> truth, int i) {
        double sum = 0;
        for (int k = 0; k < truth.get(i).data().length; k++) {
            double d = made.get(i).data()[k]
                    - made.get(i - 1).data()[k]
                    - truth.get(i).data()[k]
                    + truth.get(i - 1).data()[k];
            sum += d * d;
        }
        return sum;
    }
}
