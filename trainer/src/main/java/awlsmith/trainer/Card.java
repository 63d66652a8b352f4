package awlsmith.trainer;

import awlsmith.core.upscale.GradientHash;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.run.Validation;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * A model's card as the shipped list keeps it. Its training part holds only what the run itself knows.
 *
 * @param file name beside the list
 */
record Card(
        String id,
        String mode,
        String label,
        String purpose,
        String file,
        int factor,
        int reach,
        String base,
        long weights,
        Map<String, String> training) {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

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

    static Card ofHashed(Task task, Source source, long samples, Validation.Score score) {
        var training = new TreeMap<>(source.notes());
        training.put(
                "design",
                "filters of " + HashedFilters.SIDE + "x" + HashedFilters.SIDE + " chosen among " + GradientHash.BUCKETS
                        + " by the gradient around each sample (Romano et al. 2016)");
        training.put("training", "least squares over " + samples + " samples");
        training.put("gain", gain(score.gain(), score.ssim()));
        long weights = (long) GradientHash.BUCKETS * 4 * HashedFilters.SIDE * HashedFilters.SIDE;
        return new Card(
                task.id(),
                "fast",
                task.label(),
                task.purpose(),
                task.id() + "-2x-fast.npy",
                2,
                HashedFilters.REACH,
                NetShape.BASE.id(),
                weights,
                training);
    }

    static Card ofNet(Task task, Path model) throws IOException {
        Map<String, String> notes = OnnxFile.notes(model);
        NetShape shape = OnnxFile.read(model).shape();
        var training = new TreeMap<String, String>();
        for (String key : List.of("pictures", "made worse", "held out")) {
            training.put(key, notes.getOrDefault(key, "not noted"));
        }
        training.put(
                "design",
                "residual net of " + shape.blocks() + " blocks of two 3x3 layers of " + shape.channels()
                        + " channels, a last layer that gives four phases (Lim et al. 2017, without normalisation)");
        training.put(
                "training",
                notes.get("iterations")
                        + " iterations of 16 patches of 48x48, mean absolute error, Adam, half a cosine a"
                        + " run; the running mean of the weights is kept");
        training.put("gain", gain(Double.parseDouble(notes.get("gain")), Double.parseDouble(notes.get("ssim"))));
        return new Card(
                task.id(),
                "quality",
                task.label(),
                task.purpose(),
                task.id() + "-2x.onnx",
                shape.factor(),
                shape.reach(),
                NetShape.BASE.id(),
                shape.weights(),
                training);
    }

    private static String gain(double gain, double ssim) {
        return String.format(Locale.ROOT, "%+.2f dB over Lanczos, SSIM %.4f, on the held-out pairs", gain, ssim);
    }

    void write(Path file) throws IOException {
        Files.writeString(file, JSON.writeValueAsString(this) + "\n");
    }

    static Card read(Path file) throws IOException {
        return JSON.readValue(Files.readString(file), Card.class);
    }

    /** Copies the model into the folder of shipped ones and puts this card in their list, in place of the old one. */
    void ship(Path model, Path folder) throws IOException {
        Files.copy(model, folder.resolve(file), StandardCopyOption.REPLACE_EXISTING);
        Path list = folder.resolve("cards.json");
        var cards = new ArrayList<Card>();
        if (Files.exists(list)) {
            cards.addAll(List.of(JSON.readValue(Files.readString(list), Card[].class)));
        }
        cards.removeIf(card -> card.id().equals(id) && card.mode().equals(mode));
        cards.add(this);
        List<String> order =
                java.util.Arrays.stream(Task.values()).map(Task::id).toList();
        cards.sort(java.util.Comparator.<Card>comparingInt(card -> order.indexOf(card.id()))
                .thenComparing(Card::mode, java.util.Comparator.reverseOrder()));
        Files.writeString(list, JSON.writeValueAsString(cards) + "\n");
    }
}
