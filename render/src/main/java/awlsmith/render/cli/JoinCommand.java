package awlsmith.render.cli;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.Splicer;
import awlsmith.render.Folders;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;

/** Puts files one behind another as they are, and proves that every frame is what it was. */
final class JoinCommand {
    static final String USAGE = """
            usage: awlsmith join IN IN... OUT.mkv [--force]
            """;

    private final List<Path> inputs;
    private final Path out;
    private final boolean overwrite;
    private final PrintStream err;
    private final Cancel cancel;

    JoinCommand(List<String> words, PrintStream err, Cancel cancel) {
        var files = new ArrayList<Path>();
        boolean force = false;
        for (String word : words) {
            if (word.equals("--force")) {
                force = true;
            } else if (word.startsWith("--")) {
                throw new RenderOptions.Misuse("there is no option " + word + "\n" + USAGE);
            } else {
                files.add(RenderOptions.path(word));
            }
        }
        if (files.size() < 3 || files.size() > Splicer.MOST + 1) {
            throw new RenderOptions.Misuse("join wants two files at least and one to write\n" + USAGE);
        }
        out = files.removeLast().toAbsolutePath();
        inputs = List.copyOf(files);
        overwrite = force;
        this.err = err;
        this.cancel = cancel;
        if (!out.toString().endsWith(".mkv")) {
            throw new RenderOptions.Misuse("joined files go into Matroska: choose a name that ends in .mkv");
        }
    }

    int run() {
        if (Files.exists(out) && !overwrite) {
            throw new MediaException(out.getFileName() + " is there already; --force replaces it");
        }
        try {
            Path scratch = Files.createTempDirectory(out.getParent(), ".awlsmith-join-");
            try {
                FrameIndex joined = join(scratch);
                err.println(out.getFileName() + ": " + joined.count() + " frames of " + inputs.size()
                        + " files, each as it was");
                return Main.DONE;
            } finally {
                Folders.remove(scratch);
            }
        } catch (IOException e) {
            throw new MediaException("nothing can be written to the folder of " + out.getFileName(), e);
        }
    }

    private FrameIndex join(Path scratch) throws IOException {
        var pieces = new ArrayList<Splicer.Piece>();
        for (Path input : inputs) {
            MediaInfo info = Prober.probe(input);
            pieces.add(new Splicer.Piece(info, Indexer.index(info, n -> {}, cancel)));
        }
        Path part = scratch.resolve("joined.mkv");
        Splicer.join(pieces, scratch, part, n -> {}, cancel).ifPresent(err::println);
        FrameIndex joined = Indexer.index(Prober.probe(part), n -> {}, cancel);
        Splicer.prove(pieces.stream().map(Splicer.Piece::index).toList(), joined);
        Files.move(part, out, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        return joined;
    }
}
