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
    private static final int PIECE = 1 << 18;

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
                // a sparse file is larger unpacked than it arrived: nobody who sends pictures makes one
                if (!entry.isFile() || entry.isSparse() || names.size() == MOST) {
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
                TarArchiveEntry entry = entries.get(picture.file());
                if (entry == null || entry.isSparse()) {
                    throw wrong(archive.getFileName().toString());
                }
                try (InputStream in = tar.getInputStream(entry)) {
                    copy(in, to, entry.getSize(), cancel);
                }
                paths.add(to);
            }
        }
        return paths;
    }

    /** Bytes that unpacking writes: no more than the archive holds. */
    static long bytes(Path archive) throws IOException {
        long bytes = 0;
        try (var tar = new TarFile(archive)) {
            for (TarArchiveEntry entry : tar.getEntries()) {
                bytes += entry.getSize();
            }
        }
        return Math.min(bytes, Files.size(archive));
    }

    /** Stops within an entry, and at the size it was announced with. */
    private static void copy(InputStream in, Path to, long most, Cancel cancel) throws IOException {
        byte[] piece = new byte[PIECE];
        long written = 0;
        try (var out = Files.newOutputStream(to)) {
            for (int n = in.read(piece); n >= 0; n = in.read(piece)) {
                cancel.check();
                written += n;
                if (written > most) {
                    throw new IOException("an entry is larger than it says");
                }
                out.write(piece, 0, n);
            }
        }
    }
}
