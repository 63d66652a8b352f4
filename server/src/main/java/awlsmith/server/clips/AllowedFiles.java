package awlsmith.server.clips;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.springframework.stereotype.Component;

/**
 * Files of this machine that may be read where they lie. Looked at anew at every opening: what was an allowed file when it was linked
 * may be a link to any other by now.
 */
@Component
class AllowedFiles {
    private final List<Path> roots;

    AllowedFiles(AwlsmithProperties properties) {
        roots = properties.linkFolders();
    }

    /**
     * @param file as it was linked
     * @throws Refusal when it now leads elsewhere, or its folder is no longer allowed
     */
    void demand(Path file) {
        Path real;
        try {
            real = file.toRealPath();
        } catch (IOException e) {
            // that it is gone is told by whoever opens it
            return;
        }
        if (roots.stream().noneMatch(root -> isIn(real, root))) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    "the linked file now leads to a place that may not be read; put the file itself back, or link it anew");
        }
    }

    private static boolean isIn(Path real, Path root) {
        try {
            return real.startsWith(root.toRealPath());
        } catch (IOException e) {
            return false;
        }
    }
}
