package awlsmith.trainer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.model.ModelCard;
import awlsmith.nets.CardEntry;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.net.Weights;
import awlsmith.trainer.onnx.OnnxFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CommandTest {
    @TempDir
    Path folder;

    private static Options options(String... words) {
        return Options.of(words);
    }

    @Test
    void eachTaskAndModeHasAFolderOfItsOwn() {
        assertThat(options("train", "task=worn", "training=t").folder()).isEqualTo(Path.of("t/worn"));
        assertThat(options("train", "task=worn", "mode=crisp", "training=t").folder())
                .isEqualTo(Path.of("t/worn-crisp"));
        assertThat(options("train", "task=worn", "kind=hashed", "training=t").folder())
                .isEqualTo(Path.of("t/worn-fast"));
        assertThat(options("train", "task=worn", "folder=elsewhere").folder()).isEqualTo(Path.of("elsewhere"));
    }

    @Test
    void unknownWordsAreToldOff() {
        assertThatThrownBy(() -> options("train", "task=soup").task())
                .hasMessageContaining("there are photographic, worn, generated, drawn");
        assertThatThrownBy(() -> options("train", "task=worn", "mode=slow").mode())
                .hasMessageContaining("there are quality, crisp, made, fast");
        assertThatThrownBy(() -> options("train", "quickly")).hasMessageContaining("'quickly' is not key=value");
    }

    private Path model(NetShape shape) throws Exception {
        var arrays = new ArrayList<float[]>();
        for (int i = 0; i < shape.layers(); i++) {
            arrays.add(new float[shape.in(i) * shape.out(i) * 9]);
            arrays.add(new float[shape.out(i)]);
        }
        Path file = folder.resolve("trained.onnx");
        OnnxFile.write(
                file,
                new Weights(shape, arrays),
                Map.of("iterations", "7", "gain", "1.5", "ssim", "0.9", "loss", "mean absolute error", "begun", "4"));
        return file;
    }

    @Test
    void shippingReplacesTheCardOfTheSameModelOnly() throws Exception {
        Path shipped = Files.createDirectory(folder.resolve("shipped"));
        Path net = model(new NetShape(1, 4, 1, 2, 2));
        for (ModelCard.Mode mode : List.of(ModelCard.Mode.FAST, ModelCard.Mode.QUALITY)) {
            Card.ship(Card.ofNet(Task.WORN, mode, net), net, shipped);
        }
        Card.ship(Card.ofNet(Task.PHOTOGRAPHIC, ModelCard.Mode.CRISP, net), net, shipped);
        Card.ship(Card.ofNet(Task.WORN, ModelCard.Mode.FAST, net), net, shipped);
        List<CardEntry> cards;
        try (var text = Files.newInputStream(shipped.resolve("cards.json"))) {
            cards = CardEntry.read(text);
        }
        assertThat(cards)
                .extracting(CardEntry::file)
                .containsExactly("photographic-2x-crisp.onnx", "worn-2x.onnx", "worn-2x-fast.onnx");
        assertThat(cards).allSatisfy(card -> {
            assertThat(shipped.resolve(card.file())).exists();
            assertThat(card.step()).isEqualTo(2);
            assertThat(card.training().get("training"))
                    .startsWith("7 iterations of 16 patches of 48x48 (the first 4 of them in earlier runs), mean");
            assertThat(card.training().get("gain")).startsWith("+1.50 dB over Lanczos");
        });
    }

    @Test
    void aModelOfAnotherKindTakesTheOldFileAway() throws Exception {
        Path shipped = Files.createDirectory(folder.resolve("shipped"));
        Path net = model(new NetShape(1, 4, 1, 2, 2));
        CardEntry old = Card.ofNet(Task.WORN, ModelCard.Mode.FAST, net);
        var filters = new CardEntry(
                "enlarge",
                old.id(),
                old.mode(),
                old.label(),
                old.purpose(),
                "worn-2x-fast.npy",
                2,
                3,
                1,
                1,
                false,
                old.base(),
                1,
                old.training());
        Card.ship(filters, net, shipped);
        Card.ship(old, net, shipped);
        assertThat(shipped.resolve("worn-2x-fast.npy")).doesNotExist();
        assertThat(shipped.resolve("worn-2x-fast.onnx")).exists();
    }
}
