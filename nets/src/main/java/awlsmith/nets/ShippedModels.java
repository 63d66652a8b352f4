package awlsmith.nets;

import ai.onnxruntime.OrtException;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelSource;
import awlsmith.core.model.ModelUnavailable;
import awlsmith.core.model.NetForm;
import awlsmith.core.model.NetRunner;
import awlsmith.core.model.NumberArray;
import awlsmith.core.picture.Plane;
import awlsmith.core.upscale.HashedFilters;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/** The models in this module's resources: {@code cards.json} lists them, each has its numbers beside it, a net as ONNX, hashed filters as NPY. */
public final class ShippedModels implements ModelSource {
    /** Samples on a side of the picture that a graphics processor is tried on. */
    private static final int TRIED = 16;

    private final Map<ModelCard, String> files = new java.util.LinkedHashMap<>();
    private String fingerprint;
    /** Null until it was tried, empty where there is a graphics processor. */
    private String noGraphics;

    private final Map<String, NetRunner> open = new ConcurrentHashMap<>();

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
    public void begin() {
        OnnxNet.environment();
    }

    /** Found out once, by running the smallest net there. */
    @Override
    public synchronized Optional<String> noGraphics() {
        if (noGraphics == null) {
            noGraphics = Graphics.notBuilt().or(this::tried).orElse("");
        }
        return Optional.of(noGraphics).filter(why -> !why.isEmpty());
    }

    /** Why a net does not run there. */
    private Optional<String> tried() {
        ModelCard card = files.keySet().stream()
                .filter(one -> files.get(one).endsWith(".onnx") && one.frames() == 1 && !one.told())
                .findFirst()
                .orElseThrow();
        try (InputStream in = resource(card, files.get(card));
                OnnxNet net = OnnxNet.of(in.readAllBytes(), card.factor(), card.step(), true)) {
            net.run(List.of(Plane.of(TRIED, TRIED)), Plane.of(TRIED * card.factor(), TRIED * card.factor()));
            return Optional.empty();
        } catch (IOException | OrtException | RuntimeException e) {
            return Optional.of("no graphics processor with CUDA answers here (" + e.getMessage() + ")");
        }
    }

    @Override
    public NetRunner open(ModelCard card, NetForm form) {
        String file = file(card, form);
        boolean graphics = form == NetForm.GRAPHICS && file.endsWith(".onnx");
        return open.computeIfAbsent(graphics ? file + " on graphics" : file, key -> load(card, file, graphics));
    }

    /** Read once: it takes a few milliseconds. */
    @Override
    public synchronized String fingerprint() {
        if (fingerprint == null) {
            var crc = new java.util.zip.CRC32();
            for (ModelCard card : files.keySet()) {
                for (String file : new String[] {file(card, NetForm.FLOAT), file(card, NetForm.EIGHT_BITS)}) {
                    try (InputStream in = ShippedModels.class.getResourceAsStream(file)) {
                        crc.update(in == null ? new byte[0] : in.readAllBytes());
                    } catch (IOException e) {
                        throw new java.io.UncheckedIOException(e);
                    }
                }
            }
            fingerprint = Long.toHexString(crc.getValue());
        }
        return fingerprint;
    }

    @Override
    public NetForm quickest() {
        return runs(NetForm.EIGHT_BITS) ? NetForm.EIGHT_BITS : NetForm.FLOAT;
    }

    /** Elsewhere than on cores that multiply bytes, sums of eight-bit products overflow, or are made in another order. */
    @Override
    public boolean runs(NetForm form) {
        return switch (form) {
            case FLOAT -> true;
            case EIGHT_BITS -> EightBits.areQuick();
            case GRAPHICS -> noGraphics().isEmpty();
        };
    }

    /** The eight-bit form of a net where it is wanted and there is one. */
    private String file(ModelCard card, NetForm form) {
        String file = files.get(card);
        String quick = file.replace(".onnx", "-8.onnx");
        boolean there = !quick.equals(file) && ShippedModels.class.getResource(quick) != null;
        return there && form == NetForm.EIGHT_BITS ? quick : file;
    }

    private InputStream resource(ModelCard card, String file) {
        InputStream in = ShippedModels.class.getResourceAsStream(file);
        if (in == null) {
            throw new ModelUnavailable(
                    "the model " + card.label() + " is missing from this installation (" + file
                            + "); install Awlsmith again, or choose another model",
                    null);
        }
        return in;
    }

    private NetRunner load(ModelCard card, String file, boolean graphics) {
        try (InputStream in = resource(card, file)) {
            return file.endsWith(".npy")
                    ? new HashedFilters(card.factor(), NumberArray.read(in.readAllBytes()))
                    : OnnxNet.of(in.readAllBytes(), card.factor(), card.step(), graphics);
        } catch (IOException | OrtException | IllegalArgumentException e) {
            throw new ModelUnavailable(
                    graphics
                            ? "the graphics processor does not take the model " + card.label() + " (" + e.getMessage()
                                    + "); let nets run on the cores"
                            : "the model " + card.label() + " cannot be read (" + file
                                    + " is damaged); install Awlsmith again, or choose another model",
                    e);
        }
    }
}
