package awlsmith.core.recipe;

import awlsmith.core.colour.LookupTable;
import awlsmith.core.colour.Space;
import awlsmith.core.colour.TableStage;
import awlsmith.core.pipeline.Stage;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Colours by a lookup table out of a file. */
final class TableStep implements StepKind {
    /** Tables kept ready: a treatment is made anew at every change of a recipe, a table takes tenths of a second to read. */
    private static final int KEPT = 8;

    private static final Param.FromFile FILE = new Param.FromFile(
            "file", "Table", "cube", "a lookup table, curves or a cube of colours, on R'G'B' as it is coded");
    private static final Map<String, LookupTable> READ = new LinkedHashMap<>(KEPT, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, LookupTable> eldest) {
            return size() > KEPT;
        }
    };

    @Override
    public String id() {
        return "table";
    }

    @Override
    public String name() {
        return "Lookup table";
    }

    @Override
    public String purpose() {
        return "brings colours to those of a table, such as a camera maker's for its logarithmic footage";
    }

    @Override
    public StepGroup group() {
        return StepGroup.COLOUR;
    }

    @Override
    public List<Param> params() {
        return List.of(FILE, SHARE);
    }

    @Override
    public Space space(Settings settings) {
        return Space.RGB;
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Optional<FileRef> file = settings.file(FILE);
        if (file.isEmpty()) {
            // a step without its file does nothing yet
            return List.of();
        }
        try {
            return table(file.get(), given).isPresent()
                    ? List.of()
                    : List.of(Problem.at(
                            "file", "the table " + file.get().name() + " is not here any more; add its file again"));
        } catch (IllegalArgumentException e) {
            return List.of(Problem.at("file", file.get().name() + " cannot be used: " + e.getMessage()));
        }
    }

    private static Optional<LookupTable> table(FileRef file, Given given) {
        synchronized (READ) {
            LookupTable known = READ.get(file.hash());
            if (known != null) {
                return Optional.of(known);
            }
        }
        Optional<LookupTable> read = given.files().content(file).map(LookupTable::read);
        read.ifPresent(table -> {
            synchronized (READ) {
                READ.put(file.hash(), table);
            }
        });
        return read;
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return settings.file(FILE)
                .flatMap(file -> table(file, given))
                .<List<Stage>>map(table -> List.of(new TableStage(given.format(), table)))
                .orElse(List.of());
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.file(FILE).map(FileRef::name).orElse("no table yet");
    }
}
