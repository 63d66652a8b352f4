package awlsmith.render;

import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.plan.Container;
import awlsmith.core.recipe.Sha256;
import awlsmith.media.FrameIndex;
import awlsmith.media.Joiner;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The finished pieces of one render on disk. A piece counts once it carries its final name and, beside it, a note of how large it is,
 * both safely on disk: after a power cut a file may have its name and nothing in it.
 */
final class SegmentFolder {
    private static final String MARK = "request.sha256";
    private static final String FORM = "nets";

    private final RenderRequest request;
    private final Path folder;

    private SegmentFolder(RenderRequest request, Path folder) {
        this.request = request;
        this.folder = folder;
    }

    /** As it is, whatever lies in it. */
    static SegmentFolder as(RenderRequest request) {
        return new SegmentFolder(request, request.scratch());
    }

    /** Pieces that belong to another request (another recipe, span, codec, source or engine) are thrown away. */
    SegmentFolder(RenderRequest request) throws IOException {
        this(request, request.scratch());
        Path mark = folder.resolve(MARK);
        String mine = fingerprint(request);
        if (!Files.exists(mark) || !Files.readString(mark).equals(mine)) {
            clear();
            Files.writeString(folder.resolve(FORM), request.form().name());
            Files.writeString(mark, mine);
        }
    }

    /** The form of nets that a render began with, whether or not this machine runs it. */
    static Optional<NetForm> formOf(Path folder) {
        Path file = folder.resolve(FORM);
        try {
            return Files.exists(file)
                    ? Optional.of(NetForm.valueOf(Files.readString(file).strip()))
                    : Optional.empty();
        } catch (IOException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** Pieces finished without a gap from the first on. */
    int finished() {
        int n = 0;
        while (isWhole(n)) {
            n++;
        }
        return n;
    }

    /**
     * Segments that lie beside each other.
     *
     * @param first number; @param end behind the last
     */
    record Run(int first, int end) {}

    /**
     * Those that are still to be made, wherever they lie.
     *
     * @param frames in all segments together
     */
    List<Run> missing(long frames) {
        return missing(List.of(this), frames, request.segmentFrames());
    }

    /** Those that are still to be made in any of several folders. */
    static List<Run> missing(List<SegmentFolder> folders, long frames, int each) {
        int count = count(frames, each);
        var runs = new ArrayList<Run>();
        int first = -1;
        for (int n = 0; n <= count; n++) {
            boolean isMissing = n < count && isMissing(folders, n);
            if (isMissing && first < 0) {
                first = n;
            } else if (!isMissing && first >= 0) {
                runs.add(new Run(first, n));
                first = -1;
            }
        }
        return runs;
    }

    /** How many segments so many frames come to. */
    static int count(long frames, int each) {
        return Math.toIntExact(Math.ceilDiv(frames, each));
    }

    /** Whether a segment is still to be made in any of several folders. */
    static boolean isMissing(List<SegmentFolder> folders, int number) {
        return !folders.stream().allMatch(folder -> folder.isWhole(number));
    }

    private boolean isWhole(int number) {
        try {
            long size = Files.size(file(number));
            return size > 0 && Files.readString(note(number)).equals(Long.toString(size));
        } catch (IOException e) {
            return false;
        }
    }

    /** Gives a finished part its final name, for good. */
    void keep(int number) throws IOException {
        Path part = partFile(number);
        sync(part);
        long size = Files.size(part);
        Files.move(part, file(number), StandardCopyOption.ATOMIC_MOVE);
        Files.writeString(note(number), Long.toString(size));
        sync(note(number));
        sync(folder);
    }

    private static void sync(Path path) throws IOException {
        try (var channel = FileChannel.open(path, StandardOpenOption.READ)) {
            channel.force(true);
        }
    }

    /** Where the description of one lies for whoever makes it elsewhere. */
    Path order(int number) {
        return folder.resolve("segment-%06d.json".formatted(number));
    }

    Path file(int number) {
        return folder.resolve("segment-%06d.%s".formatted(number, ending()));
    }

    private Path note(int number) {
        return folder.resolve("segment-%06d.bytes".formatted(number));
    }

    Path partFile(int number) {
        return folder.resolve("part-%06d.%s".formatted(number, ending()));
    }

    /** Pieces carry exact times: in MP4, where the codec may stand in it, else where clocks are as fine as wanted. */
    private String ending() {
        return request.parts().codec().containers().contains(Container.MP4) ? "mp4" : "nut";
    }

    List<Joiner.Segment> list(long frames) {
        var list = new ArrayList<Joiner.Segment>();
        long first = request.outputRange().from();
        for (long at = 0; at < frames; at += request.segmentFrames()) {
            long end = Math.min(frames, at + request.segmentFrames());
            list.add(new Joiner.Segment(file(list.size()), request.lasting(first + at, end - at)));
        }
        return list;
    }

    private void clear() throws IOException {
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                String name = file.getFileName().toString();
                if (name.startsWith("segment-") || name.startsWith("part-")) {
                    Files.delete(file);
                }
            }
        }
    }

    private static String fingerprint(RenderRequest request) {
        // no path: the same source elsewhere is the same source
        var source = request.clip().info();
        String all = Engine.PIXELS + "|" + source.bytes() + "|"
                + request.clip().index().map(FrameIndex::fingerprint).orElse(0L) + "|"
                + request.clip().format() + "|"
                + request.treatment().recipe().toTree() + "|" + request.range() + "|"
                + request.parts().codec().id()
                + request.parts().settings().given() + request.fileFormat() + "|"
                + request.segmentFrames() + "|" + request.form() + "|" + Models.fingerprint()
                + (request.isBurnt() ? "|with words" : "");
        return Sha256.hex(all);
    }
}
