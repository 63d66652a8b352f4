package awlsmith.server.dispatch;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.RenderPlan;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Sides;
import awlsmith.core.recipe.StepCurve;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.server.analyses.ClipAnalyses;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.models.ModelSpeeds;
import awlsmith.server.problem.Refusal;
import awlsmith.server.recipes.StoredRecipe;
import awlsmith.server.storage.MediaFolder;
import awlsmith.server.takes.TakeView;
import awlsmith.server.takes.Takes;
import awlsmith.server.treatments.Treatments;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Renders: planned, ordered, cancelled, tried again, fetched. */
@Service
public class Dispatch {
    private static final int LONGEST_NAME = 150;
    /** What some file system does not take in a name. */
    private static final String FORBIDDEN = "/\\:*?\"<>|";

    private final RenderRepository renders;
    private final LiveRenders live;
    private final RenderRunner runner;
    private final Clips clips;
    private final Takes takes;
    private final Treatments treatments;
    private final ClipAnalyses analyses;
    private final Machine machine;
    private final ModelSpeeds speeds;
    private final MediaFolder media;
    private final EventHub events;
    private final Clock clock;

    Dispatch(
            RenderRepository renders,
            LiveRenders live,
            RenderRunner runner,
            Clips clips,
            Treatments treatments,
            ClipAnalyses analyses,
            Takes takes,
            Machine machine,
            ModelSpeeds speeds,
            MediaFolder media,
            EventHub events,
            Clock clock) {
        this.renders = renders;
        this.live = live;
        this.runner = runner;
        this.clips = clips;
        this.treatments = treatments;
        this.analyses = analyses;
        this.takes = takes;
        this.machine = machine;
        this.speeds = speeds;
        this.media = media;
        this.events = events;
        this.clock = clock;
    }

    /**
     * What a recipe makes of a clip.
     *
     * @param steps what reaches behind each step
     * @param waiting looks through the clip that steps wait for; until then they pass pictures on
     * @param moving whether the placement differs from frame to frame, told here as it is at rest
     * @param base the first so many steps turn the picture; what they make is what is shown as the source
     * @param placement where the base picture lies in the treated one
     * @param framesToOne output frames to one of the source, in the mean
     * @param ratePerSecond frames a second going out
     * @param estimateSeconds by this machine's newest measured rate and its models' speeds; null before the first render
     */
    public record PlanView(
            List<StepView> steps,
            List<ClipAnalyses.Waiting> waiting,
            BaseView base,
            PlacementView placement,
            boolean moving,
            int width,
            int height,
            String sar,
            int depth,
            int frames,
            double framesToOne,
            double ratePerSecond,
            double seconds,
            double clipSeconds,
            boolean wholeClip,
            long memoryBytes,
            long fileBytes,
            @Nullable Double estimateSeconds,
            List<String> refusals,
            List<String> warnings) {}

    /**
     * @param summary its main setting; size, frames a second and scan (p or i) behind it
     * @param speed seconds of the clip that go by in one second behind it
     * @param curves what it does over the clip, where that is known
     */
    public record StepView(
            String summary,
            int width,
            int height,
            double ratePerSecond,
            String scan,
            double speed,
            List<StepCurve> curves) {}

    /** @param steps how many of the recipe's; @param width and height of the picture they make */
    public record BaseView(int steps, int width, int height) {}

    /** In pixels of the treated picture; parts may lie outside it. */
    public record PlacementView(double x, double y, double width, double height) {}

