package awlsmith.server.watch;

import awlsmith.core.plan.Deliverable;
import awlsmith.render.FileNames;
import awlsmith.server.events.EventHub;
import awlsmith.server.folders.LinkFolders;
import awlsmith.server.problem.Refusal;
import awlsmith.server.takes.Way;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Watched folders: set up, listed, let rest, taken away. What is in them is looked for by {@link Watcher}. */
@Service
class WatchedFolders {
    private static final int MOST = 50;
    /** Failures that are listed, the rest is counted. */
    private static final int TOLD = 100;

    private static final int LONGEST_PATTERN = 200;

    private final WatchRepository repository;
    private final LinkFolders folders;
    private final EventHub events;

    WatchedFolders(WatchRepository repository, LinkFolders folders, EventHub events) {
        this.repository = repository;
        this.folders = folders;
        this.events = events;
    }

    /** @param file as it is called in the folder */
    record Failure(String file, String problem) {}

    /**
     * A watched folder as the page shows it.
     *
     * @param arriving files that may still grow; @param taken on the shelf, to be examined and sent out; @param sent of which all was ordered
     * @param failed how many could not be; @param failures the first of them
     */
    record WatchedView(
            UUID id,
            String path,
            Way way,
            List<Map<String, Object>> deliverables,
            @Nullable String pattern,
            boolean active,
            @Nullable String problem,
            long arriving,
            long taken,
            long sent,
            long failed,
            List<Failure> failures) {}

    List<WatchedView> all() {
        return repository.all().stream().map(this::view).toList();
    }

    private WatchedView view(WatchedFolder folder) {
        List<WatchedFolder.Item> files = repository.files(folder.id());
        return new WatchedView(
                folder.id(),
                folder.path().toString(),
                folder.way(),
                folder.deliverables().stream().map(Deliverable::toTree).toList(),
                folder.pattern(),
                folder.active(),
                folder.problem(),
                count(files, WatchedFolder.State.ARRIVING),
                count(files, WatchedFolder.State.TAKEN),
                count(files, WatchedFolder.State.SENT),
                count(files, WatchedFolder.State.FAILED),
                files.stream()
                        .filter(one -> one.state() == WatchedFolder.State.FAILED)
                        .limit(TOLD)
                        .map(one -> new Failure(one.name(), String.valueOf(one.problem())))
                        .toList());
    }

    private static long count(List<WatchedFolder.Item> files, WatchedFolder.State state) {
        return files.stream().filter(one -> one.state() == state).count();
    }

    /** @param root number of the allowed folder; @param path in it */
    WatchedView add(int root, String path, Way way, List<Deliverable> deliverables, @Nullable String pattern) {
        Path folder = folders.folder(root, path);
        if (deliverables.isEmpty()) {
            throw new Refusal(Refusal.Kind.INVALID, "nothing was chosen to be sent out");
        }
        if (pattern != null && pattern.length() > LONGEST_PATTERN) {
            throw new Refusal(Refusal.Kind.INVALID, "the pattern of the names is longer than " + LONGEST_PATTERN);
        }
        if (pattern != null && !pattern.isBlank()) {
            FileNames.check(pattern);
        }
        List<WatchedFolder> there = repository.all();
        if (there.stream().anyMatch(one -> one.path().equals(folder))) {
            throw new Refusal(Refusal.Kind.CONFLICT, folder + " is watched already");
        }
        if (there.size() >= MOST) {
            throw new Refusal(Refusal.Kind.INVALID, MOST + " watched folders are the most; take one away first");
        }
        var fresh = new WatchedFolder(UUID.randomUUID(), folder, way.checked(), deliverables, pattern, true, null);
        repository.insert(fresh);
        changed();
        return view(fresh);
    }

    void activate(UUID id, boolean active) {
        if (repository.all().stream().noneMatch(one -> one.id().equals(id))) {
            throw Refusal.unknown("this watched folder");
        }
        repository.activate(id, active);
        changed();
    }

    /** Goes at all again that failed. */
    void retry(UUID id) {
        repository.files(id).stream()
                .filter(one -> one.state() == WatchedFolder.State.FAILED)
                .forEach(one -> repository.arriving(one.folder(), one.name(), one.bytes(), one.changedAt()));
        changed();
    }

    /** Its files and what was made of them stay. */
    void remove(UUID id) {
        if (!repository.delete(id)) {
            throw Refusal.unknown("this watched folder");
        }
        changed();
    }

    void changed() {
        events.publish("watched", Map.of());
    }
}
