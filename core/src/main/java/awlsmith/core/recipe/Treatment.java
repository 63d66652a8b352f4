package awlsmith.core.recipe;

import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Timing;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A recipe on a clip: the stages it comes to, and what is known behind each step. Made once and asked by whoever shows, measures or
 * renders; immutable and cheap to make.
 */
public final class Treatment {
    private final Recipe recipe;
    private final Material material;
    private final NetForm form;
    private final List<Behind> behind;
    private final Chain chain;
    private final List<Missing<?>> missing;
    private final Map<String, Used<?>> used = new LinkedHashMap<>();

    private record Used<T>(Analysis<T> analysis, T found) {
        Map<String, Object> tree() {
            return analysis.toTree(found);
        }
    }

    /**
     * Behind one step.
     *
     * @param summary of the step; empty when it is off
     * @param curves of the step
     * @param stages all up to here
     * @param aligned whether rows are still rows behind this step, as they were before it
     */
    private record Behind(
            String summary, List<StepCurve> curves, Format format, Timing times, int stages, boolean aligned) {}

    /**
     * An analysis that a step waits for.
     *
     * @param step its place in the recipe; what reaches it is what the steps before it make
     * @param key names the analysis and the steps before it, see {@link Findings}
     */
    public record Missing<T>(int step, Analysis<T> analysis, String key) {}

    /**
     * @throws RecipeException when a step cannot work on what reaches it
     */
    Treatment(Recipe recipe, Material material, NetForm form) {
        this.recipe = recipe;
        this.material = material;
        this.form = form;
        var reached = new ArrayList<Behind>();
        var line = new Line(material.format());
        var beside = new Line(material.format());
        var wanted = new LinkedHashMap<String, Missing<?>>();
        Timing times = material.times();
        // the source, or what reaches the first step that takes grain out
        int raw = 0;
        boolean isTaken = false;
        double scale = 1;
        // the first step that pictures reach as they are framed here
        int framed = 0;
        for (int i = 0; i < recipe.steps().size(); i++) {
            Step step = recipe.steps().get(i);
            String summary = "";
            List<StepCurve> curves = List.of();
            boolean aligned = true;
            if (step.on()) {
                int index = i;
                Format here = line.bring(step);
                if (!isTaken && step.known().takesGrain()) {
                    raw = i;
                    isTaken = true;
                    scale = 1;
                }
                int rawAt = raw;
                int framedAt = framed;
                var given = new Given(
                        here,
                        times,
                        form,
                        material.files(),
                        analysis -> look(index, analysis, wanted),
                        new Given.Raw(scale, analysis -> look(rawAt, analysis, wanted)),
                        analysis -> look(framedAt, analysis, wanted),
                        new Chain(material.format(), material.times(), beside.soFar()));
                List<Stage> more = stages(step, given, i);
                summary = step.known().summary(step.settings(), given) + inPart(step);
                curves = step.known().curves(step.settings(), given);
                Format before = here;
                for (Stage stage : more) {
                    scale *= scale(before, stage);
                    framed = isFramedAlike(before, times, stage) ? framed : i + 1;
                    before = stage.output();
                    times = stage.times(times);
                    aligned &= stage.isAligned();
                }
                line.add(step, more);
                List<Stage> along = step.known().beside(step.settings(), given, more);
                if (!along.isEmpty()) {
                    beside.bring(step);
                    beside.add(step, along);
                }
            }
            reached.add(new Behind(summary, curves, line.format(), times, line.count(), aligned));
        }
        this.behind = List.copyOf(reached);
        this.chain = new Chain(material.format(), material.times(), line.end());
        this.missing = List.copyOf(wanted.values());
    }

    /** Times larger that a stage makes a picture along either side; what it cuts off or adds does not count. */
    private static double scale(Format before, Stage stage) {
        Placement place = stage.placement();
        return Math.sqrt(place.width() * place.height() / before.whole().area());
    }

    /** Whether what comes out shows the same moments as what goes in, all of each picture, with rows and fields as they were. */
    private static boolean isFramedAlike(Format before, Timing times, Stage stage) {
        Format after = stage.output();
        return stage.placement().equals(Placement.over(after))
                && !stage.isMoving()
                && stage.isAligned()
                && stage.times(times).equals(times)
                && stage.speed().equals(Rational.ONE)
                && before.scan() == after.scan();
    }

    private static String inPart(Step step) {
        boolean offered = step.known().params().contains(StepKind.SHARE);
        long share = offered ? step.settings().whole(StepKind.SHARE).orElseThrow() : 100;
        return share == 100 ? "" : ", " + share + " %";
    }

    private static List<Stage> stages(Step step, Given given, int index) {
        var problems = step.known().check(step.settings(), given);
        if (!problems.isEmpty()) {
            throw new RecipeException(
                    problems.stream().map(problem -> problem.inStep(index)).toList());
        }
        try {
            return step.known().stages(step.settings(), given);
        } catch (RecipeException e) {
            throw new RecipeException(
                    e.problems().stream().map(problem -> problem.inStep(index)).toList());
        }
    }

