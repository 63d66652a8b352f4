package awlsmith.server.clips;

import awlsmith.core.picture.Rational;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.Series;
import awlsmith.media.Splicer;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.db.enums.ClipOrigin;
import awlsmith.server.events.EventHub;
import awlsmith.server.problem.Refusal;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** The clips on the shelf: taking in, finding, renaming, removing. */
@Service
public class Clips {
    private static final double SLOWEST = 1;
    private static final double FASTEST = 240;
    private static final int GAPS_TOLD = 8;
    private static final Duration KEPT_ASIDE = Duration.ofDays(1);

    /** A clip was put on the shelf and must be read. */
    public record Added(UUID id) {}

    /** A clip has been read and can be worked on. */
    public record Ready(UUID id) {}

    /** A clip has been examined. */
    public record Examined(UUID id) {}

    /** A clip is about to go; what was made of it still can be told. */
    public record Removing(UUID id) {}

    /** A clip is gone, but for its folder. */
    public record Removed(UUID id) {}

    /** A clip is compared with another reference, or with none any more. */
    public record ReferenceChanged(UUID id) {}

    private static final int LONGEST_NAME = 200;
    private static final int COPY_BYTES = 1 << 18;
    /** Bytes of a file that arrives after which the disk is looked at again. */
    private static final long LOOK_EVERY = 16L << 20;

    private final ClipRepository clips;
    private final MediaFolder media;
    private final Makings makings;
    private final AllowedFiles allowed;
    private final EventHub events;
    private final ApplicationEventPublisher publisher;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final long largestUpload;
    private final Map<UUID, Clip> open = new ConcurrentHashMap<>();

    Clips(
            ClipRepository clips,
            MediaFolder media,
            Makings makings,
            AllowedFiles allowed,
            EventHub events,
            ApplicationEventPublisher publisher,
            TransactionTemplate transaction,
            Clock clock,
            AwlsmithProperties properties) {
        this.clips = clips;
        this.media = media;
        this.makings = makings;
        this.allowed = allowed;
        this.events = events;
        this.publisher = publisher;
        this.transaction = transaction;
        this.clock = clock;
        this.largestUpload = properties.largestUpload().toBytes();
    }

    public List<ClipView> all() {
        return clips.all();
    }

    public ClipView view(UUID id) {
        return clips.find(id).orElseThrow(() -> Refusal.unknown("this clip"));
    }

    /**
     * Takes in a file sent by a browser.
     *
     * @param name as it was called there; only shown, never used as a path
     * @param size announced by the sender, or -1
     */
    ClipView takeIn(String name, long size, InputStream body) {
        String shown = shown(name);
        if (size > largestUpload) {
            throw tooLarge(largestUpload);
        }
        var id = UUID.randomUUID();
        Path part = media.incoming(id);
        try (var _ = media.promise(
                Math.max(0, size), () -> Math.max(0, size - part.toFile().length()))) {
            long got = receive(body, part);
            if (size >= 0 && got != size) {
                throw new Refusal(
                        Refusal.Kind.INVALID,
                        "only " + got + " of " + size + " bytes of " + shown + " arrived; drop the file again");
            }
            return keep(id, shown, part);
        } catch (IOException e) {
            throw interrupted(e, shown);
        } finally {
            try {
                Files.deleteIfExists(part);
            } catch (IOException e) {
                // swept at the next start
            }
        }
    }

    /**
     * Takes in a file that has arrived whole; it is moved, not copied.
     *
     * @param name as it was called where it came from; only shown, never used as a path
     */
    public ClipView takeInFile(String name, Path file) {
        String shown = shown(name);
        try {
            return keep(UUID.randomUUID(), shown, file);
        } catch (IOException e) {
            throw interrupted(e, shown);
        }
    }

    private ClipView keep(UUID id, String shown, Path part) throws IOException {
        long bytes = Files.size(part);
        if (bytes == 0) {
            throw new Refusal(
                    Refusal.Kind.INVALID, shown + " is empty (0 bytes): the copy may have failed; drop it again");
        }
        try {
            // refuses what is no video before anything is kept
            Prober.probe(part);
        } catch (MediaException e) {
            throw new Refusal(Refusal.Kind.INVALID, shown + ": " + e.getMessage());
        }
        Path folder = media.clip(id);
        Files.createDirectories(folder);
        Path stored = folder.resolve("source");
        Files.move(part, stored, StandardCopyOption.ATOMIC_MOVE);
        add(id, shown, shown, stored, ClipOrigin.UPLOAD, bytes);
        return view(id);
    }

