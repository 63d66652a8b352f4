package awlsmith.server.dispatch;

import awlsmith.server.storage.MediaFolder;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What lies on the disk, and what of it may go, over HTTP. */
@RestController
class StorageController {
    private final MediaFolder media;
    private final Dispatch dispatch;

    StorageController(MediaFolder media, Dispatch dispatch) {
        this.media = media;
        this.dispatch = dispatch;
    }

    /** @param days since they were finished, 0 or more; those of that age and older go */
    record Clearing(int days) {}

    /** @param files that went */
    record Cleared(int files) {}

    @GetMapping("/api/storage")
    MediaFolder.StorageUse storage() {
        return media.use();
    }

    /** Takes finished files off the disk; their rows and their reports stay. */
    @PostMapping("/api/storage/clear")
    Cleared clear(@RequestBody Clearing clearing) {
        return new Cleared(dispatch.clear(clearing.days()));
    }
}
