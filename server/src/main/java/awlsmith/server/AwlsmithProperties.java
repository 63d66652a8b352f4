package awlsmith.server;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;

/**
 * Settings under {@code awlsmith}.
 *
 * @param home folder of all data
 * @param demo whether the demo archive is put on the shelf
 * @param largestUpload largest file taken in
 * @param keepFree disk space that uploads and renders leave free
 * @param segmentFrames frames to a segment of a render; 0 for about ten seconds' work
 * @param watchRest how long a file in a watched folder stays as it is before it is taken in
 * @param hosts names this server answers to, beside loopback's
 * @param store where other machines fetch sources from; null where they come from here alone
 * @param linkFolders folders of this machine that footage may be linked from
 */
@ConfigurationProperties("awlsmith")
public record AwlsmithProperties(
        Path home,
        boolean demo,
        @DefaultValue("64GB") DataSize largestUpload,
        @DefaultValue("2GB") DataSize keepFree,
        @DefaultValue("0") int segmentFrames,
        @DefaultValue List<Path> linkFolders,
        @DefaultValue("10s") Duration watchRest,
        @DefaultValue List<String> hosts,
        @Nullable Store store) {
    /**
     * A bucket that other machines fetch sources from.
     *
     * @param bucket its name; @param at address of the store
     * @param key that it is written with; @param secret that goes with it
     */
    public record Store(
            String bucket,
            URI at,
            @DefaultValue("us-east-1") String region,
            String key,
            String secret) {
        public Store {
            if (bucket == null || at == null || key == null || secret == null) {
                throw new IllegalArgumentException(
                        "a store wants AWLSMITH_STORE_BUCKET, AWLSMITH_STORE_AT, AWLSMITH_STORE_KEY and AWLSMITH_STORE_SECRET");
            }
        }

        /** Without its secret, which no log shall hold. */
        @Override
        public String toString() {
            return bucket + " at " + at;
        }
    }

    public AwlsmithProperties {
        home = home.toAbsolutePath().normalize();
        linkFolders = linkFolders.stream()
                .map(folder -> folder.toAbsolutePath().normalize())
                .toList();
        hosts = hosts.stream()
                .map(name -> name.strip().toLowerCase(java.util.Locale.ROOT))
                .filter(name -> !name.isEmpty())
                .toList();
        if (largestUpload.toBytes() < 1) {
            throw new IllegalArgumentException("awlsmith.largest-upload must be above 0");
        }
        if (segmentFrames < 0) {
            throw new IllegalArgumentException("awlsmith.segment-frames is " + segmentFrames + ", must be at least 0");
        }
    }
}
