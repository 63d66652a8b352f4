package awlsmith.render.cli;

import awlsmith.core.condition.Suggestion;
import awlsmith.core.model.Models;
import awlsmith.core.pipeline.Budget;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Preset;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.render.FileNames;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Treats and sends out several files one after another; one that fails does not stop the others. */
final class SendCommand {
    static final String USAGE = """
            usage: awlsmith send IN... --to FOLDER [--name PATTERN] [--suggest] [--json] [options of render]
            --name '{clip} {size}'   {clip} {size} {lines} {rate} {codec} {depth} {date} {number}
            --suggest                each by what its own condition suggests, where no steps are told
            --json                   progress as one JSON object a line on standard output
            """;

    private static final String NAME = "{clip} {size}";

    private final List<Path> inputs = new ArrayList<>();
    private final Path folder;
    private final String pattern;
    private final boolean suggest;
    private final RenderOptions options;
    private final Telling telling;
    private final Cancel cancel;

    SendCommand(List<String> words, PrintStream out, PrintStream err, Cancel cancel) {
        Path to = null;
        String name = NAME;
        boolean suggests = false;
        boolean json = false;
        String ending = Codecs.H264.containers().getFirst().ending();
        var rest = new ArrayList<String>();
        for (int i = 0; i < words.size(); i++) {
            String word = words.get(i);
            boolean hasNext = i + 1 < words.size();
            switch (word) {
                case "--to" -> to = Path.of(next(words, i++, word));
                case "--name" -> name = next(words, i++, word);
                case "--suggest" -> suggests = true;
                case "--json" -> json = true;
                case "--also", "--parts", "--describe", "--part-frames" ->
                    throw new RenderOptions.Misuse(word + " is for render, not for send\n" + USAGE);
                default -> {
                    if (word.equals("--preset") && hasNext) {
                        ending = preset(words.get(i + 1)).container().ending();
                    }
                    if (word.equals("--codec") && hasNext) {
                        ending = Codecs.find(words.get(i + 1))
                                .map(codec -> codec.containers().getFirst().ending())
                                .orElse(ending);
                    }
                    if (!word.startsWith("--")) {
                        inputs.add(Path.of(word));
                    } else {
                        rest.add(word);
                        if (!RenderOptions.isAlone(word) && hasNext) {
                            rest.add(words.get(++i));
                        }
                    }
                }
            }
        }
        if (to == null || inputs.isEmpty()) {
            throw new RenderOptions.Misuse("send wants files, and --to FOLDER where theirs go\n" + USAGE);
        }
        rest.addAll(0, List.of("in", "out." + ending));
        options = RenderOptions.parse(rest);
        folder = to;
        pattern = name;
        suggest = suggests && options.recipe().steps().isEmpty();
        telling = json ? new JsonTelling(out) : new PlainTelling(err);
        this.cancel = cancel;
    }

    private static String next(List<String> words, int i, String option) {
        if (i + 1 >= words.size()) {
            throw new RenderOptions.Misuse(option + " wants a value behind it");
        }
        return words.get(i + 1);
    }

    private static Preset preset(String id) {
        try {
            return Preset.byId(id);
        } catch (IllegalArgumentException e) {
            throw new RenderOptions.Misuse(e.getMessage());
        }
    }

    int run() {
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new MediaException("the folder " + folder + " cannot be made: " + e.getMessage(), e);
        }
        int failed = 0;
        Set<String> names = new HashSet<>();
        for (int i = 0; i < inputs.size(); i++) {
            Path in = inputs.get(i);
            try {
                cancel.check();
                send(in, i + 1, names);
            } catch (MediaException | RecipeException | Budget.Exceeded e) {
                failed++;
                telling.failed(in, e.getMessage());
            } catch (OutOfMemoryError e) {
                failed++;
                telling.failed(in, "too little memory for pictures of this size; choose a smaller size");
            }
        }
        return failed > 0 ? Main.FAILED : Main.DONE;
    }

    private void send(Path in, int number, Set<String> names) {
        if (number == 1 && (suggest || !options.recipe().steps().isEmpty())) {
            Models.begin();
        }
        MediaInfo info = Prober.probe(in);
        Recipe recipe = options.recipe();
        if (suggest) {
            recipe = suggested(info);
            telling.note(in.getFileName() + ": "
                    + (recipe.steps().isEmpty()
                            ? "nothing is suggested"
                            : String.join(
                                    "; ",
                                    recipe.steps().stream()
                                            .map(step -> step.kind() + " "
                                                    + step.settings().given())
                                            .toList())));
        }
        Treatment treatment = recipe.on(Clip.streamed(info).material().with(options.files()));
        var deliverable = options.deliverable();
        var facts = new FileNames.Facts(
                in.getFileName().toString(),
                "",
                deliverable.fileFormat(treatment.output(), info.video().format().height()),
                treatment.times().mean(),
                deliverable,
                LocalDate.now(),
                number);
        String name = FileNames.of(pattern, facts, names);
        names.add(name.toLowerCase(Locale.ROOT));
        new RenderCommand(options.of(in, folder.resolve(name), recipe), telling, cancel).run(info);
    }

    private Recipe suggested(MediaInfo info) {
        return new Recipe(Examined.of(info, options.threads(), done -> {}, cancel).suggestion().parts().stream()
                .map(Suggestion.Part::step)
                .toList());
    }
}
