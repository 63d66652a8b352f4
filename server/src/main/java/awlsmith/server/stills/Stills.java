package awlsmith.server.stills;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.HeldFrames;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.render.Machine;
import awlsmith.render.Png;
import awlsmith.server.clips.Clips;
import awlsmith.server.clips.ReferenceClips;
import awlsmith.server.problem.Refusal;
import awlsmith.server.treatments.Treatments;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/**
 * Single frames to look at: the source as it is, or a part of it treated. Only the part asked for is computed, at the
 * very pixels a full render would give. Renders give way while a still is being made.
 */
@Service
public class Stills {
    /** Largest picture sent to a page, in pixels: an 8K frame at full size would choke it. */
    private static final long MOST_PIXELS = 12_000_000;
    /** Longest that others wait for stills at a time. */
    private static final long LONGEST_WAIT_NANOS = 2_000_000_000;
    /** Longest that a still waits for memory which others hold. */
    private static final int LONGEST_FOR_MEMORY_SECONDS = 20;

    private final Clips clips;
    private final ReferenceClips references;
    private final FrameCache cache;
    private final StillCache stillCache;
    private final ReachedFrames reached;
    private final Treatments treatments;
    private final Machine machine;
    private final AtomicInteger making = new AtomicInteger();
    private final AtomicInteger urgent = new AtomicInteger();
    private final Map<String, Cancel> latest = new ConcurrentHashMap<>();

    Stills(
            Clips clips,
            ReferenceClips references,
            FrameCache cache,
            StillCache stillCache,
            ReachedFrames reached,
            Treatments treatments,
            Machine machine) {
        this.clips = clips;
        this.references = references;
        this.cache = cache;
        this.stillCache = stillCache;
        this.reached = reached;
        this.treatments = treatments;
        this.machine = machine;
    }

    /** True while somebody waits for a still or something else that others give way to. */
    public boolean isBusy() {
        return making.get() > 0 || urgent.get() > 0;
    }

    /** True while somebody waits for a still. */
    public boolean isLooking() {
        return making.get() > 0;
    }

    /** Waits while somebody looks at a still, at most a moment: for those whom renders give way to in turn. */
    public void awaitLooking(Cancel cancel) {
        awaitWhile(this::isLooking, cancel);
    }

    /** Waits while anything more urgent is made, at most a moment, so that all get on. */
    public void awaitUrgent(Cancel cancel) {
        awaitWhile(this::isBusy, cancel);
    }

    private static void awaitWhile(BooleanSupplier busy, Cancel cancel) {
        long start = System.nanoTime();
        while (busy.getAsBoolean() && System.nanoTime() - start < LONGEST_WAIT_NANOS) {
            cancel.check();
            LockSupport.parkNanos(5_000_000);
        }
    }

    /** Does something that renders give way to, though stills do not. */
    public <T> T urgent(Callable<T> work) throws IOException {
        urgent.incrementAndGet();
        try {
            return work.call();
        } catch (RuntimeException | IOException e) {
            throw e;
        } catch (Exception e) {
            throw new IllegalStateException(e);
        } finally {
            urgent.decrementAndGet();
        }
    }

    /** What is made of one frame while it is at hand; the frame is given back afterwards. */
    @FunctionalInterface
    public interface Maker<T> {
        T make(Frame frame, Work work);
    }

