package awlsmith.server.work;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.server.AwlsmithProperties;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BucketStoreTest {
    private static final long PATIENCE_MILLIS = 30_000;

    @TempDir
    Path folder;

    private BucketStandIn bucket;
    private BucketStore store;

    @BeforeEach
    void open() throws IOException {
        bucket = new BucketStandIn();
        store = new BucketStore(
                new AwlsmithProperties.Store("reels", bucket.at(), "us-east-1", "a key", "a secret"), 1000);
    }

    @AfterEach
    void close() {
        store.close();
        bucket.close();
    }

    private Path file(int bytes) throws IOException {
        byte[] content = new byte[bytes];
        new Random(7).nextBytes(content);
        return Files.write(folder.resolve("source-" + bytes), content);
    }

    private static void await(BooleanSupplier wish) throws InterruptedException {
        long end = System.currentTimeMillis() + PATIENCE_MILLIS;
        while (!wish.getAsBoolean()) {
            assertThat(System.currentTimeMillis()).as("still not so").isLessThan(end);
            Thread.sleep(20);
        }
    }

    private Optional<URI> addressOf(UUID clip, Path file) throws InterruptedException {
        await(() -> store.address(clip, file).isPresent());
        return store.address(clip, file);
    }

    private static HttpResponse<byte[]> get(URI at, String... headers) throws Exception {
        var request = HttpRequest.newBuilder(at);
        if (headers.length > 0) {
            request.headers(headers);
        }
        try (var http = HttpClient.newHttpClient()) {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        }
    }

    @Test
    void whoHasTheAddressFetchesTheFileAndNobodyElse() throws Exception {
        Path file = file(900);
        UUID clip = UUID.randomUUID();
        assertThat(store.address(clip, file)).isEmpty();
        URI at = addressOf(clip, file).orElseThrow();
        assertThat(get(at).body()).isEqualTo(Files.readAllBytes(file));
        byte[] rest = get(at, "Range", "bytes=400-").body();
        assertThat(rest).isEqualTo(Arrays.copyOfRange(Files.readAllBytes(file), 400, 900));
        URI bare = URI.create(at.toString().replaceAll("\\?.*", ""));
        assertThat(get(bare).statusCode()).isEqualTo(403);
        assertThat(at.toString()).doesNotContain("a secret").contains("/reels/sources/" + clip + "/900");
    }

    @Test
    void largeFilesGoInPieces() throws Exception {
        Path file = file(4500);
        URI at = addressOf(UUID.randomUUID(), file).orElseThrow();
        assertThat(bucket.pieces()).isEqualTo(5);
        assertThat(get(at).body()).isEqualTo(Files.readAllBytes(file));
    }

    @Test
    void whatIsThereIsNotPutAgainAndGoesWithItsClip() throws Exception {
        Path file = file(300);
        UUID clip = UUID.randomUUID();
        addressOf(clip, file);
        bucket.objects().replaceAll((name, content) -> new byte[300]);
        try (var second =
                new BucketStore(new AwlsmithProperties.Store("reels", bucket.at(), "us-east-1", "a key", "a secret"))) {
            second.want(clip, file);
            await(() -> second.address(clip, file).isPresent());
        }
        assertThat(bucket.objects().values()).allMatch(content -> Arrays.equals(content, new byte[300]));
        addressOf(UUID.randomUUID(), file(301));
        store.forget(clip);
        await(() -> bucket.objects().size() == 1);
    }

    @Test
    void aStoreThatIsIllIsDoneWithout() throws Exception {
        bucket.fallIll(true);
        Path file = file(100);
        UUID clip = UUID.randomUUID();
        store.want(clip, file);
        await(() -> bucket.refused() > 0);
        assertThat(store.address(clip, file)).isEmpty();
        assertThat(bucket.objects()).isEmpty();
    }
}
