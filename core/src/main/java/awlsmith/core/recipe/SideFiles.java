package awlsmith.core.recipe;

import java.util.Optional;

/** Where the files lie that recipes name. */
@FunctionalInterface
public interface SideFiles {
    SideFiles NONE = file -> Optional.empty();

    /** What is in a file; empty when there is none with this content here. */
    Optional<byte[]> content(FileRef file);
}
