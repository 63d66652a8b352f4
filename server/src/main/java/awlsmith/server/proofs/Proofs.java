package awlsmith.server.proofs;

import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Recipe;
import awlsmith.media.Clip;
import awlsmith.render.Comparison;
import awlsmith.render.Proof;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.problem.Refusal;
import awlsmith.server.storage.MediaFolder;
import awlsmith.server.treatments.Treatments;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.MemoryCacheImageInputStream;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Proofs: asked for, stopped, played, thrown away. */
@Service
class Proofs {
    /** A page keeps a proof in memory to play it in a loop. */
    private static final double LONGEST_SECONDS = 20;

    private static final int MOST_PROOFS = 60;
    private static final int LARGEST_CAPTIONS = 2 << 20;
    private static final int HIGHEST_STRIP = 200;
    private static final int MOST_WIDTH = 1920;
    private static final int MOST_HEIGHT = 1080;

    private final ProofRepository proofs;
    private final ProofRunner runner;
    private final Comparisons comparisons;
    private final ProofFiles files;
    private final Clips clips;
    private final Treatments treatments;
    private final MediaFolder media;
    private final EventHub events;
    private final Clock clock;

    Proofs(
            ProofRepository proofs,
            ProofRunner runner,
            Comparisons comparisons,
            ProofFiles files,
            Clips clips,
            Treatments treatments,
            MediaFolder media,
            EventHub events,
            Clock clock) {
        this.proofs = proofs;
        this.runner = runner;
        this.comparisons = comparisons;
        this.files = files;
        this.clips = clips;
        this.treatments = treatments;
        this.media = media;
        this.events = events;
        this.clock = clock;
    }

    List<ProofView> of(UUID clip) {
        clips.view(clip);
        return proofs.of(clip).stream().map(runner::withFigures).toList();
    }

    ProofView view(UUID id) {
        return proofs.find(id).map(runner::withFigures).orElseThrow(() -> Refusal.unknown("this proof"));
    }

