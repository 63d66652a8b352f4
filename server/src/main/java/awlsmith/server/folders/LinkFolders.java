package awlsmith.server.folders;

import awlsmith.media.Series;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.springframework.stereotype.Service;

/**
 * Looks into the folders that the operator allows, and links files in them. Whatever is asked for, the real path, behind every
 * link, must lie in one of them.
 */
@Service
public class LinkFolders {
    /** More in one folder are not listed; nobody picks from so many by eye. */
    private static final int MOST_ENTRIES = 5000;

    private final List<Path> roots;
    private final Clips clips;

    LinkFolders(AwlsmithProperties properties, Clips clips) {
        this.roots = properties.linkFolders();
        this.clips = clips;
    }

    /** @param path relative to the root, / between names; @param bytes of a file */
    public record Entry(String name, String path, boolean folder, long bytes) {}

    /**
     * Pictures that together are one clip.
     *
     * @param name what their names share; @param ending likewise; @param missing numbers between first and last
     */
    public record SeriesEntry(String name, String ending, String title, int count, int missing) {}

    /** @param series those among the files; @param more whether some were left out */
    public record Listing(List<Entry> entries, List<SeriesEntry> series, boolean more) {}

    List<String> names() {
        return roots.stream().map(Path::toString).toList();
    }

    Listing list(int root, String path) {
        Path folder = folder(root, path);
        Path base = roots.get(root);
        var entries = new ArrayList<Entry>();
        var names = new ArrayList<String>();
        boolean more = false;
        try (var files = Files.newDirectoryStream(
                folder, file -> !file.getFileName().toString().startsWith("."))) {
            for (Path file : files) {
                // a series is as long as it is, however few of its pictures are listed
                names.add(file.getFileName().toString());
                if (entries.size() == MOST_ENTRIES) {
                    more = true;
                    continue;
                }
                boolean isFolder = Files.isDirectory(file);
                if (isFolder || Files.isRegularFile(file)) {
                    String below = path.isEmpty() ? file.getFileName().toString() : path + "/" + file.getFileName();
                    entries.add(
                            new Entry(file.getFileName().toString(), below, isFolder, isFolder ? 0 : Files.size(file)));
                }
            }
        } catch (IOException e) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT, "the folder cannot be read: " + base.relativize(folder) + " may be locked");
        }
        entries.sort(Comparator.comparing((Entry entry) -> !entry.folder()).thenComparing(Entry::name));
        var series = Series.among(names).stream()
                .map(one -> new SeriesEntry(
                        one.name(),
                        one.ending(),
                        one.title(),
                        one.pictures().size(),
                        one.missing().size()))
                .toList();
        return new Listing(List.copyOf(entries), series, more);
    }

    /** Makes one clip of a series of pictures; its file is made beside the database, the pictures are only read. */
    ClipView gather(int root, String path, String name, String ending, String rate) {
        Path folder = resolved(root, path);
        Series series = Series.among(names(folder)).stream()
                .filter(one -> one.name().equals(name) && one.ending().equals(ending))
                .findFirst()
                .orElseThrow(() -> Refusal.unknown("this series of pictures"));
        // a link among them could lead out of the folder
        series.pictures()
                .forEach(picture -> resolved(root, path.isEmpty() ? picture.file() : path + "/" + picture.file()));
        return clips.gather(folder, series, rate);
    }

    private static List<String> names(Path folder) {
        try (var files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).toList();
        } catch (IOException e) {
            throw Refusal.unknown("this folder");
        }
    }

    ClipView link(int root, String path) {
        Path file = resolved(root, path);
        if (!Files.isRegularFile(file)) {
            throw Refusal.unknown("this file");
        }
        return clips.link(file);
    }

    /** A folder that may be read, by its real path. */
    public Path folder(int root, String path) {
        Path folder = resolved(root, path);
        if (!Files.isDirectory(folder)) {
            throw Refusal.unknown("this folder");
        }
        return folder;
    }

    private Path resolved(int root, String path) {
        if (root < 0 || root >= roots.size()) {
            throw Refusal.unknown("this folder");
        }
        Path base = roots.get(root);
        try {
            Path real = base.resolve(path).toRealPath();
            if (real.startsWith(base.toRealPath())) {
                return real;
            }
        } catch (IOException | InvalidPathException e) {
            // told like any other place that is not there
        }
        throw Refusal.unknown("this place");
    }
}
