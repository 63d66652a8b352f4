package awlsmith.trainer.pairs;

import awlsmith.core.clean.RepairStage;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.upscale.FramesAround;
import awlsmith.footage.Codec;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/** Moving pictures through lossy codecs, at their own size. */
public record Coded() implements PairMaker {
    private static final Scene.Size SIZE = new Scene.Size(352, 288, 200_000);
    private static final int[] USED = {1, 3, 4, 6};

    @Override
    public String words() {
        return Scene.WORDS
                + "; groups of 3 to 7 pictures in half of them; one in four with grain of standard deviation 1 to 6 of 255; six in ten through H.264 at CRF 22 to 42 (one in six of"
                + " these without its deblocking), two in ten through MPEG-2 at quantiser 3 to 18, one in ten each through MPEG-4 part 2 and single"
                + " pictures (JPEG); told how coarsely the codec rounded two times in three";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return SIZE.scenes(sharp, 16, random, truth -> scene(truth, random));
    }

    private static List<Pair> scene(List<Plane> truth, SplittableRandom random) {
        List<Plane> clean = truth;
        if (random.nextInt(4) == 0) {
            double sigma = Math.pow(6, random.nextDouble()) / 255;
            clean = truth.stream().map(p -> grainy(p, sigma, random)).toList();
        }
        Codec.Coded coded = Codec.coded(clean, encoder(random));
        float told = coded.step().isPresent() && random.nextInt(3) > 0
                ? RepairStage.told(coded.step().getAsDouble() * Math.exp(0.1 * random.nextGaussian()))
                : 0;
        // grain is no damage: what is wanted is the picture as the codec got it
        return of(coded.frames(), clean, List.of(told), random);
    }

    /**
     * Pairs of a scene.
     *
     * @param truth of each frame
     * @param told what the net is told beside the frames, each a plane of one value
     */
    static List<Pair> of(List<Plane> frames, List<Plane> truth, List<Float> told, SplittableRandom random) {
        // a still, or a clip that begins or ends here
        double ends = random.nextDouble();
        int first = ends < 0.1 || ends > 0.95 ? 0 : -2;
        int last = ends < 0.15 ? 0 : 2;
        var pairs = new ArrayList<Pair>();
        for (int n : USED) {
            if (n >= frames.size()) {
                continue;
            }
            Plane here = frames.get(n);
            Region all = Region.whole(here.width(), here.height());
            List<Plane> shown = FramesAround.shown(
                    distance -> frames.get(Math.clamp(n + Math.clamp(distance, first, last), 0, frames.size() - 1)),
                    all,
                    all.width(),
                    all.height(),
                    all,
                    RepairStage.FRAMES,
                    new PlanePool(0),
                    Work.alone());
            told.forEach(value -> shown.add(Plane.of(all.width(), all.height()).fill(value)));
            pairs.add(new Corrected(shown, truth.get(n)));
        }
        return pairs;
    }

    static Plane grainy(Plane p, double sigma, SplittableRandom random) {
        Plane out = Plane.of(p.width(), p.height());
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] = (float) (p.data()[i] + sigma * random.nextGaussian());
        }
        return out;
    }

    private static String encoder(SplittableRandom random) {
        double which = random.nextDouble();
        if (which < 0.6) {
            String plain = random.nextInt(6) == 0 ? " -x264-params no-deblock=1" : "";
            return "libx264 -preset " + (random.nextBoolean() ? "medium" : "veryfast") + " -crf "
                    + (22 + random.nextInt(21)) + plain + group(random);
        }
        if (which < 0.8) {
            return "mpeg2video -bf 2 -q:v " + (3 + random.nextInt(16)) + group(random);
        }
        return which < 0.9
                ? "mpeg4 -q:v " + (3 + random.nextInt(16)) + group(random)
                : "mjpeg -q:v " + (4 + random.nextInt(16));
    }

    /** In half of all scenes pictures coded by themselves lie among the others, where footage pops. */
    static String group(SplittableRandom random) {
        return " -g " + (random.nextBoolean() ? 3 + random.nextInt(5) : 250);
    }
}
