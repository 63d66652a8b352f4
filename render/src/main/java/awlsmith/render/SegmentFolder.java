package awlsmith.render;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.plan.Deliverable;
import awlsmith.media.Joiner;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;

/** The finished pieces of one render on disk. A piece counts once it carries its final name. */
final class SegmentFolder {
    private final RenderRequest request;
    private final Path folder;

    /** Pieces that belong to another request (another recipe, span or codec) are thrown away. */
    SegmentFolder(RenderRequest request) throws IOException {
        this.request = request;
        this.folder = request.scratch();
        Path mark = folder.resolve("request.sha256");
        String mine = fingerprint(request);
        if (!Files.exists(mark) || !Files.readString(mark).equals(mine)) {
            clear();
            Files.writeString(mark, mine);
        }
    }

    /** Pieces finished without a gap from the first on. */
    int finished() {
        int n = 0;
        while (Files.exists(file(n))) {
            n++;
        }
        return n;
    }

    Path file(int number) {
        return folder.resolve("segment-%06d.%s".formatted(number, ending()));
    }

    Path partFile(int number) {
        return folder.resolve("part-%06d.%s".formatted(number, ending()));
    }

    /** Pieces carry exact times, so each codec gets a container whose clock is fine enough. */
    private String ending() {
        return request.deliverable().codec() == Deliverable.Codec.FFV1 ? "nut" : "mp4";
    }

    List<Joiner.Segment> list(long frames) {
        var list = new ArrayList<Joiner.Segment>();
        Chain chain = request.chain();
        long first = request.outputRange().from();
        for (long at = 0; at < frames; at += request.segmentFrames()) {
            long end = Math.min(frames, at + request.segmentFrames());
            Rational seconds = request.outputTime(chain, first + end).minus(request.outputTime(chain, first + at));
            list.add(new Joiner.Segment(file(list.size()), seconds));
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
        String all = request.clip().info().file() + "|" + request.clip().info().bytes() + "|"
                + request.recipe().toTree() + "|" + request.range() + "|" + request.deliverable() + "|"
                + request.segmentFrames();
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(all.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
