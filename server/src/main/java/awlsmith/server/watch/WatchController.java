package awlsmith.server.watch;

import awlsmith.server.dispatch.DeliverableChoice;
import awlsmith.server.takes.Way;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Watched folders over HTTP. */
@RestController
@RequestMapping("/api/watched")
class WatchController {
    private final WatchedFolders folders;

    WatchController(WatchedFolders folders) {
        this.folders = folders;
    }

    /** @param root number of the allowed folder, see /api/folders; @param path in it; @param pattern of the files' names */
    record Watch(
            int root,
            String path,
            Way way,
            List<DeliverableChoice> deliverables,
            @Nullable String pattern) {}

    record Active(boolean active) {}

    @GetMapping
    List<WatchedFolders.WatchedView> all() {
        return folders.all();
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    WatchedFolders.WatchedView add(@RequestBody Watch watch) {
        return folders.add(
                watch.root(),
                watch.path(),
                watch.way(),
                watch.deliverables().stream()
                        .map(DeliverableChoice::deliverable)
                        .toList(),
                watch.pattern());
    }

    @PostMapping("/{id}/active")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void activate(@PathVariable UUID id, @RequestBody Active active) {
        folders.activate(id, active.active());
    }

    @PostMapping("/{id}/retry")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void retry(@PathVariable UUID id) {
        folders.retry(id);
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        folders.remove(id);
    }
}
