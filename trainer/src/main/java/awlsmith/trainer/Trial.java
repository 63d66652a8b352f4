package awlsmith.trainer;

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
import awlsmith.footage.Condition;
import awlsmith.footage.Material;
import awlsmith.footage.PackageCache;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.Enlarging;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.run.OnnxRun;
import awlsmith.trainer.run.Validation;
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
                for (Path model : models) {
                    String name = model.getParent().getFileName() + "/" + model.getFileName();
                    tell(clip, condition, name, model, pairs(model, Softness.unknown(), small, truth));
                    if (isTold(model)) {
                        Softness known = Softness.of(condition.reducer() == Kernel.AREA ? 0 : 0.5);
                        tell(clip, condition, name + " told", model, pairs(model, known, small, truth));
                    }
                }
            }
        }
    }

    /** Frames are odd; one plane more tells how soft they are. */
    private static boolean isTold(Path model) throws IOException {
        return OnnxFile.read(model).shape().planes() % 2 == 0;
    }

    private static List<Pair> pairs(Path model, Softness softness, List<Plane> small, Material truth)
            throws IOException {
        boolean told = isTold(model);
        int frames = OnnxFile.read(model).shape().planes() - (told ? 1 : 0);
        Region all = Region.whole(small.getFirst().width(), small.getFirst().height());
        var pairs = new ArrayList<Pair>();
        for (int i = 0; i < small.size(); i++) {
            int now = i;
            List<Plane> shown = FramesAround.shown(
                    d -> small.get(Math.clamp(now + d, 0, small.size() - 1)),
                    all,
                    all.width(),
                    all.height(),
                    all,
                    frames,
                    new PlanePool(0),
                    Work.alone());
            if (told) {
                shown.add(Plane.of(all.width(), all.height()).fill(softness.sample()));
            }
            pairs.add(new Enlarging(shown, truth.frames().get(i), 2));
        }
        return pairs;
    }

    private static void tell(String clip, Condition condition, String name, Path model, List<Pair> pairs)
            throws Exception {
        List<Plane> truth = pairs.stream().map(Pair::sharp).toList();
        List<Plane> plain = pairs.stream().map(Validation::rival).toList();
        List<Plane> made;
        try (var net = new OnnxRun(model)) {
            made = pairs.stream().map(pair -> Validation.enlarged(net, pair)).toList();
        }
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
                name,
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