    /**
     * @param recipe to treat with; the empty one shows the source
     * @param number of a source frame
     * @param later output frames after the first one made of it
     * @param part of the treated picture, cut to it; null for all of it
     * @param reduce one pixel for the mean of reduce x reduce
     * @param viewer who looks: a newer request of the same viewer stops the older one
     * @param reference shows the clip's reference instead of the clip
     * @param marked paints what lies beyond black and white in colours of its own
     * @param held how many of the first steps are not being changed: what they make is kept for the next question
     */
    byte[] still(
            UUID clipId,
            Recipe recipe,
            long number,
            int later,
            @Nullable Region part,
            int reduce,
            String viewer,
            boolean reference,
            boolean marked,
            int held) {
        Clip clip = reference ? reference(clipId) : clips.open(clipId);
        // a reference keeps its frames beside those of its clip
        UUID id = reference
                ? UUID.nameUUIDFromBytes((clipId + " reference " + clip.info().file()).getBytes(StandardCharsets.UTF_8))
                : clipId;
        Treatment treatment = treatments.of(id, clip, recipe);
        var key = new StillCache.Key(id, recipe, waits(treatment), number, later, part, reduce, marked);
        byte[] known = stillCache.find(key);
        if (known != null) {
            return known;
        }
        Format out = treatment.output();
        Region shown = part == null ? out.whole() : part.within(out.width(), out.height());
        if (shown.area() / ((long) reduce * reduce) > MOST_PIXELS) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "a picture of " + shown.width() + "x" + shown.height()
                            + " is too large to send at once; ask for a part of it");
        }
        byte[] png = look(
                id,
                clip,
                recipe,
                number,
                later,
                ScreenPicture.needs(out, shown),
                viewer,
                held,
                (frame, work) -> Png.encode(ScreenPicture.of(frame, shown, reduce, marked, machine.planes(), work)));
        stillCache.keep(key, png);
        return png;
    }

    /**
     * Makes one frame, or a part of it, and something of that frame. Renders give way meanwhile.
     *
     * @param part of the treated picture, on whole chroma samples
     * @param viewer who looks: a newer request of the same viewer stops the older one
     */
    public <T> T look(UUID id, Recipe recipe, long number, int later, Region part, String viewer, Maker<T> maker) {
        return look(id, clips.open(id), recipe, number, later, part, viewer, 0, maker);
    }

    private Clip reference(UUID id) {
        return references
                .of(id)
                .orElseThrow(() -> new Refusal(
                        Refusal.Kind.CONFLICT,
                        "this clip has no reference to compare with; choose one on the proof sheet"));
    }

    private <T> T look(
            UUID id,
            Clip clip,
            Recipe recipe,
            long number,
            int later,
            Region part,
            String viewer,
            int held,
            Maker<T> maker) {
        var cancel = new Cancel();
        Cancel older = latest.put(viewer, cancel);
        if (older != null) {
            older.ask();
        }
        making.incrementAndGet();
        try {
            int frames = clip.index().orElseThrow().count();
            if (number < 0 || number >= frames) {
                throw new Refusal(
                        Refusal.Kind.INVALID, "frame is " + number + ", this clip has frames 0.." + (frames - 1));
            }
            Treatment treatment = treatments.of(id, clip, recipe);
            Way way = way(id, clip, treatment, held, machine.work(cancel));
            long wanted = treatment.output(number, later);
            Work work = way.work();
            try (var _ = machine.budget().take(way.bytes(part), LONGEST_FOR_MEMORY_SECONDS, cancel);
                    FrameStream stream =
                            way.chain().open(way.from(), FrameRange.single(wanted), part, machine.planes(), work)) {
                Frame frame = stream.next()
                        .orElseThrow(() -> new Refusal(
                                Refusal.Kind.INVALID,
                                "frame " + number + " cannot be decoded; the file is damaged there"));
                T made = maker.make(frame, work);
                frame.release(machine.planes());
                cancel.check();
                return made;
            }
        } finally {
            making.decrementAndGet();
            latest.remove(viewer, cancel);
        }
    }

    /**
     * How a still comes about.
     *
     * @param before the steps whose pictures may be at hand, if any
     * @param chain what is made of what {@code from} gives
     */
    private record Way(Clip clip, Optional<Chain> before, FrameSource from, Chain chain, Work work, int threads) {
        /** What one still holds: the stages' windows, and the source's frame as code values and once more as planes. */
        long bytes(Region part) {
            long raw = new RawLayout(clip.format()).frameBytes();
            long reached = before.map(steps -> steps.bytesAlive(HeldFrames.around(chain.needs(part), steps.output()))
                            + steps.workBytes() * threads)
                    .orElse(0L);
            return reached
                    + chain.bytesAlive(part)
                    + chain.workBytes() * threads
                    + clip.format().floatBytes()
                    + 2 * raw;
        }
    }

    private Way way(UUID id, Clip clip, Treatment treatment, int held, Work work) {
        FrameSource source = cache.source(id, clip);
        int steps = Math.min(held, treatment.recipe().steps().size());
        Chain before = treatment.upTo(steps);
        Chain behind = treatment.behind(steps);
        if (before.stages().isEmpty() || behind.seesSourceBeside()) {
            return new Way(clip, Optional.empty(), source, treatment.chain(), work, machine.threads());
        }
        var made =
                new ReachedFrames.Made(id, new Recipe(treatment.recipe().steps().subList(0, steps)), waits(treatment));
        FrameSource from =
                reached.source(made, before, treatment.times(steps - 1).count(), source, work);
        return new Way(clip, Optional.of(before), from, behind, work, machine.threads());
    }

    /** What a step that waited passed on is another picture once it knows. */
    private static String waits(Treatment treatment) {
        return treatment.missing().stream().map(missing -> missing.key()).collect(Collectors.joining());
    }

    /** Where the arrays of frames come from. */
    public PlanePool planes() {
        return machine.planes();
    }
}
