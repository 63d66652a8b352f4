package awlsmith.footage;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Something to be measured on: the truth.
 *
 * @param frames luma 0..1, sides multiples of 24: halves, thirds and quarters of them are even, in order of time; one for a still picture
 */
public record Material(String name, List<Plane> frames) {
    private static final int SIDES = 24;

    /** Consecutive luma frames of a clip. */
    public static Material clip(String name, Path file, long from, int count) {
        var info = Prober.probe(file);
        var clip = new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
        var pool = new PlanePool(0);
        var frames = new ArrayList<Plane>();
        try (var stream =
                clip.open(new FrameRange(from, from + count), clip.format().whole(), pool, new Cancel())) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(cropped(frame.get().plane(0)));
            }
        }
        return new Material(name, frames);
    }

    public static Material still(String name, Path file) throws IOException {
        return new Material(name, List.of(cropped(Pictures.luma(file))));
    }

    public static Material of(String name, Plane picture) {
        return new Material(name, List.of(cropped(picture)));
    }

    public boolean moves() {
        return frames.size() > 1;
    }

    private static Plane cropped(Plane p) {
        int width = p.width() / SIDES * SIDES;
        int height = p.height() / SIDES * SIDES;
        return new Plane(p.window(new Region(0, 0, width, height)).packed(), 0, width, height, width);
    }
}
