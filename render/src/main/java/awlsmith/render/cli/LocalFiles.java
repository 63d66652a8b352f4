package awlsmith.render.cli;

import awlsmith.core.recipe.FileRef;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.SideFiles;
import awlsmith.core.recipe.StepRegistry;
import awlsmith.render.MarkFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Files that steps name by their paths on the command line, or that were given for a recipe that names them by content. */
final class LocalFiles implements SideFiles {
    /** No table and no mark is larger. */
    private static final long LARGEST = 64L << 20;

    private final Map<String, byte[]> contents = new HashMap<>();

    @Override
    public Optional<byte[]> content(FileRef file) {
        return Optional.ofNullable(contents.get(file.hash()));
    }

    /** A step as it was written, with paths in place of which stand the files by content. */
    String adopted(String step) {
        String[] words = step.trim().split("\\s+");
        var kind = StepRegistry.find(words[0]);
        if (kind.isEmpty()) {
            return step;
        }
        for (Param param : kind.get().params()) {
            String begin = param.key() + "=";
            for (int i = 1; i < words.length; i++) {
                if (param instanceof Param.FromFile && words[i].startsWith(begin) && !words[i].contains("#")) {
                    words[i] = begin + take(words[i].substring(begin.length()));
                }
            }
        }
        return String.join(" ", words);
    }

    private static byte[] content(String path, byte[] read) {
        try {
            return MarkFile.isPicture(read) ? MarkFile.samples(read) : read;
        } catch (IllegalArgumentException e) {
            throw new RenderOptions.Misuse(path + " cannot be used: " + e.getMessage());
        }
    }

    /** @throws RenderOptions.Misuse with a sentence when it cannot be read */
    FileRef take(String path) {
        try {
            Path file = Path.of(path);
            if (Files.size(file) > LARGEST) {
                throw new RenderOptions.Misuse(path + " is larger than any file that steps work with");
            }
            byte[] read = Files.readAllBytes(file);
            byte[] content = MarkFile.isPicture(read) ? MarkFile.samples(read) : read;
            FileRef ref = FileRef.of(path, content);
            contents.put(ref.hash(), content);
            return ref;
        } catch (IOException | InvalidPathException e) {
            throw new RenderOptions.Misuse("the file " + path + " cannot be read; is its name right?");
        }
    }
}
