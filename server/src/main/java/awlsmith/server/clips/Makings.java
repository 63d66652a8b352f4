package awlsmith.server.clips;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.FrameIndex;
import awlsmith.media.Gatherer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.Repairer;
import awlsmith.media.Splicer;
import awlsmith.render.Machine;
import awlsmith.render.Mending;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.DoubleConsumer;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Makes the files of clips that did not arrive as one. */
@Component
class Makings {
    private static final int FRAMES_HELD = 14;

    private final MediaFolder media;
    private final Machine machine;
    private final JsonMapper json;
    private final AllowedFiles allowed;

    Makings(MediaFolder media, Machine machine, JsonMapper json, AllowedFiles allowed) {
        this.allowed = allowed;
        this.media = media;
        this.machine = machine;
        this.json = json;
    }

    private Path order(UUID clip) {
        return media.clip(clip).resolve("making.json");
    }

    /** Where a clip's file will lie. */
    Path made(UUID clip) {
        return media.clip(clip).resolve("source");
    }

    void order(UUID clip, Making making) throws IOException {
        Files.createDirectories(media.clip(clip));
        // the type is named so that the kind is written
        Files.writeString(order(clip), json.writerFor(Making.class).writeValueAsString(making));
    }

    private Making read(Path order) throws IOException {
        return json.readValue(Files.readString(order), Making.class);
    }

    /** Where pictures lie that were sent packed. */
    Path packed(UUID clip) {
        return media.clip(clip).resolve("pictures.tar");
    }

    /**
     * Makes what was ordered; nothing when nothing was, or it is there.
     *
     * @param progress hears shares of the whole, 0..1
     * @return what is to be told of the file that was made; empty when there is nothing to tell
     */
    Optional<String> make(UUID clip, DoubleConsumer progress, Cancel cancel) throws IOException {
        Path order = order(clip);
        if (!Files.exists(order)) {
            return Optional.empty();
        }
        Making making = read(order);
        Path out = made(clip);
        if (!Files.exists(out)) {
            Path growing = media.clip(clip).resolve("growing.mkv");
            switch (making) {
                case Making.Gathering gathering -> gather(clip, gathering, growing, progress, cancel);
                case Making.Joining joining -> join(clip, joining, growing, progress, cancel);
                case Making.Rebuilding rebuilding -> {
                    var rescue = rebuild(rebuilding, growing, progress, cancel);
                    Files.writeString(record(clip), json.writeValueAsString(rescue));
                }
            }
            Files.move(growing, out, StandardCopyOption.ATOMIC_MOVE);
        }
        return switch (read(order)) {
            case Making.Gathering gathering -> Optional.of(gathering.gaps()).filter(gaps -> !gaps.isEmpty());
            case Making.Joining joining -> Optional.ofNullable(joining.leftOut());
            case Making.Rebuilding rebuilding -> Optional.empty();
        };
    }

    /**
     * Copies what the pieces' frames were read as: the clips may be taken off the shelf before the joined one has been read.
     *
     * @return where the copies lie
     */
    List<String> keep(UUID clip, List<Path> indices) throws IOException {
        Files.createDirectories(media.clip(clip));
        var kept = new ArrayList<String>();
        for (Path index : indices) {
            Path copy = media.clip(clip).resolve("piece-" + kept.size());
            Files.copy(index, copy, StandardCopyOption.REPLACE_EXISTING);
            kept.add(copy.toString());
        }
        return kept;
    }

    private void join(UUID clip, Making.Joining order, Path out, DoubleConsumer progress, Cancel cancel)
            throws IOException {
        var pieces = new ArrayList<Splicer.Piece>();
        long bytes = 0;
        long frames = 0;
        for (int n = 0; n < order.sources().size(); n++) {
            Path source = Path.of(order.sources().get(n));
            if (!Files.exists(source)) {
                throw new MediaException("one of the clips that were to be joined is gone");
            }
            if (!media.holds(source)) {
                allowed.demand(source);
            }
            var piece = new Splicer.Piece(Prober.probe(source), index(order, n));
            pieces.add(piece);
            bytes += piece.info().bytes();
            frames += piece.index().count();
        }
        media.demandSpace(bytes);
        double all = Math.max(1, frames);
        Optional<String> leftOut =
                Splicer.join(pieces, media.clip(clip), out, done -> progress.accept(done / all), cancel);
        if (leftOut.isPresent()) {
            // kept before the file gets its name, so that it is told after a restart too
            order(clip, new Making.Joining(order.sources(), order.indices(), leftOut.get()));
        }
    }

