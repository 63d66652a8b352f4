package awlsmith.render;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.RecipeException;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
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
        var files = new ArrayList<Path>();
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
        return make(List.of(request(order, clip, folder)), order.number(), machine, watch, cancel)
                .getFirst();
    }

    /**
     * The same segment of several files of one treatment, which is computed once.
     *
     * @param orders that differ in what goes into the file alone
     * @param folder in which each gets one of its own
     * @return a file for each
     */
    public static List<Path> make(
            List<SegmentOrder> orders, Clip clip, Path folder, Machine machine, RenderWatch watch, Cancel cancel)
            throws IOException {
        var requests = new ArrayList<RenderRequest>();
        for (SegmentOrder order : orders) {
            Path own = Files.createDirectories(folder.resolve(Integer.toString(requests.size())));
            requests.add(request(order, clip, own));
        }
        return make(requests, orders.getFirst().number(), machine, watch, cancel);
    }

    private static RenderRequest request(SegmentOrder order, Clip clip, Path folder) {
        try {
            return new RenderRequest(
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
    }

    private static List<Path> make(
            List<RenderRequest> requests, int number, Machine machine, RenderWatch watch, Cancel cancel)
            throws IOException {
        RenderRequest first = requests.getFirst();
        FrameRange whole = first.outputRange();
        long from = whole.from() + (long) number * first.segmentFrames();
        if (number < 0 || from >= whole.end()) {
            throw new MediaException("the render has no segment " + number);
        }
        long memory = first.plan(machine).memoryBytes();
        for (RenderRequest other : requests.subList(1, requests.size())) {
            memory += other.ownBytes();
        }
        try (var _ = machine.budget().takeBehind(memory, cancel)) {
            return new Renderer(requests, machine, watch, cancel)
                    .segment(number, new FrameRange(from, Math.min(whole.end(), from + first.segmentFrames())));
        }
    }
}
