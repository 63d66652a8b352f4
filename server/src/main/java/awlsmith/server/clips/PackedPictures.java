package awlsmith.server.clips;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Series;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarFile;

/** A series of pictures as a browser sends it: a tar archive of them, without folders. */
final class PackedPictures {
    private static final int MOST = 200_000;

    private PackedPictures() {}

    /**
     * The series it holds, read from names alone.
     *
     * @throws Refusal when it holds anything but one series
     */
    static Series series(Path archive, String shown) {
        try (var tar = new TarFile(archive)) {
            var names = new ArrayList<String>();
            for (TarArchiveEntry entry : tar.getEntries()) {
                if (!entry.isFile() || names.size() == MOST) {
                    throw wrong(shown);
                }
                names.add(entry.getName());
            }
            List<Series> all = Series.among(names);
            if (all.size() != 1 || all.getFirst().pictures().size() != names.size()) {
                throw wrong(shown);
            }
            return all.getFirst();
        } catch (IOException | IllegalArgumentException e) {
            throw wrong(shown);
        }
    }

    private static Refusal wrong(String shown) {
        return new Refusal(
                Refusal.Kind.INVALID, shown + " did not arrive as one series of pictures; drop the pictures again");
    }

    /**
     * Unpacks the pictures under names of our own.
     *
     * @param folder to put them in
     * @return their paths, in the series' order
     */
    static List<Path> unpack(Path archive, Series series, Path folder, Cancel cancel) throws IOException {
        Files.createDirectories(folder);
        var paths = new ArrayList<Path>();
        try (var tar = new TarFile(archive)) {
            Map<String, TarArchiveEntry> entries = new HashMap<>();
            tar.getEntries().forEach(entry -> entries.put(entry.getName(), entry));
            for (Series.Picture picture : series.pictures()) {
                cancel.check();
                Path to = folder.resolve("%09d.%s".formatted(paths.size(), series.ending()));
                try (InputStream in = tar.getInputStream(entries.get(picture.file()))) {
                    Files.copy(in, to, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
                }
                paths.add(to);
            }
        }
        return paths;
    }
}