    private static FrameIndex index(Making.Joining order, int number) throws IOException {
        return FrameIndex.load(Path.of(order.indices().get(number)));
    }

    /**
     * Holds what was read of a clip's file against what it was made of.
     *
     * @throws MediaException when it is not that
     */
    void prove(UUID clip, FrameIndex read) throws IOException {
        Path order = order(clip);
        if (Files.exists(order)
                && read(order) instanceof Making.Joining joining
                // where they are gone it was proved before a restart
                && joining.indices().stream().allMatch(index -> Files.exists(Path.of(index)))) {
            var pieces = new ArrayList<FrameIndex>();
            for (int n = 0; n < joining.indices().size(); n++) {
                pieces.add(index(joining, n));
            }
            Splicer.prove(pieces, read);
            for (String index : joining.indices()) {
                Files.deleteIfExists(Path.of(index));
            }
        }
    }

    private void gather(UUID clip, Making.Gathering order, Path out, DoubleConsumer progress, Cancel cancel)
            throws IOException {
        Path folder = media.clip(clip).resolve("pictures");
        Path packed = packed(clip);
        boolean isPacked = order.pictures().isEmpty();
        if (isPacked) {
            // unpacked, and once more gathered into one file
            media.demandSpace(2 * PackedPictures.bytes(packed));
        } else {
            order.pictures().forEach(picture -> allowed.demand(Path.of(picture)));
        }
        List<Path> pictures = isPacked
                ? PackedPictures.unpack(packed, PackedPictures.series(packed, "the series"), folder, cancel)
                : order.pictures().stream().map(Path::of).toList();
        long bytes = 0;
        for (Path picture : pictures) {
            bytes += Files.exists(picture) ? Files.size(picture) : 0;
        }
        media.demandSpace(bytes);
        Gatherer.gather(
                pictures,
                order.framesASecond(),
                media.clip(clip),
                out,
                done -> progress.accept((double) done / pictures.size()),
                cancel);
        if (isPacked) {
            MediaFolder.remove(folder);
            MediaFolder.remove(packed);
        }
    }

    private Path record(UUID clip) {
        return media.clip(clip).resolve("rescue.json");
    }

    /** What was done to make a clip's file from a damaged one, if that is what was done. */
    Optional<ClipFacts.Rescue> rescue(UUID clip) throws IOException {
        Path record = record(clip);
        return Files.exists(record)
                ? Optional.of(json.readValue(Files.readString(record), ClipFacts.Rescue.class))
                : Optional.empty();
    }

    private ClipFacts.Rescue rebuild(Making.Rebuilding order, Path out, DoubleConsumer progress, Cancel cancel)
            throws IOException {
        Path source = Path.of(order.source());
        if (!Files.exists(source)) {
            throw new MediaException("the damaged file is gone from its place");
        }
        if (!media.holds(source)) {
            allowed.demand(source);
        }
        if (order.fill()) {
            MediaInfo info = Prober.probe(source);
            // about half of the raw luma and chroma, as FFV1 packs them, and once more while sound is put to it
            media.demandSpace(
                    info.expectedFrames() * info.video().format().whole().area() * 3 / 2);
            long frame = info.video().format().floatBytes();
            // the frames around a hole, their motion, and both files' code values
            try (var _ = machine.budget().takeBehind(FRAMES_HELD * frame, cancel)) {
                var done = new Mending(source).make(out, machine, progress, cancel);
                return new ClipFacts.Rescue(true, done.made(), (int) done.missing());
            }
        }
        media.demandSpace(Files.size(source));
        Repairer.rebuild(source, out, cancel);
        return new ClipFacts.Rescue(false, List.of(), 0);
    }
}
