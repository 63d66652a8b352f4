package awlsmith.core.recipe;

import java.util.List;
import java.util.Optional;

/** Every kind of step there is. A new step is one class and one line here. */
public final class StepRegistry {
    private static final List<StepKind> ALL = List.of(
            new TransparencyStep(),
            new CadenceStep(),
            new DeinterlaceStep(),
            new UnblendStep(),
            new RateStep(),
            new SpeedStep(),
            new TurnStep(),
            new CropStep(),
            new SteadyStep(),
            new EvenLightStep(),
            new DustStep(),
            new RepairStep(),
            new DitherStep(),
            new DenoiseStep(),
            new TrueSizeStep(),
            new StairsStep(),
            new HaloStep(),
            new DeblurStep(),
            new UnsmearStep(),
            new RefineStep(),
            new BandsStep(),
            new ExposureStep(),
            new LevelsStep(),
            new ContrastStep(),
            new TableStep(),
            new EnlargeStep(),
            new SharpenStep(),
            new LineStep(),
            new SmoothStep(),
            new OriginalStep(),
            new GrainStep(),
            new MarkStep());

    private StepRegistry() {}

    /** In the order in which they usually work. */
    public static List<StepKind> all() {
        return ALL;
    }

    /** The one of this name in recipes. */
    public static Optional<StepKind> find(String id) {
        return ALL.stream().filter(kind -> kind.id().equals(id)).findFirst();
    }

    static String idsInWords() {
        return String.join(", ", ALL.stream().map(StepKind::id).toList());
    }
}
