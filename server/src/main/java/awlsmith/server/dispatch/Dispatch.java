package awlsmith.server.dispatch;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.plan.Advice;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.RenderPlan;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Settings;
import awlsmith.core.recipe.Sides;
import awlsmith.core.recipe.StepCurve;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.render.FileNames;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.SizeCurve;
import awlsmith.render.Trial;
import awlsmith.server.analyses.ClipAnalyses;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.models.ModelSpeeds;
import awlsmith.server.problem.Refusal;
import awlsmith.server.recipes.StoredRecipe;
import awlsmith.server.storage.MediaFolder;
import awlsmith.server.takes.TakeView;
import awlsmith.server.takes.Takes;
import awlsmith.server.treatments.Treatments;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Renders: planned, ordered, cancelled, tried again, fetched. */
@Service
public class Dispatch {
    /** Files asked for at once; beyond what anybody looks through. */
    /** A hundred years. */
    private static final int MOST_DAYS = 36_500;

    private static final int MOST = 2000;

    private static final int LONGEST_BATCH = 100;
    private static final int MOST_HANDLES = 1000;

    private final RenderRepository renders;
    private final LiveRenders live;
    private final RenderRunner runner;
    private final Trials trials;
    private final SizeCurves curves;
    private final Clips clips;
    private final Takes takes;
    private final Treatments treatments;
    private final ClipAnalyses analyses;
    private final Machine machine;
    private final ModelSpeeds speeds;
    private final MediaFolder media;
    private final EventHub events;
    private final TransactionTemplate transaction;
    private final Clock clock;

    Dispatch(
            RenderRepository renders,
            LiveRenders live,
            RenderRunner runner,
            Trials trials,
            SizeCurves curves,
            Clips clips,
            Treatments treatments,
            ClipAnalyses analyses,
            Takes takes,
            Machine machine,
            ModelSpeeds speeds,
            MediaFolder media,
            EventHub events,
            TransactionTemplate transaction,
            Clock clock) {
        this.renders = renders;
        this.live = live;
        this.runner = runner;
        this.trials = trials;
        this.curves = curves;
        this.clips = clips;
        this.treatments = treatments;
        this.analyses = analyses;
        this.takes = takes;
        this.machine = machine;
        this.speeds = speeds;
        this.media = media;
        this.events = events;
        this.transaction = transaction;
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
            List<String> warnings,
            @Nullable AdviceView advice) {}

