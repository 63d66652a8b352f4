package awlsmith.core.recipe;

import awlsmith.core.film.DustStage;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Takes dust and scratches out of film scans. */
final class DustStep implements StepKind {
    private static final Param.Whole FROM = new Param.Whole(
            "from",
            "Stands out by",
            "of 255",
            4,
            100,
            20L,
            "how far a spot is lighter or darker than the frames around show");
    private static final Param.Whole LARGEST = new Param.Whole(
            "largest",
            "Largest spot",
            "px",
            0,
            128,
            24L,
            "wider or higher is taken for part of the scene; 0 leaves dust");
    private static final Param.Choice SCRATCHES = new Param.Choice(
            "scratches",
            "Scratches",
            List.of(
                    new Param.Choice.Option("out", "taken out", "the picture beside them is drawn across"),
                    new Param.Choice.Option("keep", "left", "where masts or poles are taken for scratches")),
            "out",
            "upright lines over the whole height");

    @Override
    public String id() {
        return "dust";
    }

    @Override
    public String name() {
        return "Dust";
    }

    @Override
    public String purpose() {
        return "takes spots of single frames and upright scratches out of film scans";
    }

    @Override
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(FROM, LARGEST, SCRATCHES, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        return List.of(new DustStage(
                input,
                settings.whole(FROM).orElseThrow() / 255.0,
                Math.toIntExact(settings.whole(LARGEST).orElseThrow()),
                scratches(settings)));
    }

    private static boolean scratches(Settings settings) {
        return settings.choice(SCRATCHES).orElseThrow().equals("out");
    }

    @Override
    public String summary(Settings settings, Given given) {
        long largest = settings.whole(LARGEST).orElseThrow();
        String spots = largest == 0 ? "" : "to " + largest + " px";
        String lines = scratches(settings) ? "scratches" : "";
        String both = spots.isEmpty() || lines.isEmpty() ? spots + lines : spots + ", " + lines;
        return both.isEmpty() ? "nothing" : both;
    }
}
