package awlsmith.render;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.RecipeException;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** Segments made alone, each from its description, in whatever process and folder. */
public final class OneSegment {
    private OneSegment() {}

    /**
     * Writes the description of every segment of a render that is still to be made.
     *
     * @return the files written
     */
    public static List<Path> describe(RenderRequest request) throws IOException {
        Files.createDirectories(request.scratch());
        var segments = new SegmentFolder(request);
        var files = new java.util.ArrayList<Path>();
        for (SegmentFolder.Run run : segments.missing(request.outputRange().count())) {
            for (int n = run.first(); n < run.end(); n++) {
                Files.writeString(segments.order(n), SegmentOrder.of(request, n).toJson());
                files.add(segments.order(n));
            }
        }
        return files;
    }

    /**
     * Makes one segment.
     *
     * @param folder where it goes; a render of the same request with this folder for its parts finds it there
     * @throws MediaException with a sentence when the clip is another one, or it cannot be made
     */
    public static Path make(
            SegmentOrder order, Clip clip, Path folder, Machine machine, RenderWatch watch, Cancel cancel)
            throws IOException {
        Files.createDirectories(folder);
        RenderRequest request;
        try {
            request = new RenderRequest(
                    clip,
                    order.treatment(clip),
                    order.range(),
                    order.deliverable(),
                    folder.resolve("none." + order.deliverable().container().ending()),
                    folder,
                    order.segmentFrames(),
                    false);
        } catch (RecipeException e) {
            throw new MediaException(e.getMessage(), e);
        }
        FrameRange whole = request.outputRange();
        long from = whole.from() + (long) order.number() * order.segmentFrames();
        if (order.number() < 0 || from >= whole.end()) {
            throw new MediaException("the render has no segment " + order.number());
        }
        var plan = request.plan(machine);
        try (var _ = machine.budget().takeBehind(plan.memoryBytes(), cancel)) {
            return new Renderer(request, machine, watch, cancel)
                    .segment(order.number(), new FrameRange(from, Math.min(whole.end(), from + order.segmentFrames())));
        }
    }
}