    /** @param preset that keeps more of the source, by its key; @param why in a sentence */
    public record AdviceView(String preset, String label, String why) {}

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
                plan.warnings(),
                advice(clipId, clip, deliverable));
    }

    private @Nullable AdviceView advice(UUID clipId, Clip clip, Deliverable deliverable) {
        var examination = clips.view(clipId).examination();
        boolean isLog = examination != null
                && examination.condition() != null
                && examination.condition().findings().stream()
                        .anyMatch(one -> one.id().equals("flat") && one.severity() > 0);
        return Advice.of(clip.format(), isLog, deliverable)
                .map(one -> new AdviceView(one.preset().id(), one.preset().label(), one.why()))
                .orElse(null);
    }

    /** @param seconds the render takes; @param fileBytes of its file; @param frames made to find out */
    public record TrialView(double seconds, long fileBytes, int frames) {}

    /** The same told by making a little of it. @param page whose earlier wish this takes the place of */
    TrialView trial(
            UUID clipId,
            Recipe recipe,
            Deliverable deliverable,
            @Nullable Integer in,
            @Nullable Integer out,
            String page) {
        RenderRequest request = tried(clipId, recipe, deliverable, in, out);
        String key = clipId + "|" + recipe.toTree() + "|" + deliverable.toTree() + "|" + request.range();
        Trial.Found found = trials.of(key, page, request);
        return new TrialView(found.seconds(), found.fileBytes(), found.frames());
    }

    /** Of what can be made at once. */
    private RenderRequest tried(
            UUID clipId, Recipe recipe, Deliverable deliverable, @Nullable Integer in, @Nullable Integer out) {
        Clip clip = clips.open(clipId);
        FrameRange range = span(clip.index().orElseThrow().count(), in, out);
        Treatment treatment = treatments.of(clipId, clip, recipe);
        RenderRequest request = request(clip, treatment, range, deliverable);
        RenderPlan plan = request.plan(machine);
        if (!plan.isPossible()) {
            throw new Refusal(Refusal.Kind.INVALID, String.join("; ", plan.refusals()));
        }
        if (!treatment.missing().isEmpty()) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT, "the clip is still to be looked through for a step; try again then");
        }
        return request;
    }

    /**
     * What one rate factor comes to.
     *
     * @param curve that its pictures are asked of
     * @param sourceBytes of the clip over the same span, all its tracks
     * @param ssim null where pictures are too small for it
     * @param psnr null where nothing is lost
     */
    public record CurvePoint(
            UUID curve,
            int quality,
            long fileBytes,
            long sourceBytes,
            @Nullable Double ssim,
            @Nullable Double worst,
            @Nullable Double psnr,
            int frames) {}

    /** Size against quality at one rate factor. @param page whose earlier wish this takes the place of */
    CurvePoint curve(
            UUID clipId,
            Recipe recipe,
            Deliverable deliverable,
            @Nullable Integer in,
            @Nullable Integer out,
            int quality,
            String page) {
        if (deliverable.codec().qualities().isEmpty()) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    deliverable.codec().label()
                            + " goes by no rate factor; H.264, H.265, AV1 and VP9 trade size for quality");
        }
        Deliverable tried = deliverable.atQuality(quality);
        RenderRequest request = tried(clipId, recipe, tried, in, out);
        // of what was treated, and how its codec is set beside the quality
        Object base =
                tried.atQuality(deliverable.codec().qualities().getFirst()).toTree();
        String key = clipId + "|" + recipe.toTree() + "|" + base + "|" + request.range();
        SizeCurves.Found found = curves.at(key, page, request, quality);
        SizeCurve.Point point = found.point();
        Clip clip = request.clip();
        double share = clip.time(request.range().end())
                        .minus(clip.time(request.range().from()))
                        .toDouble()
                / clip.time(clip.index().orElseThrow().count()).toDouble();
        return new CurvePoint(
                found.curve(),
                quality,
                point.fileBytes(),
                Math.round(clip.info().bytes() * share),
                finite(point.ssim()),
                finite(point.worst()),
                finite(point.psnr()),
                point.frames());
    }

    private static @Nullable Double finite(double value) {
        return Double.isFinite(value) ? value : null;
    }

    /** A page needs no more points. */
    void enoughOfCurve(String page) {
        curves.stop(page);
    }

    byte[] curvePicture(UUID curve, @Nullable Integer quality) {
        return curves.picture(curve, quality);
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

    /**
     * @param wholeClip sends everything even when a span is marked
     * @param handles frames that go along before and behind a span, as far as the clip has them
     */
    public record Target(UUID takeId, boolean wholeClip, int handles) {
        public Target {
            if (handles < 0 || handles > MOST_HANDLES) {
                throw new Refusal(Refusal.Kind.INVALID, "handles are 0 to " + MOST_HANDLES + " frames, not " + handles);
            }
        }

        FrameRange of(TakeView take, int count) {
            if (wholeClip) {
                return span(count, null, null);
            }
            FrameRange marked = span(count, take.inFrame(), take.outFrame());
            return new FrameRange(Math.max(0, marked.from() - handles), Math.min((long) count, marked.end() + handles));
        }
    }

    /**
     * Files to make: every take in every form.
     *
     * @param pattern of their names; see {@link FileNames}
     * @param notBefore when they may begin
     * @param name of all of them together
     */
    public record Order(
            List<Target> takes,
            List<Deliverable> deliverables,
            @Nullable String pattern,
            @Nullable Instant notBefore,
            @Nullable String name) {}

    /** @param bytes of the file; @param parts of what it is made of, until it is there */
    private record Planned(RenderJob job, RenderJob.Asked asked, long bytes, long parts) {}

    /** All of them or none: what cannot be made is said before anything begins. */
    public List<RenderView> order(Order order) {
        int files = order.takes().size() * order.deliverables().size();
        if (files == 0 || files > MOST) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    files == 0
                            ? "nothing was chosen to be sent out"
                            : files + " files at once are too many, " + MOST + " are the most; send them in parts");
        }
        UUID batch = files > 1 ? UUID.randomUUID() : null;
        String name = order.name() == null ? null : order.name().strip();
        if (name != null && name.length() > LONGEST_BATCH) {
            name = name.substring(0, LONGEST_BATCH);
        }
        Set<String> names = renders.names();
        var planned = new ArrayList<Planned>();
        var problems = new ArrayList<String>();
        for (Target target : order.takes()) {
            try {
                planned.addAll(planned(target, order, batch, name, names, planned.size()));
            } catch (Refusal | RecipeException | MediaException e) {
                String title = clips.view(takes.view(target.takeId()).clipId()).title();
                problems.add(order.takes().size() == 1 ? e.getMessage() : title + ": " + e.getMessage());
            }
        }
        if (!problems.isEmpty()) {
            throw new Refusal(Refusal.Kind.INVALID, String.join("; ", problems));
        }
        // the segments and the finished files of one treatment stand side by side for a moment
        long largest = planned.stream()
                .collect(Collectors.groupingBy(
                        one -> Objects.requireNonNullElse(
                                one.job().bundle(), one.job().id()),
                        Collectors.summingLong(Planned::parts)))
                .values()
                .stream()
                .max(Long::compare)
                .orElse(0L);
        media.demandSpace(planned.stream().mapToLong(Planned::bytes).sum() + largest);
        Instant now = clock.instant();
        transaction.executeWithoutResult(status -> {
            for (int i = 0; i < planned.size(); i++) {
                // a microsecond apart, so that they keep their order
                renders.insert(planned.get(i).job(), planned.get(i).asked(), now.plusNanos(1000L * i));
            }
        });
        planned.forEach(one -> {
            if (order.notBefore() == null || !order.notBefore().isAfter(now)) {
                runner.want(one.job().id());
            }
            live.publish(one.job().id());
        });
        return planned.stream().map(one -> view(one.job().id())).toList();
    }

    private List<Planned> planned(
            Target target,
            Order order,
            @Nullable UUID batch,
            @Nullable String batchName,
            Set<String> names,
            int before) {
        TakeView take = takes.view(target.takeId());
        Clip clip = clips.open(take.clipId());
        int count = clip.index().orElseThrow().count();
        FrameRange range = target.of(take, count);
        Recipe recipe = StoredRecipe.of(take.recipe()).demanded();
        Treatment treatment = treatments.of(take.clipId(), clip, recipe);
        String title = clips.view(take.clipId()).title();
        UUID bundle = order.deliverables().size() > 1 ? UUID.randomUUID() : null;
        var all = new ArrayList<Planned>();
        for (Deliverable deliverable : order.deliverables()) {
            RenderPlan plan = request(clip, treatment, range, deliverable).plan(machine);
            if (!plan.isPossible()) {
                throw new Refusal(Refusal.Kind.INVALID, String.join("; ", plan.refusals()));
            }
            var facts = new FileNames.Facts(
                    title,
                    take.name(),
                    plan.output(),
                    plan.ratePerSecond(),
                    deliverable,
                    LocalDate.now(clock),
                    before + all.size() + 1);
            String pattern = order.pattern() == null || order.pattern().isBlank() ? FileNames.USUAL : order.pattern();
            String file = FileNames.of(pattern, facts, names);
            names.add(file.toLowerCase(Locale.ROOT));
            all.add(new Planned(
                    new RenderJob(
                            UUID.randomUUID(),
                            take.clipId(),
                            recipe,
                            deliverable.with(FileNames.told(deliverable.tags(), facts)),
                            file,
                            (int) range.from(),
                            (int) range.end(),
                            (int) plan.frames(),
                            plan.output().width(),
                            plan.output().height(),
                            bundle),
                    new RenderJob.Asked(take.name(), range.count() == count, batch, batchName, order.notBefore()),
                    plan.fileBytes(),
                    partBytes(clip, plan, deliverable)));
        }
        return all;
    }

    /** What is coded at the end is kept without loss until then. */
    private static long partBytes(Clip clip, RenderPlan plan, Deliverable deliverable) {
        var amount = new Codec.Amount(plan.frames(), plan.ratePerSecond(), 0);
        return deliverable.isCodedInParts()
                ? plan.fileBytes()
                : (long) Codecs.FFV1.fileBytes(clip.format(), plan.output(), new Settings(Map.of()), amount);
    }

    /** What a file would be called. */
    String named(Target target, Deliverable deliverable, String pattern) {
        var order = new Order(List.of(target), List.of(deliverable), pattern, null, null);
        return planned(target, order, null, null, renders.names(), 0)
                .getFirst()
                .job()
                .fileName();
    }

    /** The same file once more, made by this version. */
    RenderView again(UUID id) {
        RenderView old = view(id);
        RenderJob job = renders.job(id);
        var fresh = new RenderJob(
                UUID.randomUUID(),
                job.clip(),
                job.recipe(),
                job.deliverable(),
                another(job.fileName()),
                job.from(),
                job.end(),
                job.outFrames(),
                job.width(),
                job.height(),
                null);
        media.demandSpace(old.result() == null ? 0 : 2 * old.result().bytes());
        renders.insert(fresh, new RenderJob.Asked(old.takeName(), old.wholeClip(), null, null, null), clock.instant());
        runner.want(fresh.id());
        live.publish(fresh.id());
        return view(fresh.id());
    }

    private String another(String name) {
        int dot = name.lastIndexOf('.');
        return FileNames.free(name.substring(0, dot), name.substring(dot), renders.names());
    }

    /** Puts a file that was sent out on the shelf as a clip of its own, to be treated further; the file stays. */
    ClipView shelve(UUID id) {
        Path file = file(id);
        String name = view(id).fileName();
        Path copy = media.incoming(UUID.randomUUID());
        try {
            media.demandSpace(Files.size(file));
            Files.copy(file, copy);
            return clips.takeInFile(name, copy);
        } catch (IOException e) {
            throw new Refusal(Refusal.Kind.CONFLICT, "the file cannot be read; it may just have been removed");
        } finally {
            try {
                Files.deleteIfExists(copy);
            } catch (IOException e) {
                // swept at the next start
            }
        }
    }

    /** Lets it rest where it is; what is finished stays. All files of one treatment rest together. */
    RenderView pause(UUID id) {
        boolean changed = false;
        for (UUID one : together(id)) {
            changed |= renders.pause(one);
        }
        if (!changed) {
            throw new Refusal(Refusal.Kind.CONFLICT, "only a render that waits or runs can rest");
        }
        for (UUID one : together(id)) {
            runner.stop(one);
            live.publish(one);
        }
        return view(id);
    }

    /** Goes on with it, also where it was to begin later. */
    RenderView resume(UUID id) {
        boolean changed = false;
        for (UUID one : together(id)) {
            if (renders.resume(one)) {
                changed = true;
                runner.want(one);
            }
            live.publish(one);
        }
        if (!changed) {
            throw new Refusal(Refusal.Kind.CONFLICT, "only a render that rests or waits can go on");
        }
        return view(id);
    }

    private List<UUID> together(UUID id) {
        UUID bundle = view(id).bundle();
        return bundle == null
                ? List.of(id)
                : live.all().stream()
                        .filter(one -> bundle.equals(one.bundle()))
                        .map(RenderView::id)
                        .toList();
    }

    private static RenderRequest request(Clip clip, Treatment treatment, FrameRange range, Deliverable deliverable) {
        Path nowhere = Path.of("plan." + deliverable.container().ending());
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

    List<RenderView> all() {
        return live.all();
    }

    /** Whether anything was ever asked to be made of a clip, and is still listed. */
    public boolean isAsked(UUID clip) {
        return !renders.of(clip).isEmpty();
    }

    RenderView view(UUID id) {
        return live.find(id).orElseThrow(() -> Refusal.unknown("this render"));
    }

    RenderView cancel(UUID id) {
        view(id);
        if (renders.cancel(id, clock.instant())) {
            // whichever of a bundle is at work does it for all; the others go on by themselves
            together(id).forEach(runner::stop);
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

    /** Lets one that waits change places with the treatment before it; files of its own treatment go with it. */
    RenderView earlier(UUID id) {
        List<UUID> moved = renders.earlier(id);
        if (moved.isEmpty()) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    view(id).state() == RenderView.State.WAITING
                            ? "it is the first that waits"
                            : "only a render that waits can go before another");
        }
        moved.forEach(live::publish);
        return view(id);
    }

    /** Lets one that waits go before all others that wait; files of its treatment go with it. */
    RenderView first(UUID id) {
        List<UUID> moved = renders.first(id);
        if (moved.isEmpty()) {
            view(id);
            throw new Refusal(Refusal.Kind.CONFLICT, "only a render that waits can go before others");
        }
        moved.forEach(live::publish);
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
        String plain = FileNames.checked(name, ending);
        renders.rename(id, plain + ending);
        live.publish(id);
        return view(id);
    }

    /** Takes a finished file off the disk; what is known of it stays. */
    RenderView clear(UUID id) {
        RenderView view = view(id);
        if (view.state() != RenderView.State.DONE || !isCleared(id)) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    view.state() == RenderView.State.DONE
                            ? "its file is off the disk already"
                            : "only a finished file can be taken off the disk");
        }
        return view(id);
    }

    /** Of one that is done. The file goes first: broken off between the two, it can be asked for again. */
    private boolean isCleared(UUID id) {
        MediaFolder.remove(media.render(id));
        boolean cleared = renders.clear(id, clock.instant());
        live.publish(id);
        return cleared;
    }

    /** The same of all that were finished some days ago and more. @return how many there were */
    int clear(int days) {
        if (days < 0 || days > MOST_DAYS) {
            throw new Refusal(Refusal.Kind.INVALID, "days are 0 to " + MOST_DAYS + ", not " + days);
        }
        // another window may have been quicker
        return (int) renders.finishedBefore(clock.instant().minus(days, ChronoUnit.DAYS)).stream()
                .filter(this::isCleared)
                .count();
    }

    void remove(UUID id) {
        UUID clip = cancel(id).clipId();
        together(id).forEach(runner::await);
        renders.delete(id);
        MediaFolder.remove(media.render(id));
        events.publish("render-removed", Map.of("id", id));
        clips.publish(clip);
    }

    /** What the newest frame of one that runs looks like, small. */
    byte[] picture(UUID id) {
        return live.picture(id)
                .orElseThrow(() -> new Refusal(Refusal.Kind.UNKNOWN, "no frame of this render is at hand just now"));
    }

    /** What became of it and how it was made, for whoever keeps the file. */
    Report report(UUID id) {
        RenderView view = view(id);
        if (view.result() == null) {
            throw new Refusal(Refusal.Kind.CONFLICT, "this render is not finished yet");
        }
        RenderJob job = renders.job(id);
        return Report.of(view, job);
    }

    Path file(UUID id) {
        RenderView view = view(id);
        Path file = media.render(id)
                .resolve("out" + view.fileName().substring(view.fileName().lastIndexOf('.')));
        if (view.clearedAt() != null) {
            throw new Refusal(Refusal.Kind.CONFLICT, "its file was taken off the disk; make it again");
        }
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
