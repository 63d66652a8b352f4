package awlsmith.server.tables;

import awlsmith.core.colour.LookupTable;
import awlsmith.core.recipe.FileRef;
import awlsmith.core.recipe.SideFiles;
import awlsmith.render.MarkFile;
import awlsmith.server.problem.Refusal;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;

/**
 * Lookup tables and marks by what is in them (a mark as its bare samples): each lies in the data folder under its hash, its name in a file beside it. Nothing of a
 * name becomes part of a path.
 */
@Service
public class Tables implements SideFiles {
    private final MediaFolder media;
    private final Path folder;

    Tables(MediaFolder media) {
        this.media = media;
        this.folder = media.tables();
    }

    @Override
    public Optional<byte[]> content(FileRef file) {
        return read(folder.resolve(file.hash() + ".cube"));
    }

    private static Optional<byte[]> read(Path file) {
        try {
            return Optional.of(Files.readAllBytes(file));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** All there are, by their names. */
    List<FileRef> all() {
        var all = new ArrayList<FileRef>();
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                String name = file.getFileName().toString();
                if (name.endsWith(".name")) {
                    String hash = name.substring(0, name.length() - ".name".length());
                    all.add(FileRef.parse(Files.readString(file) + "#" + hash));
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        all.sort(Comparator.comparing(FileRef::name, String.CASE_INSENSITIVE_ORDER));
        return all;
    }

    /** @throws Refusal with a sentence when it is neither a table nor a picture */
    FileRef add(String name, byte[] given) {
        FileRef file = FileRef.of(name, given);
        byte[] content = given;
        try {
            if (MarkFile.isPicture(given)) {
                content = MarkFile.samples(given);
                file = FileRef.of(name, content);
            } else {
                LookupTable.read(given);
            }
        } catch (IllegalArgumentException e) {
            throw new Refusal(Refusal.Kind.INVALID, file.name() + " cannot be used: " + e.getMessage());
        }
        media.demandSpace(content.length);
        write(folder.resolve(file.hash() + ".cube"), content);
        write(folder.resolve(file.hash() + ".name"), file.name().getBytes(java.nio.charset.StandardCharsets.UTF_8));
        return file;
    }

    private void write(Path file, byte[] content) {
        try {
            Path part = Files.createTempFile(folder, "table", ".part");
            Files.write(part, content);
            Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Recipes that name it say so until it is added again. */
    void remove(FileRef file) {
        try {
            Files.deleteIfExists(folder.resolve(file.hash() + ".name"));
            Files.deleteIfExists(folder.resolve(file.hash() + ".cube"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
