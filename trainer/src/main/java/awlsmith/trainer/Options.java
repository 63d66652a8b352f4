package awlsmith.trainer;

import awlsmith.trainer.net.NetShape;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** What was asked for, as key=value words; see {@link #HELP}. */
record Options(Map<String, String> words) {
    static final String HELP = """
            train task=photographic|worn|drawn [kind=net|hashed] [key=value ...]
                channels=32 blocks=5   size of a net
                iterations=12000       of this run; a run that was stopped goes on
                rate=0.0004            highest learning rate
                start=FILE             weights to begin with, an ONNX file of the same size
                seed=1
                folder=FOLDER          what the run writes; default .awlsmith/training/TASK
                packages=FOLDER        fetched packages are kept there; default .awlsmith/packages
            ship task=... [kind=...] into=FOLDER
                puts the run's best model and its card among the shipped ones
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

    boolean hashed() {
        return text("kind", "net").equals("hashed");
    }

    NetShape shape() {
        return new NetShape(1, (int) number("channels", 32), (int) number("blocks", 5), 2);
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
        return Path.of(text("folder", ".awlsmith/training/" + task().id()));
    }

    Path packages() {
        return Path.of(text("packages", ".awlsmith/packages"));
    }

    Optional<Path> start() {
        return Optional.ofNullable(words.get("start")).map(Path::of);
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