    private <T> Optional<Object> look(int step, Analysis<T> analysis, Map<String, Missing<?>> wanted) {
        String key = key(step) + " > " + analysis.id();
        Optional<Object> found = material.findings().find(key);
        found.ifPresent(value -> used.put(key, used(analysis, value)));
        // what reaches a step behind one that waits is not yet what it will be
        if (found.isEmpty() && wanted.values().stream().allMatch(other -> other.step() >= step)) {
            wanted.put(key, new Missing<>(step, analysis, key));
        }
        return found;
    }

    @SuppressWarnings("unchecked")
    private static <T> Used<T> used(Analysis<T> analysis, Object found) {
        return new Used<>(analysis, (T) found);
    }

    /** What its steps use of what analyses found, in its open form, by keys. */
    public Map<String, Map<String, Object>> found() {
        var trees = new LinkedHashMap<String, Map<String, Object>>();
        used.forEach((key, one) -> trees.put(key, one.tree()));
        return trees;
    }

    /** The steps before one, by value: of two treatments with the same key there, the same pictures reach it. */
    private String key(int step) {
        return recipe.steps().subList(0, step).stream()
                .filter(Step::on)
                .map(before -> before.kind() + before.settings().given())
                .toList()
                .toString();
    }

    /** The files that its steps work with. */
    public List<FileRef> files() {
        return recipe.steps().stream()
                .filter(Step::on)
                .flatMap(step -> step.settings().given().values().stream())
                .filter(FileRef.class::isInstance)
                .map(FileRef.class::cast)
                .distinct()
                .toList();
    }

    /** What was asked for. */
    public Recipe recipe() {
        return recipe;
    }

    /** What is known of the clip. */
    public Material material() {
        return material;
    }

    /** That nets run in. */
    public NetForm form() {
        return form;
    }

    /** All stages, with what brings pictures to the spaces that steps work in and back. */
    public Chain chain() {
        return chain;
    }

    /** Of the pictures that come out. */
    public Format output() {
        return chain.output();
    }

    /** Of the frames that come out. */
    public Timing times() {
        return chain.times(material.times());
    }

    /**
     * The output frame that is first made around a source frame, or one of those behind it.
     *
     * @param later so many behind it; at most the last there is
     */
    public long output(long source, long later) {
        long wanted = chain.outputOf(FrameRange.single(source)).from() + later;
        long count = material.times().count();
        return count == FrameRange.OPEN
                ? wanted
                : Math.min(wanted, chain.outputOf(new FrameRange(0, count)).end() - 1);
    }

    /** Of the pictures behind a step, switched-off ones included as they pass them on. */
    public Format format(int step) {
        return behind.get(step).format();
    }

    /** Of the frames behind a step. */
    public Timing times(int step) {
        return behind.get(step).times();
    }

    /** Seconds of the source that go by in one second behind a step. */
    public Rational speed(int step) {
        return chain.stages().subList(0, behind.get(step).stages()).stream()
                .map(Stage::speed)
                .reduce(Rational.ONE, Rational::times);
    }

    /** A step's main setting in a few words; empty when it is off. */
    public String summary(int step) {
        return behind.get(step).summary();
    }

    /** What a step does over the clip; none when it is off, or where nothing is known yet. */
    public List<StepCurve> curves(int step) {
        return behind.get(step).curves();
    }

    /** How many of the first steps it takes until nothing turns the picture any more, so that rows stay rows behind them. */
    public int turned() {
        int turned = 0;
        for (int i = 0; i < behind.size(); i++) {
            turned = behind.get(i).aligned() ? turned : i + 1;
        }
        return turned;
    }

    /**
     * Analyses that the first step which lacks any waits for; until they are made it passes pictures on. Steps behind it may wait
     * for more, which shows once these are known.
     */
    public List<Missing<?>> missing() {
        return missing;
    }

    /** The stages of the first so many steps alone, with nothing that brings their pictures back: what {@link #behind} goes on from. */
    public Chain upTo(int steps) {
        return new Chain(material.format(), material.times(), chain.stages().subList(0, stagesOf(steps)));
    }

    /** The stages of the steps behind the first so many, on the pictures that these make. */
    public Chain behind(int steps) {
        Format reached = steps == 0 ? material.format() : format(steps - 1);
        Timing shown = steps == 0 ? material.times() : times(steps - 1);
        return new Chain(
                reached,
                shown,
                chain.stages().subList(stagesOf(steps), chain.stages().size()));
    }

    private int stagesOf(int steps) {
        return steps == 0 ? 0 : behind.get(steps - 1).stages();
    }

    /** The same up to a step. */
    public Treatment prefix(int steps) {
        return steps == recipe.steps().size()
                ? this
                : new Treatment(new Recipe(recipe.steps().subList(0, steps)), material, form);
    }

    /** The same with nets in another form. */
    public Treatment with(NetForm other) {
        return other == form ? this : new Treatment(recipe, material, other);
    }

    /** The same with more known. */
    public Treatment with(Findings findings) {
        return new Treatment(recipe, material.with(findings), form);
    }
}