    private static RuntimeException interrupted(IOException e, String shown) {
        if (String.valueOf(e.getMessage()).contains("No space left")) {
            return new Refusal(Refusal.Kind.NO_SPACE, "the disk became full while " + shown + " was arriving");
        }
        return new Refusal(Refusal.Kind.INVALID, shown + " did not arrive whole; drop the file again");
    }

    private long receive(InputStream body, Path part) throws IOException {
        long got = 0;
        byte[] buffer = new byte[COPY_BYTES];
        try (var out = Files.newOutputStream(part)) {
            for (int n = body.read(buffer); n >= 0; n = body.read(buffer)) {
                got += n;
                if (got > largestUpload) {
                    throw tooLarge(largestUpload);
                }
                if (got / LOOK_EVERY != (got - n) / LOOK_EVERY) {
                    // its length was not announced, or somebody else fills the disk
                    media.demandSpace(0);
                }
                out.write(buffer, 0, n);
            }
        }
        return got;
    }

    public static Refusal tooLarge(long largestUpload) {
        return new Refusal(
                Refusal.Kind.TOO_LARGE,
                "the file is larger than " + largestUpload / 1_000_000_000 + " GB, the most that can be taken in here");
    }

    /** Puts a file of this machine on the shelf where it lies; it is only ever read. */
    public ClipView link(Path file) {
        String shown = shown(file.getFileName().toString());
        Optional<UUID> known = clips.byStored(file.toString());
        if (known.isPresent() && clips.isAside(known.get())) {
            return takeBack(known.get());
        }
        if (known.isPresent()) {
            throw new Refusal(Refusal.Kind.CONFLICT, shown + " is on the shelf already");
        }
        try {
            Prober.probe(file);
            var id = UUID.randomUUID();
            add(id, shown, shown, file.toString(), ClipOrigin.LINK, Files.size(file));
            return view(id);
        } catch (MediaException e) {
            throw new Refusal(Refusal.Kind.INVALID, shown + ": " + e.getMessage());
        } catch (IOException e) {
            throw new Refusal(Refusal.Kind.CONFLICT, shown + " cannot be read; it may just have been moved");
        }
    }

    /**
     * Puts a demo clip on the shelf, once.
     *
     * @param truth the clean file it was made from
     */
    public void addDemo(String title, Path file, Path truth) throws IOException {
        if (!clips.isStored(media.nameOf(file))) {
            var id = UUID.randomUUID();
            add(id, title, file.getFileName().toString(), file, ClipOrigin.DEMO, Files.size(file));
            clips.refer(id, media.nameOf(truth));
            publish(id);
        }
    }

    /** @param other the clip whose file shows the same scene clean, frame for frame; null for none */
    ClipView refer(UUID id, @Nullable UUID other) {
        view(id);
        if (id.equals(other)) {
            throw new Refusal(Refusal.Kind.INVALID, "a clip cannot be its own reference; choose another clip");
        }
        if (other != null && view(other).state() != ClipView.State.READY) {
            throw new Refusal(Refusal.Kind.CONFLICT, "the reference is not ready yet; wait until its facts are shown");
        }
        return referTo(id, other == null ? null : clips.stored(other).orElseThrow(() -> Refusal.unknown("this clip")));
    }

    /** Takes up the reference that a clip had last. */
    ClipView referAgain(UUID id) {
        view(id);
        return referTo(
                id,
                clips.knownReference(id)
                        .orElseThrow(() -> new Refusal(
                                Refusal.Kind.CONFLICT, "this clip never had a reference; choose another clip")));
    }

