package awlsmith.trainer;

import awlsmith.core.model.ModelCard;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.run.Loss;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** What was asked for, as key=value words; see {@link #HELP}. */
record Options(Map<String, String> words) {
    static final String HELP = """
            train task=photographic|worn|generated|drawn|fields|noisy|coded|dulled [mode=quality|crisp|made|fast] [kind=net|hashed] [key=value ...]
                channels=32 blocks=5   size of a net
                step=1                 2: the net works at half the size, for speed
                crisp=0.5              weight of the gradient's strength in the loss; always with mode=crisp, else where given
                texture=2 square=8     instead: weight of the bands' energies in the loss, and the squares they are taken in
                critic=0.005           mode=made: weight of a critic that learns beside
                iterations=12000       of this run; a run that was stopped goes on
                rate=0.0004            highest learning rate
                start=FILE             weights to begin with, an ONNX file of the same size, or with fewer blocks or planes, or more channels
                seed=1
                folder=FOLDER          what the run writes; default a folder of the task's and mode's name in training
                training=FOLDER        default .awlsmith/training
                packages=FOLDER        fetched packages are kept there; default .awlsmith/packages
            blend task=... [mode=...] with=FILE share=0.5
                leads the run's last weights a share of the way back to those of a file of the same size, and makes that its best
            ship task=... [mode=...] [kind=...] into=FOLDER
                puts the run's best model and its card among the shipped ones
            quicken task=... [mode=...] [from=1] into=FOLDER
                makes the eight-bit twin of a shipped net, for processors that multiply bytes quickly; layers before from
                stay in floating point
            fit-softness
                finds the numbers by which softness is guessed, on photographs reduced in known ways, and tells them
            trial FILE FILE ...
                tells what models of factor 2 gain on clips that no training sees, on a few frames of each
            """;

    static Options of(String[] arguments) {
        var words = new TreeMap<String, String>();
        for (int i = 1; i < arguments.length; i++) {
            int equals = arguments[i].indexOf('=');
            if (equals < 1) {
                throw new IllegalArgumentException("'" + arguments[i] + "' is not key=value");
            }
            words.put(arguments[i].substring(0, equals), arguments[i].substring(equals + 1));
        }
        return new Options(words);
    }

    Task task() {
        return Task.byId(text("task", ""));
    }

    /** What it aims at; hashed filters are always fast. */
    ModelCard.Mode mode() {
        return ModelCard.Mode.byId(text("mode", hashed() ? "fast" : "quality"));
    }

    boolean hashed() {
        return text("kind", "net").equals("hashed");
    }

    Loss loss() {
        var texture = new Loss.Texture(Double.parseDouble(text("texture", "1")), (int) number("square", 8));
        if (mode() == ModelCard.Mode.MADE) {
            return new Loss.Made(texture, Double.parseDouble(text("critic", "0.005")));
        }
        if (words.containsKey("texture")) {
            return texture;
        }
        return mode() == ModelCard.Mode.CRISP || words.containsKey("crisp")
                ? new Loss.Crisp(Double.parseDouble(text("crisp", "0.5")))
                : new Loss.MeanError();
    }

    NetShape shape() {
        return new NetShape(
                task().planes(mode()), (int) number("channels", 32), (int) number("blocks", 5), task().factor(), (int)
                        number("step", 1));
    }

    long iterations() {
        return number("iterations", 12_000);
    }

    double rate() {
        return Double.parseDouble(text("rate", "0.0004"));
    }

    long seed() {
        return number("seed", 1);
    }

    Path folder() {
        String mode = mode() == ModelCard.Mode.QUALITY ? "" : "-" + mode().id();
        return Path.of(text("folder", text("training", ".awlsmith/training") + "/" + task().id() + mode));
    }

    Path packages() {
        return Path.of(text("packages", ".awlsmith/packages"));
    }

    Optional<Path> start() {
        return Optional.ofNullable(words.get("start")).map(Path::of);
    }

    Path with() {
        return Path.of(text("with", ""));
    }

    float share() {
        return Float.parseFloat(text("share", "0.5"));
    }

    int from() {
        return (int) number("from", 1);
    }

    Path into() {
        return Path.of(text("into", ""));
    }

    private long number(String key, long fallback) {
        return Long.parseLong(text(key, String.valueOf(fallback)));
    }

    private String text(String key, String fallback) {
        return words.getOrDefault(key, fallback);
    }
}