    PlanView plan(UUID clipId, Recipe recipe, Deliverable deliverable, @Nullable Integer in, @Nullable Integer out) {
        Clip clip = clips.open(clipId);
        int count = clip.index().orElseThrow().count();
        FrameRange range = span(count, in, out);
        Treatment treatment = treatments.of(clipId, clip, recipe);
        RenderPlan plan = request(clip, treatment, range, deliverable).plan(machine);
        var steps = new ArrayList<StepView>();
        for (int i = 0; i < recipe.steps().size(); i++) {
            Format format = treatment.format(i);
            steps.add(new StepView(
                    treatment.summary(i),
                    format.width(),
                    format.height(),
                    treatment.times(i).mean(),
                    format.scan().isInterlaced() ? "i" : "p",
                    treatment.speed(i).toDouble(),
                    treatment.curves(i)));
        }
        OptionalDouble rate = renders.newestRate(deliverable.codec().id());
        double pixels = (double) plan.output().width() * plan.output().height() * plan.frames();
        double modelSeconds = speeds.secondsAFrame(treatment.chain()) * plan.frames();
        Sides sides = Sides.of(treatment);
        Placement place = sides.place();
        return new PlanView(
                steps,
                analyses.waiting(clipId, clip, treatment),
                new BaseView(
                        sides.base().recipe().steps().size(),
                        sides.source().width(),
                        sides.source().height()),
                new PlacementView(place.x(), place.y(), place.width(), place.height()),
                sides.behind().isMoving(),
                plan.output().width(),
                plan.output().height(),
                plan.output().sar().toString(),
                plan.output().depth(),
                (int) plan.frames(),
                (double) treatment.times().count() / count,
                plan.ratePerSecond(),
                clip.time(range.end()).minus(clip.time(range.from())).toDouble(),
                clip.time(count).toDouble(),
                range.count() == count,
                plan.memoryBytes(),
                plan.fileBytes(),
                rate.isPresent() ? pixels / rate.getAsDouble() + modelSeconds : null,
                plan.refusals(),
                plan.warnings());
    }

    /**
     * Where the source picture lies in one treated frame.
     *
     * @param later output frames behind the first one made of the source's frame
     */
    PlacementView placement(UUID clipId, Recipe recipe, int frame, int later) {
        Sides sides = treatments.sides(clipId, recipe);
        long count = sides.whole().material().times().count();
        if (frame < 0 || frame >= count || later < 0) {
            throw new Refusal(Refusal.Kind.INVALID, "frame is " + frame + ", this clip has frames 0.." + (count - 1));
        }
        Placement place = sides.place(sides.whole().output(frame, later));
        return new PlacementView(place.x(), place.y(), place.width(), place.height());
    }

    /** @param whole sends the whole clip even when a span is marked */
    RenderView order(UUID takeId, Deliverable deliverable, boolean whole) {
        TakeView take = takes.view(takeId);
        Clip clip = clips.open(take.clipId());
        int count = clip.index().orElseThrow().count();
        FrameRange range = whole ? span(count, null, null) : span(count, take.inFrame(), take.outFrame());
        Recipe recipe = StoredRecipe.of(take.recipe()).demanded();
        Treatment treatment = treatments.of(take.clipId(), clip, recipe);
        RenderPlan plan = request(clip, treatment, range, deliverable).plan(machine);
        if (!plan.isPossible()) {
            throw new Refusal(Refusal.Kind.INVALID, String.join("; ", plan.refusals()));
        }
        // the segments and the finished file stand side by side for a moment
        media.demandSpace(2 * plan.fileBytes());
        var id = UUID.randomUUID();
        String title = clips.view(take.clipId()).title();
        var job = new RenderJob(
                id,
                take.clipId(),
                recipe,
                deliverable,
                fileName(title, take.name(), plan.output(), deliverable),
                (int) range.from(),
                (int) range.end(),
                (int) plan.frames(),
                plan.output().width(),
                plan.output().height());
        renders.insert(job, take.name(), range.count() == count, clock.instant());
        runner.want(id);
        live.publish(id);
        return view(id);
    }

    private static RenderRequest request(Clip clip, Treatment treatment, FrameRange range, Deliverable deliverable) {
        Path nowhere = Path.of("plan." + ending(deliverable));
        return new RenderRequest(clip, treatment, range, deliverable, nowhere, nowhere, 1, false);
    }

