package awlsmith.trainer.pairs;

import awlsmith.core.clean.DenoiseStage;
import awlsmith.core.clean.NoiseFold;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.footage.Codec;
import awlsmith.footage.Pictures;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;

/** Noise of many kinds and strengths on moving pictures, cleaned as far as that goes without a net. */
public record Noisy() implements PairMaker {
    private static final Scene.Size SIZE = new Scene.Size(352, 288, 260_000);
    private static final int[] USED = {2, 4, 6};

    /** A net that is shown everything at once. */
    private static final ModelCard LOOKING = new ModelCard(
            ModelCard.Job.DENOISE,
            "looking",
            ModelCard.Mode.QUALITY,
            "",
            "",
            1,
            0,
            1,
            5,
            true,
            Kernel.CATMULL_ROM,
            0,
            Map.of());

    @Override
    public String words() {
        return Scene.WORDS
                + "; noise of standard deviation 2 to 40 of 255 (coarse: to 20), a third white, two in five blurred by 0.45 to 1.2"
                + " samples or means of 2x2, the rest as of a colour filter filled up, half of it growing with the light; one in three"
                + " through H.264 at CRF 16 to 26 behind that, half of the others cut at black and white; measured in the scene and told up to an eighth wrong";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return SIZE.scenes(sharp, 16, random, truth -> scene(truth, random));
    }

    private static List<Pair> scene(List<Plane> truth, SplittableRandom random) {
        double which = random.nextDouble();
        Noise kind =
                which < 0.35 ? Noise.WHITE : which < 0.65 ? Noise.COARSE : which < 0.8 ? Noise.MEANS : Noise.MOSAIC;
        double most = kind == Noise.WHITE ? 20 : 10;
        double sigma = 2 * Math.pow(most, random.nextDouble()) / 255;
        boolean brighter = random.nextBoolean();
        // of the square in the middle of the light, what photons bring
        double photons = brighter ? random.nextDouble() : 0;
        var noisy = new ArrayList<Plane>();
        for (Plane clean : truth) {
            Plane field = kind.field(clean.width(), clean.height(), random);
            Plane frame = Plane.of(clean.width(), clean.height());
            for (int i = 0; i < frame.data().length; i++) {
                float light = clean.data()[i];
                double by = Math.sqrt(1 - photons + photons * 2 * Math.max(0, light));
                frame.data()[i] = (float) (light + sigma * by * field.data()[i]);
            }
            noisy.add(frame);
        }
        boolean cut = random.nextBoolean();
        List<Plane> footage = random.nextInt(3) == 0
                ? Codec.through(noisy, "libx264 -preset fast -crf " + (16 + random.nextInt(11)))
                : noisy.stream()
                        // cut at black or not: where all of a clip's darks were cut in training, a net lowers those
                        // that are not
                        .map(cut ? Pictures::eightBits : Pictures::eightBitsWithRoom)
                        .toList();
        double wrong = Math.exp(0.06 * random.nextGaussian());
        // a still, or a clip that begins or ends here
        double ends = random.nextDouble();
        int first = ends < 0.1 || ends > 0.95 ? 0 : -DenoiseStage.MOST_FRAMES;
        int last = ends < 0.15 ? 0 : DenoiseStage.MOST_FRAMES;
        int radius = random.nextInt(6) == 0 ? random.nextInt(2) : 2;
        Format format = new Format(
                footage.getFirst().width(),
                footage.getFirst().height(),
                Chroma.GREY,
                Siting.LEFT,
                8,
                ColourTags.UNKNOWN,
                Rational.ONE);
        List<Frame> frames = new ArrayList<>();
        for (int n = 0; n < footage.size(); n++) {
            frames.add(new Frame(format, format.whole(), List.of(footage.get(n)), n, Rational.of(n)));
        }
        var fold = new NoiseFold();
        frames.forEach(fold::see);
        NoiseModel noise = fold.found();
        var pairs = new ArrayList<Pair>();
        for (int n : USED) {
            var looking = new Looking();
            var stage = new DenoiseStage(format, noise, radius, wrong, 1, LOOKING, looking);
            stage.treat(
                    distance -> frames.get(n + Math.clamp(distance, first, last)),
                    format.whole(),
                    new PlanePool(0),
                    Work.alone());
            pairs.add(new Corrected(looking.shown, truth.get(n)));
        }
        return pairs;
    }

    /** Keeps what it is shown and corrects nothing. */
    private static final class Looking implements NetRunner {
        private List<Plane> shown = List.of();

        @Override
        public void run(List<Plane> frames, Plane correction) {
            shown = frames.stream()
                    .map(p -> new Plane(p.packed(), 0, p.width(), p.height(), p.width()))
                    .toList();
            correction.fill(0);
        }
    }
}
