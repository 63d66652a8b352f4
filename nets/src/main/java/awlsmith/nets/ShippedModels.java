package awlsmith.nets;

import ai.onnxruntime.OrtException;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.core.upscale.ModelCard;
import awlsmith.core.upscale.ModelSource;
import awlsmith.core.upscale.ModelUnavailable;
import awlsmith.core.upscale.NetRunner;
import awlsmith.core.upscale.NumberArray;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** The models in this module's resources: {@code cards.json} lists them, each has its numbers beside it, a net as ONNX, hashed filters as NPY. */
public final class ShippedModels implements ModelSource {
    private final Map<ModelCard, String> files = new java.util.LinkedHashMap<>();
    private final Map<ModelCard, NetRunner> open = new ConcurrentHashMap<>();

    public ShippedModels() {
        this("cards.json");
    }

    /** @param list resource beside this class */
    ShippedModels(String list) {
        try (InputStream text = ShippedModels.class.getResourceAsStream(list)) {
            for (CardEntry entry : CardEntry.read(text)) {
                files.put(entry.card(), entry.file());
            }
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Override
    public List<ModelCard> cards() {
        return List.copyOf(files.keySet());
    }

    @Override
    public String processor() {
        try {
            return Processor.chosen().words();
        } catch (ModelUnavailable e) {
            return e.getMessage();
        }
    }

    @Override
    public NetRunner open(ModelCard card) {
        return open.computeIfAbsent(card, this::load);
    }

    /** The eight-bit form of a net where there is one and it is quicker here. */
    private static String form(String file) {
        String quick = file.replace(".onnx", "-8.onnx");
        boolean there = !quick.equals(file) && ShippedModels.class.getResource(quick) != null;
        return there && Processor.chosen() == Processor.CORES && EightBits.areQuick() ? quick : file;
    }

    private NetRunner load(ModelCard card) {
        String file = form(files.get(card));
        try (InputStream in = ShippedModels.class.getResourceAsStream(file)) {
            if (in == null) {
                throw new ModelUnavailable(
                        "the model " + card.label() + " is missing from this installation (" + file
                                + "); install Awlsmith again, or choose another model",
                        null);
            }
            return file.endsWith(".npy")
                    ? new HashedFilters(card.factor(), NumberArray.read(in.readAllBytes()))
                    : OnnxNet.of(in.readAllBytes(), card.factor(), card.step());
        } catch (IOException | OrtException | IllegalArgumentException e) {
            throw new ModelUnavailable(
                    "the model " + card.label() + " cannot be read (" + file
                            + " is damaged); install Awlsmith again, or choose another model",
                    e);
        }
    }
}
