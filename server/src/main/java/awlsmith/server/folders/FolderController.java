package awlsmith.server.folders;

import awlsmith.server.clips.ClipView;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The allowed folders over HTTP. */
@RestController
@RequestMapping("/api/folders")
class FolderController {
    private final LinkFolders folders;

    FolderController(LinkFolders folders) {
        this.folders = folders;
    }

    record Link(String path) {}

    @GetMapping
    List<String> folders() {
        return folders.names();
    }

    @GetMapping("/{root}")
    LinkFolders.Listing list(@PathVariable int root, @RequestParam(defaultValue = "") String path) {
        return folders.list(root, path);
    }

    /** @param path of the folder; @param name what the pictures' names share; @param rate frames a second */
    record Gather(String path, String name, String ending, String rate) {}

    @PostMapping("/{root}/series")
    @ResponseStatus(HttpStatus.CREATED)
    ClipView gather(@PathVariable int root, @RequestBody Gather gather) {
        return folders.gather(root, gather.path(), gather.name(), gather.ending(), gather.rate());
    }

    @PostMapping("/{root}/clips")
    @ResponseStatus(HttpStatus.CREATED)
    ClipView link(@PathVariable int root, @RequestBody Link link) {
        return folders.link(root, link.path());
    }
}
