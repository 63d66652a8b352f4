package awlsmith.server.clips;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Budget;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.SeekCheck;
import awlsmith.render.Machine;
import awlsmith.render.Png;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Reads a new clip once from end to end: when each frame is shown, its facts, a strip of thumbnails. */
@Component
public class TakeIn implements Job {
    static final String KIND = "read";
    static final int THUMBS = 5;
    /** Share of the progress that making the file takes where it must be made first. */
    private static final double MAKING = 0.6;

    /** Share of the reading that finding the frames takes; the rest is proving that they can be reached. */
    private static final double INDEXING = 0.8;

    private static final int THUMB_HEIGHT = 112;

    private final Clips clips;
    private final ClipRepository repository;
    private final Makings makings;
    private final Machine machine;
    private final ApplicationEventPublisher publisher;
    private final TransactionTemplate transaction;
    private final Jobs jobs;

    TakeIn(
            Clips clips,
            ClipRepository repository,
            Makings makings,
            Machine machine,
            ApplicationEventPublisher publisher,
            TransactionTemplate transaction,
            Jobs jobs) {
        this.clips = clips;
        this.repository = repository;
        this.makings = makings;
        this.machine = machine;
        this.publisher = publisher;
        this.transaction = transaction;
        this.jobs = jobs;
    }

    @EventListener
    void added(Clips.Added event) {
        jobs.want(KIND, event.id().toString());
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Lane lane() {
        return Lane.READ;
    }

    @Override
    public List<String> waiting() {
        return repository.reading();
    }

    @Override
    public void run(String id, JobRun run) throws IOException {
        UUID clip = UUID.fromString(id);
        OptionalInt attempt = repository.begin(clip, run.owner());
        if (attempt.isPresent()) {
            run.began(attempt.getAsInt());
            read(clip, run);
        }
    }

    @Override
    public void failed(String id, JobRun run, String sentence) {
        repository.failed(UUID.fromString(id), run.attempt(), sentence);
    }

    @Override
    public void ended(String id) {
        clips.publish(UUID.fromString(id));
    }

    @Override
    public String fault() {
        return "the clip could not be read because of a fault inside Awlsmith; the log says what";
    }

    @EventListener
    void stop(Clips.Removed event) {
        jobs.stop(KIND, event.id().toString());
        jobs.await(KIND, event.id().toString());
    }

    private void read(UUID id, JobRun run) throws IOException {
        Cancel cancel = run.cancel();
        var begin = new double[1];
        Optional<String> told = makings.make(
                id,
                share -> {
                    begin[0] = MAKING;
                    tell(id, run, MAKING * Math.clamp(share, 0, 1));
                },
                cancel);
        long bytes = Files.size(clips.source(id));
        MediaInfo info = Prober.probe(clips.source(id));
        repository.size(id, info.bytes());
        Files.createDirectories(clips.index(id).getParent());
        long expected = Math.max(1, info.expectedFrames());
        double rest = 1 - begin[0];
        FrameIndex found = Indexer.index(
                info, n -> tell(id, run, begin[0] + rest * INDEXING * Math.min(1, (double) n / expected)), cancel);
        makings.prove(id, found);
        FrameIndex index = SeekCheck.check(
                info, found, share -> tell(id, run, begin[0] + rest * (INDEXING + (0.97 - INDEXING) * share)), cancel);
        index.save(clips.index(id));
        Optional<String> large = thumbs(id, new Clip(info, Optional.of(index)), cancel);
        Optional<String> grown = grown(id, bytes, index.count());
        ClipFacts.Rescue rescue = makings.rescue(id).orElse(null);
        // a clip is not seen as ready before it has its first take, which a listener gives it
        run.save(() -> Boolean.TRUE.equals(transaction.execute(status -> {
            ClipFacts facts = ClipFacts.of(info, index, rescue);
            String damage = both(both(grown.orElse(damage(facts, index)), slow(index)), large.orElse(null));
            boolean kept = repository.ready(id, run.attempt(), facts, index.count(), both(told.orElse(null), damage));
            if (kept) {
                publisher.publishEvent(new Clips.Ready(id));
            }
            return kept;
        })));
    }

    private static @Nullable String slow(FrameIndex index) {
        return index.isFromStartOnly()
                ? "frames of this file are right only when all before them are decoded too, so late ones take longer to show; "
                        + "a mended copy shows any at once"
                : null;
    }

    /** A recording that still goes on: what is read is whole, and worth working on, but not all. */
    private Optional<String> grown(UUID id, long before, int frames) throws IOException {
        return Files.size(clips.source(id)) > before
                ? Optional.of("the file grew while it was read: only its first " + frames
                        + " frames are here. When it is whole, take this clip off the shelf and link it again")
                : Optional.empty();
    }

    private void tell(UUID id, JobRun run, double share) {
        run.tell(() -> {
            repository.progress(id, share);
            clips.publish(id);
        });
    }

    private static @Nullable String both(@Nullable String one, @Nullable String other) {
        return one == null || other == null ? (one == null ? other : one) : one + "; " + other;
    }

    private static @Nullable String damage(ClipFacts facts, FrameIndex index) {
        int missing = facts.missing() == null ? 0 : facts.missing();
        int places = index.damaged().length;
        String early = missing == 0
                ? ""
                : "the file ends early: " + index.count() + " frames decode of about " + (index.count() + missing)
                        + " it promises";
        String damaged = places == 0
                ? ""
                : places + (places == 1 ? " damaged place was" : " damaged places were")
                        + " met while reading; frames there may be wrong";
        String both = early.isEmpty() || damaged.isEmpty() ? early + damaged : early + "; " + damaged;
        return both.isEmpty() ? null : both;
    }

    /** @return why there are none, if the pictures are too large for this machine */
    private Optional<String> thumbs(UUID id, Clip clip, Cancel cancel) throws IOException {
        long bytes = 2 * clip.format().floatBytes() + 2L * new RawLayout(clip.format()).frameBytes();
        try (var _ = machine.budget().takeBehind(bytes, cancel)) {
            drawThumbs(id, clip, cancel);
            return Optional.empty();
        } catch (Budget.Exceeded e) {
            return Optional.of("its pictures are too large for this machine to show: " + e.getMessage());
        }
    }

    private void drawThumbs(UUID id, Clip clip, Cancel cancel) throws IOException {
        Format source = clip.format();
        int height = Math.min(THUMB_HEIGHT, source.height());
        double aspect = source.displayAspect().toDouble();
        int width = (int) Math.clamp(Math.round(height * aspect / 2) * 2, 2, 1024);
        var small = source.withSize(width, Math.max(2, height & ~1), awlsmith.core.picture.Rational.ONE);
        var chain = new Chain(source, List.of(new EnlargeStage(source, small, Kernel.AREA)));
        for (int i = 0; i < THUMBS; i++) {
            long at = (long) (clip.index().orElseThrow().count() * (i + 0.5) / THUMBS);
            var work = machine.work(cancel);
            try (var stream = chain.open(clip, FrameRange.single(at), small.whole(), machine.planes(), work)) {
                Optional<Frame> frame = stream.next();
                if (frame.isPresent()) {
                    var picture = ScreenPicture.of(frame.get(), small.whole(), 1, machine.planes(), work);
                    Files.write(clips.thumb(id, i), Png.encode(picture));
                    frame.get().release(machine.planes());
                }
            }
        }
    }
}
