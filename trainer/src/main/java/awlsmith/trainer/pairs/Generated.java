package awlsmith.trainer.pairs;

import awlsmith.core.detail.GuidedBase;
import awlsmith.core.motion.Flow;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.footage.Codec;
import awlsmith.footage.Pictures;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * What clips are like that no camera took but a program made from a picture or a phrase: small, surfaces too smooth, texture
 * where there should be some but another from frame to frame, edges that wobble and break. How they come about is common practice, no
 * source; all strengths are drawn anew for each scene.
 *
 * @param frames that the net is shown, odd
 */
public record Generated(int frames) implements PairMaker {
    private static final Scene.Size SIZE = new Scene.Size(512, 384, 300_000);

    private static final List<Kernel> KERNELS = List.of(Kernel.CATMULL_ROM, Kernel.AREA, Kernel.BILINEAR);

    @Override
    public String words() {
        return Scene.WORDS
                + "; reduced, surfaces smoothed by half or more, in the place of their texture another of 0 to 1.3"
                + " its strength that changes from frame to frame, edges bent to and fro by up to 0.6 samples; through H.264 at"
                + " CRF 14 to 28, one in ten through none";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return SIZE.scenes(sharp, 4 * factor, random, truth -> {
            Plane first = truth.getFirst();
            return Around.enlarging(
                    small(truth, first.width() / factor, first.height() / factor, random),
                    truth,
                    frames,
                    factor,
                    random);
        });
    }

    private static List<Plane> small(List<Plane> truth, int width, int height, SplittableRandom random) {
        double blur = random.nextDouble() * 0.8;
        Kernel kernel = KERNELS.get(random.nextInt(KERNELS.size()));
        int radius = 2 + random.nextInt(4);
        var base = new GuidedBase(width, height, radius, 0.015 + 0.06 * random.nextDouble());
        float smoothed = (float) (0.5 + 0.5 * random.nextDouble());
        float swimming = (float) (1.3 * random.nextDouble());
        double turn = 0.1 + 0.8 * random.nextDouble();
        var texture = new Drifting(width, height, 0.6 + 0.9 * random.nextDouble(), turn, random);
        float bent = (float) (0.6 * random.nextDouble() * random.nextDouble());
        double wave = 1 + 7 * random.nextDouble();
        var across = new Drifting(width, height, wave, 0.5 * turn, random);
        var down = new Drifting(width, height, wave, 0.5 * turn, random);
        var all = new ArrayList<Plane>();
        for (int n = 0; n < truth.size(); n++) {
            Plane clean = Pictures.resized(Blur.gaussian(truth.get(n), blur, blur), width, height, kernel);
            Plane calm = Plane.of(width, height);
            base.of(
                    clean,
                    Region.whole(width, height),
                    Region.whole(width, height),
                    calm,
                    new PlanePool(0),
                    Work.alone());
            Plane rough = roughness(clean, calm);
            Plane swims = texture.at(n);
            Plane made = Plane.of(width, height);
            for (int i = 0; i < made.data().length; i++) {
                made.data()[i] = clean.data()[i]
                        + smoothed * (calm.data()[i] - clean.data()[i])
                        + swimming * rough.data()[i] * swims.data()[i];
            }
            all.add(bent < 0.05 ? made : bent(made, bent, across.at(n), down.at(n)));
        }
        return random.nextInt(10) == 0
                ? all.stream().map(Pictures::eightBitsWithRoom).toList()
                : Codec.through(all, "libx264 -preset medium -crf " + (14 + random.nextInt(15)));
    }

    /** How strong the texture is around a sample, its deviation. */
    private static Plane roughness(Plane clean, Plane calm) {
        Plane square = Plane.of(clean.width(), clean.height());
        for (int i = 0; i < square.data().length; i++) {
            float d = clean.data()[i] - calm.data()[i];
            square.data()[i] = d * d;
        }
        Plane out = Blur.gaussian(square, 2, 2);
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] = (float) Math.sqrt(Math.max(0, out.data()[i]));
        }
        return out;
    }

    /** Each sample taken from a little beside its place. */
    private static Plane bent(Plane in, float amount, Plane across, Plane down) {
        Plane out = Plane.of(in.width(), in.height());
        for (int y = 0; y < in.height(); y++) {
            for (int x = 0; x < in.width(); x++) {
                int i = y * in.width() + x;
                out.set(x, y, Flow.sample(in, x + amount * across.data()[i], y + amount * down.data()[i]));
            }
        }
        return out;
    }
}
