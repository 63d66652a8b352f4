package awlsmith.trainer;

import awlsmith.core.model.ModelCard;
import awlsmith.core.upscale.GradientHash;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.nets.CardEntry;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.run.Validation;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Writes a model's card for the shipped list. Its training part holds only what the run itself knows. */
final class Card {
    private Card() {}

    /**
     * What a model learned from.
     *
     * @param pictures in words, with licences
     * @param learn number of pairs; @param check number of held-out pairs
     */
    record Source(String pictures, List<PairMaker> makers, int learn, int check) {
        Map<String, String> notes() {
            var notes = new TreeMap<String, String>();
            notes.put("pictures", pictures);
            notes.put(
                    "made worse",
                    makers.stream().map(PairMaker::words).collect(Collectors.joining("; ")) + "; " + learn + " pairs");
            notes.put("held out", check + " pairs from pictures it never saw");
            return notes;
        }
    }

    static CardEntry ofHashed(Task task, Source source, long samples, Validation.Score score) {
        var training = new TreeMap<>(source.notes());
        training.put(
                "design",
                "filters of " + HashedFilters.SIDE + "x" + HashedFilters.SIDE + " chosen among " + GradientHash.BUCKETS
                        + " by the gradient around each sample (Romano et al. 2016)");
        training.put("training", "least squares over " + samples + " samples");
        training.put("gain", gain(task, score.gain(), score.ssim()));
        long weights = (long) GradientHash.BUCKETS * 4 * HashedFilters.SIDE * HashedFilters.SIDE;
        return new CardEntry(
                task.job().id(),
                task.id(),
                "fast",
                task.label(),
                task.purpose(),
                task.file(ModelCard.Mode.FAST) + ".npy",
                2,
                HashedFilters.REACH,
                1,
                1,
                false,
                NetShape.BASE.id(),
                weights,
                training);
    }

    static CardEntry ofNet(Task task, ModelCard.Mode mode, Path model) throws IOException {
        Map<String, String> notes = OnnxFile.notes(model);
        NetShape shape = OnnxFile.read(model).shape();
        var training = new TreeMap<String, String>();
        for (String key : List.of("pictures", "made worse", "held out")) {
            training.put(key, notes.getOrDefault(key, "not noted"));
        }
        training.put(
                "design",
                "residual net of " + shape.blocks() + " blocks of two 3x3 layers of " + shape.channels()
                        + " channels"
                        + (shape.step() > 1 ? ", working at half the size" : "")
                        + (shape.out() > 1 ? ", a last layer that gives " + shape.out() + " phases" : "")
                        + reading(task, mode, shape)
                        + " (Lim et al. 2017, without normalisation)");
        training.put(
                "training",
                notes.get("iterations")
                        + " iterations of 16 patches of 48x48" + begun(notes) + ", "
                        + notes.getOrDefault("loss", "mean absolute error")
                        + ", Adam, half a cosine a run; the running mean of the weights is kept");
        training.put("gain", gain(task, Double.parseDouble(notes.get("gain")), Double.parseDouble(notes.get("ssim"))));
        if (mode == ModelCard.Mode.MADE) {
            training.put(
                    "made up",
                    "the texture it draws was not in the footage; it could have been, by what such pictures show");
        }
        return new CardEntry(
                task.job().id(),
                task.id(),
                mode.id(),
                task.label(),
                task.purpose(),
                task.file(mode) + ".onnx",
                shape.factor(),
                shape.reach(),
                shape.step(),
                task.frames(mode),
                task.isTold(mode),
                NetShape.BASE.id(),
                shape.weights(),
                training);
    }

    private static String reading(Task task, ModelCard.Mode mode, NetShape shape) {
        if (task == Task.NOISY) {
            return ", reading the picture as it was cleaned without it, five frames laid over each other along the motion, their mean, and"
                    + " how strong and how fine the noise is";
        }
        if (task == Task.CODED) {
            return ", reading five frames laid over each other along the motion and how coarsely the codec rounded";
        }
        if (task == Task.DULLED) {
            return ", reading five frames laid over each other along the motion, how coarsely the codec rounded and how soft the picture is";
        }
        if (task.frames(mode) > 1) {
            return ", reading " + shape.planes() + " frames laid over each other along the motion";
        }
        if (task.isTold(mode)) {
            return ", reading beside the light how soft it is";
        }
        return shape.planes() > 1 ? ", reading " + shape.planes() + " planes" : "";
    }

    /** A model may begin from another one or with another loss; its card must not pass that training off as this. */
    private static String begun(Map<String, String> notes) {
        String begun = notes.getOrDefault("begun", "0");
        return begun.equals("0") ? "" : " (the first " + begun + " of them in earlier runs)";
    }

    private static String gain(Task task, double gain, double ssim) {
        return String.format(
                Locale.ROOT, "%+.2f dB over %s, SSIM %.4f, on the held-out pairs", gain, task.rival(), ssim);
    }

    static void write(CardEntry card, Path file) throws IOException {
        Files.writeString(file, CardEntry.write(List.of(card)));
    }

    static CardEntry read(Path file) throws IOException {
        return list(file).getFirst();
    }

    private static List<CardEntry> list(Path file) throws IOException {
        try (InputStream text = Files.newInputStream(file)) {
            return CardEntry.read(text);
        }
    }

    /** Copies a model into the folder of shipped ones and puts its card in their list, in place of the old one. */
    static void ship(CardEntry card, Path model, Path folder) throws IOException {
        Files.copy(model, folder.resolve(card.file()), StandardCopyOption.REPLACE_EXISTING);
        Path list = folder.resolve("cards.json");
        var cards = new ArrayList<CardEntry>();
        if (Files.exists(list)) {
            cards.addAll(list(list));
        }
        for (CardEntry old : List.copyOf(cards)) {
            if (old.id().equals(card.id()) && old.mode().equals(card.mode())) {
                cards.remove(old);
                if (!old.file().equals(card.file())) {
                    Files.deleteIfExists(folder.resolve(old.file()));
                }
            }
        }
        cards.add(card);
        cards.sort(Comparator.<CardEntry>comparingInt(c -> Task.byId(c.id()).ordinal())
                .thenComparing(c -> ModelCard.Mode.byId(c.mode())));
        Files.writeString(list, CardEntry.write(cards));
    }
}
