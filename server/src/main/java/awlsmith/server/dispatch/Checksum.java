package awlsmith.server.dispatch;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.recipe.Sha256;
import awlsmith.media.MediaException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;

/** What archives keep beside a file to know it again (SHA-256, FIPS 180-4). */
final class Checksum {
    private static final int BUFFER = 1 << 20;

    private Checksum() {}

    /** @return in hexadecimal */
    static String of(Path file, Cancel cancel) {
        try (var in = Files.newInputStream(file)) {
            var digest = Sha256.digest();
            var buffer = new byte[BUFFER];
            for (int read = in.read(buffer); read > 0; read = in.read(buffer)) {
                cancel.check();
                digest.update(buffer, 0, read);
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (IOException e) {
            throw new MediaException("the finished file cannot be read: " + e.getMessage(), e);
        }
    }
}
