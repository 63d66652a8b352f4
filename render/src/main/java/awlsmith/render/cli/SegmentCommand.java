package awlsmith.render.cli;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.render.Machine;
import awlsmith.render.OneSegment;
import awlsmith.render.RenderWatch;
import awlsmith.render.SegmentOrder;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/** Makes one segment of a render from its description. */
final class SegmentCommand {
    private final List<String> arguments;
    private final PrintStream err;
    private final Cancel cancel;

    SegmentCommand(List<String> arguments, PrintStream err, Cancel cancel) {
        this.arguments = arguments;
        this.err = err;
        this.cancel = cancel;
    }

    int run() {
        if (arguments.size() < 2
                || arguments.size() > 3
                || arguments.stream().anyMatch(word -> word.startsWith("--"))) {
            throw new RenderOptions.Misuse(
                    "segment wants the file and the description of a part: awlsmith segment IN DESCRIPTION.json [FOLDER]");
        }
        try {
            Path description = Path.of(arguments.get(1)).toAbsolutePath();
            SegmentOrder order = SegmentOrder.fromJson(Files.readString(description));
            Path folder = arguments.size() == 3 ? Path.of(arguments.get(2)).toAbsolutePath() : description.getParent();
            MediaInfo info = Prober.probe(Path.of(arguments.getFirst()));
            Clip clip = new Clip(info, Optional.of(Indexer.index(info, frames -> {}, cancel)));
            try (Machine machine = Machine.of(Runtime.getRuntime().availableProcessors())) {
                Path made = OneSegment.make(order, clip, folder, machine, RenderWatch.SILENT, cancel);
                err.println("part " + order.number() + " is made: " + made.getFileName());
            }
            return Main.DONE;
        } catch (IOException e) {
            throw new MediaException(
                    "the description cannot be read, or the part not be written: " + e.getMessage(), e);
        }
    }
}