    private static FrameRange span(int count, @Nullable Integer in, @Nullable Integer out) {
        int from = in == null ? 0 : in;
        int end = out == null ? count : out;
        if (from < 0 || end > count || end <= from) {
            throw new Refusal(
                    Refusal.Kind.INVALID, "the span from frame " + from + " to " + end + " holds nothing of this clip");
        }
        return new FrameRange(from, end);
    }

    private static String fileName(String title, String take, Format out, Deliverable deliverable) {
        String clean = title.replaceAll("[^\\p{L}\\p{N} ._-]", "_").replaceAll("\\.[A-Za-z0-9]{2,4}$", "");
        clean = clean.length() > 120 ? clean.substring(0, 120) : clean;
        return clean + " " + take + " " + out.width() + "x" + out.height() + "." + ending(deliverable);
    }

    private static String ending(Deliverable deliverable) {
        return deliverable.codec().containers().getFirst().ending();
    }

    List<RenderView> all() {
        return live.all();
    }

    RenderView view(UUID id) {
        return live.find(id).orElseThrow(() -> Refusal.unknown("this render"));
    }

    RenderView cancel(UUID id) {
        view(id);
        if (renders.cancel(id, clock.instant())) {
            runner.stop(id);
            live.forget(id);
            live.publish(id);
        }
        return view(id);
    }

    RenderView retry(UUID id) {
        if (!renders.retry(id)) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    "only a render that failed or was cancelled can be tried again; this one is "
                            + view(id).state().name().toLowerCase(Locale.ROOT));
        }
        runner.want(id);
        live.publish(id);
        return view(id);
    }

    /** Lets one that waits change places with the one before it. */
    RenderView earlier(UUID id) {
        Optional<UUID> passed = renders.earlier(id);
        if (passed.isEmpty()) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    view(id).state() == RenderView.State.WAITING
                            ? "it is the first that waits"
                            : "only a render that waits can go before another");
        }
        live.publish(passed.get());
        live.publish(id);
        return view(id);
    }

    /**
     * Gives the file another name, which it keeps its ending with.
     *
     * @param name with or without the ending
     */
    RenderView rename(UUID id, String name) {
        String old = view(id).fileName();
        String ending = old.substring(old.lastIndexOf('.'));
        String plain = name.strip();
        if (plain.toLowerCase(Locale.ROOT).endsWith(ending.toLowerCase(Locale.ROOT))) {
            plain = plain.substring(0, plain.length() - ending.length()).strip();
        }
        if (plain.isEmpty() || plain.length() > LONGEST_NAME) {
            throw new Refusal(
                    Refusal.Kind.INVALID, "a file name has 1 to " + LONGEST_NAME + " letters before its ending");
        }
        if (plain.chars().anyMatch(c -> c < ' ' || FORBIDDEN.indexOf(c) >= 0) || plain.startsWith(".")) {
            throw new Refusal(Refusal.Kind.INVALID, "a file name cannot begin with a dot or hold any of " + FORBIDDEN);
        }
        renders.rename(id, plain + ending);
        live.publish(id);
        return view(id);
    }

    void remove(UUID id) {
        UUID clip = cancel(id).clipId();
        runner.await(id);
        renders.delete(id);
        MediaFolder.remove(media.render(id));
        events.publish("render-removed", Map.of("id", id));
        clips.publish(clip);
    }

    Path file(UUID id) {
        RenderView view = view(id);
        Path file = media.render(id)
                .resolve("out" + view.fileName().substring(view.fileName().lastIndexOf('.')));
        if (view.state() != RenderView.State.DONE || !Files.exists(file)) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    view.state() == RenderView.State.DONE
                            ? "the finished file is gone from the media folder; render it again"
                            : "this render is not finished yet");
        }
        return file;
    }

    @EventListener
    void clipRemoved(Clips.Removing event) {
        renders.of(event.id()).forEach(this::remove);
    }
}