    /**
     * @param take it belongs to, by id and name
     * @param from first source frame; @param end behind the last
     * @param part of the treated picture; its middle is taken where it is larger than a screen
     */
    ProofView order(UUID clipId, @Nullable UUID take, String takeName, Recipe recipe, int from, int end, Region part) {
        Clip clip = clips.open(clipId);
        int count = clip.index().orElseThrow().count();
        if (from < 0 || end > count || end <= from) {
            throw new Refusal(
                    Refusal.Kind.INVALID, "the span from frame " + from + " to " + end + " holds nothing of this clip");
        }
        double seconds = clip.time(end).minus(clip.time(from)).toDouble();
        if (seconds > LONGEST_SECONDS) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    String.format(
                            java.util.Locale.ROOT,
                            "a proof is at most %.0f s long, this span has %.1f s; mark a shorter one, or dispatch it",
                            LONGEST_SECONDS,
                            seconds));
        }
        demandRoom(clipId);
        int width = Math.min(MOST_WIDTH, part.width());
        int height = Math.min(MOST_HEIGHT, part.height());
        Region middle = new Region(
                Math.max(0, part.x() + (part.width() - width) / 2),
                Math.max(0, part.y() + (part.height() - height) / 2),
                width,
                height);
        var proof = new Proof(clip, treatments.of(clipId, clip, recipe), middle, new FrameRange(from, end));
        media.demandSpace(proof.frames() * proof.part().area());
        var view = new ProofView(
                UUID.randomUUID(),
                clipId,
                take,
                takeName.length() > 60 ? takeName.substring(0, 60) : takeName,
                recipe.toTree(),
                from,
                end,
                proof.part().x(),
                proof.part().y(),
                proof.part().width(),
                proof.part().height(),
                ProofView.State.WAITING,
                (int) proof.frames(),
                0,
                proof.frames() * proof.speed().toDouble() / seconds,
                !clip.info().sounds().isEmpty(),
                null,
                null,
                null,
                null,
                null,
                clock.instant());
        return begin(view);
    }

    private void demandRoom(UUID clipId) {
        if (of(clipId).size() >= MOST_PROOFS) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "this clip has " + MOST_PROOFS + " proofs, which is the most; throw some away first");
        }
    }

    private ProofView begin(ProofView view) {
        proofs.insert(view);
        events.publish("proof", view);
        runner.want(view.id());
        return view;
    }

    /** Makes a proof of two: the treated picture of the other takes the place of the source beside that of the first. */
    ProofView against(UUID id, UUID otherId) {
        ProofView one = view(id);
        ProofView other = view(otherId);
        demandSame(one, other);
        Optional<ProofView> known = of(one.clipId()).stream()
                .filter(made -> made.against() != null
                        && made.against().treated().equals(id)
                        && made.against().proof().equals(otherId)
                        && made.state() == ProofView.State.DONE)
                .findFirst();
        if (known.isPresent()) {
            return known.get();
        }
        demandRoom(one.clipId());
        int both = Math.min(one.framesDone(), other.framesDone());
        // stopped ones end early: behind the last whole source frame that both hold, so that the rate stays
        int span = one.endFrame() - one.fromFrame();
        int sources = Math.max(1, (int) ((long) span * both / one.frames()));
        int frames = Math.min(both, Math.round((float) sources * one.frames() / span));
        int end = one.fromFrame() + sources;
        media.demandSpace((long) frames * one.width() * one.height());
        return begin(new ProofView(
                UUID.randomUUID(),
                one.clipId(),
                one.takeId(),
                one.takeName(),
                one.recipe(),
                one.fromFrame(),
                end,
                one.x(),
                one.y(),
                one.width(),
                one.height(),
                ProofView.State.WAITING,
                frames,
                0,
                one.rate(),
                one.sound(),
                null,
                new ProofView.BesideView(id, otherId, other.takeName(), other.recipe()),
                null,
                null,
                null,
                clock.instant()));
    }

    private void demandSame(ProofView one, ProofView other) {
        if (one.isOpen() || other.isOpen() || one.framesDone() == 0 || other.framesDone() == 0) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT, "both proofs must be made first; wait for their end, or stop them");
        }
        if (one.against() != null || other.against() != null || one.id().equals(other.id())) {
            throw new Refusal(Refusal.Kind.INVALID, "choose two proofs that each show source and treated");
        }
        boolean place = one.x() == other.x()
                && one.y() == other.y()
                && one.width() == other.width()
                && one.height() == other.height();
        boolean time = one.fromFrame() == other.fromFrame() && Math.abs(one.rate() - other.rate()) < 1e-6;
        if (!one.clipId().equals(other.clipId()) || !place || !time) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "the two proofs show different places, moments or rates; choose one and prove its place with the"
                            + " other take");
        }
        var first = treatments.of(one.clipId(), Recipe.fromTree(one.recipe())).output();
        var second =
                treatments.of(one.clipId(), Recipe.fromTree(other.recipe())).output();
        if (first.width() != second.width() || first.height() != second.height()) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "the two takes have different sizes, " + first.width() + "x" + first.height() + " and "
                            + second.width() + "x" + second.height() + "; only equal ones lie on each other");
        }
    }

    /** Stops one that waits or is being made; what was made stays. */
    ProofView stop(UUID id) {
        ProofView now = view(id);
        if (now.state() == ProofView.State.WAITING) {
            proofs.stop(id);
            runner.publish(id);
        }
        runner.stop(id);
        if (!now.isOpen()) {
            comparisons.stop(now);
            runner.publish(id);
        }
        return view(id);
    }

    /**
     * Makes a moving comparison of a proof, in the background as proofs are.
     *
     * @param captions a PNG strip as wide as the comparison; none for no strip
     */
    ProofView compare(UUID id, Comparison.Look look, byte @Nullable [] captions) {
        ProofView proof = view(id);
        if (proof.isOpen() || proof.framesDone() == 0) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    proof.isOpen()
                            ? "the proof is still being made; wait for its end, or stop it"
                            : "the proof is empty");
        }
        if (captions != null && captions.length > LARGEST_CAPTIONS) {
            throw new Refusal(Refusal.Kind.TOO_LARGE, "the strip of captions is too large");
        }
        if (captions != null && !isStrip(captions, Comparison.width(look, proof.width()))) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "the captions must be a PNG as wide as the comparison and at most " + HIGHEST_STRIP
                            + " pixels high");
        }
        try {
            comparisons.want(proof, look, captions);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return view(id);
    }

    /** Read from its header alone: what it claims to be must not fill the memory. */
    private static boolean isStrip(byte[] png, int width) {
        var readers = ImageIO.getImageReadersByFormatName("png");
        ImageReader reader = readers.next();
        try (var in = new MemoryCacheImageInputStream(new ByteArrayInputStream(png))) {
            reader.setInput(in);
            return reader.getWidth(0) == width && reader.getHeight(0) <= HIGHEST_STRIP;
        } catch (IOException e) {
            return false;
        } finally {
            reader.dispose();
        }
    }

    Path comparison(UUID id) {
        ProofView proof = view(id);
        ProofView.ComparisonView made = proof.comparison();
        if (made == null || !made.ready()) {
            throw new Refusal(Refusal.Kind.CONFLICT, "there is no finished comparison of this proof; make it first");
        }
        return files.comparison(proof, made.look());
    }

    void remove(UUID id) {
        ProofView proof = view(id);
        stop(id);
        runner.await(id);
        comparisons.forget(proof);
        proofs.delete(id);
        MediaFolder.remove(file(proof));
        events.publish("proof-removed", Map.of("id", id, "clipId", proof.clipId()));
    }

    Path file(ProofView proof) {
        return files.of(proof);
    }

    @EventListener
    void clipRemoved(Clips.Removing event) {
        proofs.of(event.id()).forEach(proof -> remove(proof.id()));
    }
}
