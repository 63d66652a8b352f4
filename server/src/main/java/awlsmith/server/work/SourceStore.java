package awlsmith.server.work;

import java.net.URI;
import java.nio.file.Path;
import java.util.Optional;
import java.util.UUID;

/** Where other machines may fetch sources from, beside this server. */
interface SourceStore {
    /** Without one: they come from this server. */
    SourceStore NONE = new SourceStore() {
        @Override
        public void want(UUID clip, Path file) {}

        @Override
        public Optional<URI> address(UUID clip, Path file) {
            return Optional.empty();
        }

        @Override
        public void forget(UUID clip) {}
    };

    /** A clip's file will be asked for; what is not there is put there, in its own time. */
    void want(UUID clip, Path file);

    /** Where whoever has this address can fetch it for a while, once it is there. */
    Optional<URI> address(UUID clip, Path file);

    /** Takes away what is there of a clip. */
    void forget(UUID clip);
}