    private ClipView referTo(UUID id, @Nullable String stored) {
        clips.refer(id, stored);
        try {
            Files.deleteIfExists(referenceIndex(id));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        publisher.publishEvent(new ReferenceChanged(id));
        publish(id);
        return view(id);
    }

    /** The clean file of the same scene, if one is known. */
    public Optional<Path> reference(UUID id) {
        return clips.reference(id).map(name -> name.startsWith("/") ? Path.of(name) : media.stored(name));
    }

    /** Where the frame index of the reference is kept. */
    public Path referenceIndex(UUID id) {
        return media.clip(id).resolve("reference-frames");
    }

    private void add(UUID id, String title, String fileName, Path stored, ClipOrigin origin, long bytes) {
        add(id, title, fileName, media.nameOf(stored), origin, bytes);
    }

    private void add(UUID id, String title, String fileName, String stored, ClipOrigin origin, long bytes) {
        transaction.executeWithoutResult(status -> {
            clips.insert(id, title, fileName, stored, origin, bytes, clock.instant());
            publisher.publishEvent(new Added(id));
        });
        publish(id);
    }

    /**
     * Rebuilds a damaged clip's file and puts the copy on the shelf as a clip of its own. The source stays as it is.
     *
     * @param fill whether everything is decoded, lost frames are made up and sound is kept in step
     */
    ClipView repair(UUID id, boolean fill) {
        ClipView damaged = view(id);
        String title = shown(damaged.title() + (fill ? " mended" : " repaired"));
        return made(title, damaged.fileName(), new Making.Rebuilding(source(id).toString(), fill));
    }

    /**
     * Puts clips one behind another as they are, as a clip of its own. They stay.
     *
     * @param title of the new one; null for that of the first
     */
    ClipView join(List<UUID> ids, @Nullable String title) {
        if (ids.size() < 2 || ids.size() > Splicer.MOST) {
            throw new Refusal(
                    Refusal.Kind.INVALID, "two clips at least and " + Splicer.MOST + " at most can be joined");
        }
        var infos = new ArrayList<MediaInfo>();
        for (UUID id : ids) {
            ClipView view = view(id);
            if (view.state() != ClipView.State.READY) {
                throw new Refusal(
                        Refusal.Kind.CONFLICT, view.title() + " is not ready yet; wait until its facts are shown");
            }
            infos.add(Prober.probe(source(id)).at(Path.of(view.title())));
        }
        Splicer.apart(infos).ifPresent(why -> {
            throw new Refusal(Refusal.Kind.INVALID, why);
        });
        ClipView first = view(ids.getFirst());
        String name = shown(title == null || title.isBlank() ? first.title() + " joined" : title);
        UUID joined = UUID.randomUUID();
        try {
            List<String> sources = ids.stream().map(id -> source(id).toString()).toList();
            List<Path> read = ids.stream().map(this::index).toList();
            return made(joined, name, name, new Making.Joining(sources, makings.keep(joined, read), null));
        } catch (IOException e) {
            throw interrupted(e, name);
        }
    }

    /** Puts a series of pictures that arrived packed on the shelf as one clip. */
    public ClipView takeInPictures(String name, String rate, Path archive) {
        Series series = PackedPictures.series(archive, shown(name));
        var making = new Making.Gathering(List.of(), rate(rate), gaps(series));
        var id = UUID.randomUUID();
        try {
            Files.createDirectories(media.clip(id));
            Files.move(archive, makings.packed(id), StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw interrupted(e, shown(name));
        }
        return made(id, shown(series.title()), shown(series.title()), making);
    }

    /** Gathers a series of pictures of this machine; they are only read. */
    public ClipView gather(Path folder, Series series, String rate) {
        List<String> pictures = series.pictures().stream()
                .map(picture -> folder.resolve(picture.file()).toString())
                .toList();
        String title = shown(series.title());
        return made(title, title, new Making.Gathering(pictures, rate(rate), gaps(series)));
    }

    private ClipView made(String title, String fileName, Making making) {
        return made(UUID.randomUUID(), title, fileName, making);
    }

    private ClipView made(UUID id, String title, String fileName, Making making) {
        try {
            makings.order(id, making);
        } catch (IOException e) {
            throw interrupted(e, title);
        }
        add(id, title, fileName, makings.made(id), ClipOrigin.UPLOAD, 0);
        return view(id);
    }

    private static String rate(String text) {
        try {
            Rational rate = Rational.parse(text);
            if (rate.toDouble() >= SLOWEST && rate.toDouble() <= FASTEST) {
                return rate.toString();
            }
        } catch (IllegalArgumentException e) {
            // told below
        }
        throw new Refusal(
                Refusal.Kind.INVALID, "'" + shown(text) + "' is no rate; write 25, or 24000/1001, from 1 to 240");
    }

    /** Numbers that are missing, in a sentence; empty when none is. */
    private static String gaps(Series series) {
        List<Integer> missing = series.missing();
        if (missing.isEmpty()) {
            return "";
        }
        String some = missing.stream().limit(GAPS_TOLD).map(String::valueOf).collect(Collectors.joining(", "));
        return (missing.size() == 1 ? "1 picture is" : missing.size() + " pictures are")
                + " missing from the numbering (" + some + (missing.size() > GAPS_TOLD ? ", ..." : "")
                + "); those around follow each other";
    }

    ClipView rename(UUID id, String title) {
        String clean = shown(title);
        if (!clips.rename(id, clean)) {
            throw Refusal.unknown("this clip");
        }
        publish(id);
        return view(id);
    }

    /** Those that were put aside and can be taken back. */
    List<ClipView> aside() {
        return clips.aside();
    }

    /** Takes a clip off the shelf; for a day it can be taken back with all that was made of it. */
    void putAside(UUID id) {
        view(id);
        clips.putAside(id, clock.instant());
        events.publish("clip-removed", Map.of("id", id));
    }

    ClipView takeBack(UUID id) {
        view(id);
        clips.putAside(id, null);
        publish(id);
        return view(id);
    }

    @Scheduled(fixedDelay = 10 * 60 * 1000)
    void forgetAside() {
        clips.asideSince(clock.instant().minus(KEPT_ASIDE)).forEach(this::remove);
    }

    void remove(UUID id) {
        view(id);
        publisher.publishEvent(new Removing(id));
        open.remove(id);
        clips.delete(id);
        publisher.publishEvent(new Removed(id));
        MediaFolder.remove(media.clip(id));
        events.publish("clip-removed", Map.of("id", id));
    }

    /** Tells every page how a clip stands now. */
    public void publish(UUID id) {
        if (!clips.isAside(id)) {
            clips.find(id).ifPresent(view -> events.publish("clip", view));
        }
    }

    /** A clip that can be pulled from; only once it has been read. */
    public Clip open(UUID id) {
        Clip known = open.get(id);
        if (known != null && Files.exists(known.info().file())) {
            if (!media.holds(known.info().file())) {
                allowed.demand(known.info().file());
            }
            return known;
        }
        ClipView view = view(id);
        if (view.state() == ClipView.State.READY && !Files.exists(source(id))) {
            open.remove(id);
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    view.linked()
                            ? "the linked file is gone from its place; put it back there, or link it anew"
                            : "the clip's file is gone from the media folder; take it in again");
        }
        return open.computeIfAbsent(id, this::load);
    }

    private Clip load(UUID id) {
        ClipView view = view(id);
        if (view.state() != ClipView.State.READY) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    view.state() == ClipView.State.READING
                            ? "the clip is still being read; wait until its facts are shown"
                            : "the clip cannot be worked on: " + view.problem());
        }
        try {
            MediaInfo info = Prober.probe(source(id));
            return new Clip(info, Optional.of(FrameIndex.load(index(id))));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    Path source(UUID id) {
        String stored = clips.stored(id).orElseThrow(() -> Refusal.unknown("this clip"));
        if (!view(id).linked()) {
            return media.stored(stored);
        }
        Path file = Path.of(stored);
        allowed.demand(file);
        return file;
    }

    public Path index(UUID id) {
        return media.clip(id).resolve("frames");
    }

    Path thumb(UUID id, int number) {
        return media.clip(id).resolve("thumb-" + number + ".png");
    }

    /** A name fit to be shown: no control characters, not endless, never empty. */
    static String shown(String name) {
        String clean = name.replaceAll("\\p{Cntrl}+", " ").strip();
        int cut = Math.max(clean.lastIndexOf('/'), clean.lastIndexOf('\\'));
        clean = clean.substring(cut + 1).strip();
        if (clean.isEmpty() || clean.equals("..") || clean.equals(".")) {
            return "unnamed";
        }
        return clean.length() > LONGEST_NAME ? clean.substring(0, LONGEST_NAME - 1) + "…" : clean;
    }
}
