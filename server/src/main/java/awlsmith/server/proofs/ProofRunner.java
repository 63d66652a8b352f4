package awlsmith.server.proofs;

import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Recipe;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.ProofEncoding;
import awlsmith.render.Comparison;
import awlsmith.render.Machine;
import awlsmith.render.Proof;
import awlsmith.render.RenderWatch;
import awlsmith.render.TwoProofs;
import awlsmith.server.clips.Clips;
import awlsmith.server.db.enums.ProofState;
import awlsmith.server.events.EventHub;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javax.imageio.ImageIO;
import org.jooq.exception.DataAccessException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Makes the proofs that wait, one after another. Stills come before them, and they before renders. */
@Component
class ProofRunner {
    private static final Logger LOG = LoggerFactory.getLogger(ProofRunner.class);
    private static final long TELL_EVERY_NANOS = 300_000_000L;

    private final ProofRepository proofs;
    private final Clips clips;
    private final Stills stills;
    private final Machine machine;
    private final MediaFolder media;
    private final EventHub events;
    private final ScheduledExecutorService worker = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().name("proofs").daemon().factory());
    /** Comparisons made or being made since the server started. */
    private final Map<UUID, ProofView.ComparisonView> comparisons = new ConcurrentHashMap<>();

    private volatile Running running;
    private volatile boolean closing;

    private record Running(UUID id, Cancel cancel, int done, double perSecond) {}

    ProofRunner(
            ProofRepository proofs, Clips clips, Stills stills, Machine machine, MediaFolder media, EventHub events) {
        this.proofs = proofs;
        this.clips = clips;
        this.stills = stills;
        this.machine = machine;
        this.media = media;
        this.events = events;
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        proofs.requeueRunning();
        worker.execute(this::resumeComparisons);
        // also looked for now and then, for those that were waiting while the database was away
        worker.scheduleWithFixedDelay(this::runWaiting, 0, 10, TimeUnit.SECONDS);
    }

    void wake() {
        worker.execute(this::runWaiting);
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        closing = true;
        Running now = running;
        if (now != null) {
            now.cancel().ask();
        }
        worker.shutdown();
    }

    private Path file(UUID clip, UUID proof) {
        return media.clip(clip).resolve("proofs").resolve(proof + ".mp4");
    }

    Path file(ProofView proof) {
        return file(proof.clipId(), proof.id());
    }

    /** @param look wipe or pair */
    Path comparisonFile(ProofView proof, String look) {
        return media.clip(proof.clipId()).resolve("proofs").resolve(proof.id() + "-" + look + ".mp4");
    }

    /** The captions of a comparison that is to be made, beside where it will lie: so it is known after a restart. */
    private Path askedFile(ProofView proof, Comparison.Look look) {
        return media.clip(proof.clipId()).resolve("proofs").resolve(proof.id() + "-" + word(look) + ".asked");
    }

    private static String word(Comparison.Look look) {
        return look.name().toLowerCase(Locale.ROOT);
    }

    void compare(ProofView proof, Comparison.Look look, byte @Nullable [] captions) throws IOException {
        byte[] strip = captions == null ? new byte[0] : captions;
        Files.write(askedFile(proof, look), strip);
        tell(proof, look, 0, false, null);
        worker.execute(() -> runComparison(proof, look, strip));
    }

    /** Goes on with comparisons that a closing or killed server left. */
    private void resumeComparisons() {
        for (ProofView proof : proofs.all()) {
            for (Comparison.Look look : Comparison.Look.values()) {
                Path asked = askedFile(proof, look);
                if (Files.exists(asked)) {
                    try {
                        compare(proof, look, Files.readAllBytes(asked));
                    } catch (IOException e) {
                        LOG.warn("a comparison that was asked for cannot be read: {}", e.getMessage());
                    }
                }
            }
        }
    }

    /** One that was made before the server started. */
    private ProofView.@Nullable ComparisonView made(ProofView proof) {
        for (Comparison.Look look : Comparison.Look.values()) {
            if (Files.exists(comparisonFile(proof, word(look)))) {
                return new ProofView.ComparisonView(word(look), proof.framesDone(), true, null);
            }
        }
        return null;
    }

    private void tell(ProofView proof, Comparison.Look look, int done, boolean ready, @Nullable String problem) {
        comparisons.put(proof.id(), new ProofView.ComparisonView(word(look), done, ready, problem));
        publish(proof.id());
    }

    private void runComparison(ProofView proof, Comparison.Look look, byte[] captions) {
        if (closing || !comparisons.containsKey(proof.id())) {
            // given up while it waited for its turn
            return;
        }
        var cancel = new Cancel();
        running = new Running(proof.id(), cancel, proof.framesDone(), 0);
        Path growing = comparisonFile(proof, word(look) + ".growing");
        try {
            BufferedImage strip = captions.length == 0 ? null : ImageIO.read(new ByteArrayInputStream(captions));
            Clip clip = opened(file(proof), cancel);
            stills.urgent(() -> {
                new Comparison(clip, look, strip)
                        .make(
                                growing,
                                proof.framesDone(),
                                rate(proof),
                                proof.sound(),
                                machine,
                                new ComparisonWatch(proof, look, cancel),
                                cancel);
                return null;
            });
            Files.move(growing, comparisonFile(proof, word(look)), StandardCopyOption.REPLACE_EXISTING);
            tell(proof, look, proof.framesDone(), true, null);
        } catch (Cancel.Stopped e) {
            comparisons.remove(proof.id());
        } catch (MediaException e) {
            tell(proof, look, 0, false, e.getMessage());
        } catch (OutOfMemoryError e) {
            tell(proof, look, 0, false, "too little memory for pictures of this size");
        } catch (IOException | RuntimeException e) {
            LOG.error("a comparison failed", e);
            tell(proof, look, 0, false, "the comparison could not be made; the log says what. Try it again");
        } finally {
            running = null;
            MediaFolder.remove(growing);
            if (!closing) {
                MediaFolder.remove(askedFile(proof, look));
            }
            publish(proof.id());
        }
    }

    private Rational rate(ProofView proof) {
        Clip clip = clips.open(proof.clipId());
        return Rational.of(proof.frames()).dividedBy(clip.time(proof.endFrame()).minus(clip.time(proof.fromFrame())));
    }

    /** Stops what is made of a proof: itself, or its comparison, which also gives up its turn. */
    void stop(UUID id) {
        Running now = running;
        if (now != null && now.id().equals(id)) {
            now.cancel().ask();
            return;
        }
        ProofView.ComparisonView waiting = comparisons.get(id);
        if (waiting != null && !waiting.ready()) {
            comparisons.remove(id);
            proofs.find(id).ifPresent(this::forgetAsked);
            publish(id);
        }
    }

    private void forgetAsked(ProofView proof) {
        for (Comparison.Look look : Comparison.Look.values()) {
            MediaFolder.remove(askedFile(proof, look));
        }
    }

    /** Forgets what was made of a proof that is thrown away. */
    void forget(ProofView proof) {
        comparisons.remove(proof.id());
        forgetAsked(proof);
        for (Comparison.Look look : Comparison.Look.values()) {
            MediaFolder.remove(comparisonFile(proof, word(look)));
            MediaFolder.remove(comparisonFile(proof, word(look) + ".growing"));
        }
    }

    /** Waits until a stopped one is out of work. */
    void await(UUID id) {
        Running now = running;
        while (now != null && now.id().equals(id)) {
            LockSupport.parkNanos(5_000_000);
            now = running;
        }
    }

    ProofView withFigures(ProofView view) {
        Running now = running;
        ProofView.ComparisonView comparison = comparisons.get(view.id());
        ProofView with = view.with(comparison == null ? made(view) : comparison);
        return now != null && now.id().equals(view.id()) && view.isOpen()
                ? with.with(now.done(), now.perSecond())
                : with;
    }

    void publish(UUID id) {
        try {
            proofs.find(id).map(this::withFigures).ifPresent(view -> events.publish("proof", view));
        } catch (DataAccessException | org.springframework.dao.DataAccessException e) {
            // pages read the list again when they are connected anew
        }
    }

    private void runWaiting() {
        try {
            Optional<ProofView> next = proofs.nextWaiting();
            while (!closing && next.isPresent()) {
                run(next.get());
                next = proofs.nextWaiting();
            }
        } catch (DataAccessException | org.springframework.dao.DataAccessException e) {
            LOG.warn("the database does not answer; proofs wait");
        }
    }

    private void run(ProofView proof) {
        var cancel = new Cancel();
        running = new Running(proof.id(), cancel, 0, 0);
        try {
            if (!proofs.start(proof.id())) {
                return;
            }
            publish(proof.id());
            stills.urgent(() -> make(proof, cancel));
        } catch (Cancel.Stopped e) {
            if (!closing) {
                proofs.end(proof.id(), ProofState.STOPPED, 0, null);
            }
        } catch (MediaException | Refusal e) {
            proofs.end(proof.id(), ProofState.FAILED, 0, e.getMessage());
        } catch (OutOfMemoryError e) {
            proofs.end(
                    proof.id(),
                    ProofState.FAILED,
                    0,
                    "too little memory for pictures of this size; zoom in, or choose a smaller size");
        } catch (RuntimeException | IOException e) {
            LOG.error("a proof failed", e);
            proofs.end(
                    proof.id(),
                    ProofState.FAILED,
                    0,
                    "the proof could not be made because of a fault inside Awlsmith; the log says what. Try it again");
        } finally {
            running = null;
            publish(proof.id());
        }
    }

    private Void make(ProofView view, Cancel cancel) throws IOException {
        long done = view.against() == null ? proved(view, cancel) : paired(view, view.against(), cancel);
        if (!closing) {
            proofs.end(view.id(), done < view.frames() ? ProofState.STOPPED : ProofState.DONE, (int) done, null);
        }
        return null;
    }

    private long paired(ProofView view, ProofView.BesideView against, Cancel cancel) {
        var both = new TwoProofs(
                opened(view.clipId(), against.proof(), cancel), opened(view.clipId(), against.treated(), cancel));
        return both.make(file(view), view.frames(), rate(view), view.sound(), machine, new Watch(view, cancel), cancel);
    }

    private Clip opened(UUID clip, UUID proof, Cancel cancel) {
        Path file = file(clip, proof);
        if (!Files.exists(file)) {
            throw new MediaException("one of the two proofs was thrown away; prove again");
        }
        return opened(file, cancel);
    }

    private static Clip opened(Path file, Cancel cancel) {
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, cancel)));
    }

    private long proved(ProofView view, Cancel cancel) throws IOException {
        Clip clip = clips.open(view.clipId());
        var proof = new Proof(
                clip,
                Recipe.fromTree(view.recipe()),
                new Region(view.x(), view.y(), view.width(), view.height()),
                new FrameRange(view.fromFrame(), view.endFrame()));
        Path file = file(view);
        Files.createDirectories(file.getParent());
        Rational start = clip.time(view.fromFrame());
        Rational length = clip.time(view.endFrame()).minus(start);
        // sound counts from the file's clock, which need not begin at 0
        Rational clock = clip.index().orElseThrow().clock(view.fromFrame());
        Optional<ProofEncoding.Sound> sound = view.sound()
                ? Optional.of(new ProofEncoding.Sound(clip.info().file(), clock, length))
                : Optional.empty();
        return proof.make(file, rate(view), sound, machine, new Watch(view, cancel), cancel);
    }

    private final class ComparisonWatch implements RenderWatch {
        private final ProofView proof;
        private final Comparison.Look look;
        private final Cancel cancel;
        private long told;

        ComparisonWatch(ProofView proof, Comparison.Look look, Cancel cancel) {
            this.proof = proof;
            this.look = look;
            this.cancel = cancel;
        }

        @Override
        public void giveWay() {
            stills.awaitLooking(cancel);
        }

        @Override
        public void frames(long done, Shares shares) {
            long now = System.nanoTime();
            if (now - told > TELL_EVERY_NANOS) {
                told = now;
                tell(proof, look, (int) done, false, null);
            }
        }
    }

    private final class Watch implements RenderWatch {
        private final ProofView proof;
        private final Cancel cancel;
        private final long start = System.nanoTime();
        private long told;

        Watch(ProofView proof, Cancel cancel) {
            this.proof = proof;
            this.cancel = cancel;
        }

        @Override
        public void giveWay() {
            stills.awaitLooking(cancel);
        }

        @Override
        public void frames(long done, Shares shares) {
            long now = System.nanoTime();
            running = new Running(proof.id(), cancel, (int) done, done / Math.max(1e-3, (now - start) / 1e9));
            if (now - told > TELL_EVERY_NANOS) {
                told = now;
                publish(proof.id());
            }
        }
    }
}
