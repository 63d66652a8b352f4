package awlsmith.core.recipe;

import awlsmith.core.colour.LookupTable;
import awlsmith.core.colour.Space;
import awlsmith.core.colour.TableStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;
import java.util.Optional;

/** Colours by a lookup table out of a file. */
final class TableStep implements StepKind {
    private static final Param.FromFile FILE = new Param.FromFile(
            "file", "Table", "cube", "a lookup table, curves or a cube of colours, on R'G'B' as it is coded");
    private static final ReadFiles<LookupTable> READ = new ReadFiles<>("table");

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
        // a step without its file does nothing yet
        return settings.file(FILE)
                .map(file -> READ.check(file, () -> table(file, given)))
                .orElse(List.of());
    }

    private static Optional<LookupTable> table(FileRef file, Given given) {
        return READ.find(file, "", given.files(), LookupTable::read);
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
