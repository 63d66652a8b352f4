package awlsmith.core.recipe;

import awlsmith.core.colour.Space;
import awlsmith.core.mark.MarkPicture;
import awlsmith.core.mark.MarkStage;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import java.util.List;
import java.util.Optional;

/** A picture in a corner of every frame: an emblem, or words drawn as a picture. */
final class MarkStep implements StepKind {
    private static final Param.FromFile FILE = new Param.FromFile(
            "file", "Picture", "png", "what is laid over every frame; where it is clear, the frame stays as it is");
    private static final Param.Choice PLACE = new Param.Choice(
            "place",
            "Place",
            List.of(
                    option("top-left", "Top left"),
                    option("top", "Top"),
                    option("top-right", "Top right"),
                    option("left", "Left"),
                    option("middle", "Middle"),
                    option("right", "Right"),
                    option("bottom-left", "Bottom left"),
                    option("bottom", "Bottom"),
                    option("bottom-right", "Bottom right")),
            "bottom-right",
            "where it lies");
    private static final Param.Whole WIDTH =
            new Param.Whole("width", "Width", "%", 1, 100, 15L, "its width, of the frame's");
    private static final Param.Whole MARGIN =
            new Param.Whole("margin", "Margin", "%", 0, 40, 4L, "how far from the edge it lies, of the frame's height");

    private static final ReadFiles<MarkPicture> READ = new ReadFiles<>("picture");

    private static Param.Choice.Option option(String id, String label) {
        return new Param.Choice.Option(id, label, "");
    }

    @Override
    public String id() {
        return "mark";
    }

    @Override
    public String name() {
        return "Mark";
    }

    @Override
    public String purpose() {
        return "lays a picture over every frame, such as an emblem or a line of words";
    }

    @Override
    public StepGroup group() {
        return StepGroup.FINISH;
    }

    @Override
    public List<Param> params() {
        return List.of(FILE, PLACE, WIDTH, MARGIN, SHARE);
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
        if (given.format().alpha().isThere()) {
            return List.of(Problem.at(
                    "", "a mark wants an opaque picture; put the step Transparency before it, over a colour"));
        }
        return READ.check(file.get(), () -> mark(file.get(), settings, given));
    }

    private static Optional<MarkPicture> mark(FileRef file, Settings settings, Given given) {
        // shown at the shape it has where samples are not square
        Format format = given.format();
        double wide = format.width() * settings.whole(WIDTH).orElseThrow() / 100.0;
        String size = " " + wide + " " + format.height() + " " + format.sar();
        return READ.find(file, size, given.files(), content -> {
            MarkPicture picture = MarkPicture.read(content);
            double tall = wide * format.sar().toDouble() * picture.height() / picture.width();
            double fits = Math.min(1, format.height() / tall);
            return picture.at(Math.max(1, (int) Math.round(fits * wide)), Math.max(1, (int) Math.round(fits * tall)));
        });
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format format = given.format();
        return settings.file(FILE)
                .flatMap(file -> mark(file, settings, given))
                .<List<Stage>>map(mark -> {
                    String place = settings.choice(PLACE).orElseThrow();
                    int down = (int)
                            Math.round(format.height() * settings.whole(MARGIN).orElseThrow() / 100.0);
                    int across = (int) Math.round(down / format.sar().toDouble());
                    int left = place.endsWith("left")
                            ? across
                            : place.endsWith("right")
                                    ? format.width() - across - mark.width()
                                    : (format.width() - mark.width()) / 2;
                    int top = place.startsWith("top")
                            ? down
                            : place.startsWith("bottom")
                                    ? format.height() - down - mark.height()
                                    : (format.height() - mark.height()) / 2;
                    return List.of(new MarkStage(format, mark, left, top));
                })
                .orElse(List.of());
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.file(FILE)
                .map(file -> file.name() + ", "
                        + settings.choice(PLACE).orElseThrow().replace('-', ' '))
                .orElse("no picture yet");
    }
}
