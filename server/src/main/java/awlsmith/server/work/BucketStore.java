package awlsmith.server.work;

import awlsmith.server.AwlsmithProperties;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.apache.commons.io.input.BoundedInputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.core.checksums.RequestChecksumCalculation;
import software.amazon.awssdk.core.checksums.ResponseChecksumValidation;
import software.amazon.awssdk.core.exception.SdkException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.http.urlconnection.UrlConnectionHttpClient;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.S3Configuration;
import software.amazon.awssdk.services.s3.model.CompletedPart;
import software.amazon.awssdk.services.s3.model.NoSuchKeyException;
import software.amazon.awssdk.services.s3.presigner.S3Presigner;

/**
 * A bucket of a store that speaks the S3 protocol. Sources are put there once, in pieces where they are large; other machines get signed
 * addresses that are good for a while, and no rights of their own.
 */
final class BucketStore implements SourceStore, AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(BucketStore.class);
    private static final Duration GOOD_FOR = Duration.ofHours(12);
    /** After what went wrong it is not tried again for so long. */
    private static final Duration REST = Duration.ofMinutes(5);

    private static final long PIECE = 64L << 20;
    /** Pieces that the protocol allows. */
    private static final int MOST_PIECES = 10_000;

    private final S3Client client;
    private final S3Presigner signer;
    private final String bucket;
    private final long piece;

    private sealed interface At permits There, OnItsWay, Failed {}

    private record There() implements At {}

    private record OnItsWay() implements At {}

    private record Failed(Instant when) implements At {}

    private final Map<String, At> known = new ConcurrentHashMap<>();

    BucketStore(AwlsmithProperties.Store settings) {
        this(settings, PIECE);
    }

    /** @param piece bytes of one piece of a large file */
    BucketStore(AwlsmithProperties.Store settings, long piece) {
        var credentials =
                StaticCredentialsProvider.create(AwsBasicCredentials.create(settings.key(), settings.secret()));
        Region region = Region.of(settings.region());
        // stores of others know neither buckets as names of hosts nor the newer checksums
        client = S3Client.builder()
                .endpointOverride(settings.at())
                .region(region)
                .credentialsProvider(credentials)
                .serviceConfiguration(S3Configuration.builder()
                        .pathStyleAccessEnabled(true)
                        .chunkedEncodingEnabled(false)
                        .build())
                .requestChecksumCalculation(RequestChecksumCalculation.WHEN_REQUIRED)
                .responseChecksumValidation(ResponseChecksumValidation.WHEN_REQUIRED)
                .httpClientBuilder(UrlConnectionHttpClient.builder())
                .build();
        signer = S3Presigner.builder()
                .endpointOverride(settings.at())
                .region(region)
                .credentialsProvider(credentials)
                .serviceConfiguration(
                        S3Configuration.builder().pathStyleAccessEnabled(true).build())
                .build();
        bucket = settings.bucket();
        this.piece = piece;
    }

    /** The same file under the same name: a clip's file never changes, and one that grew is another. */
    private static String name(UUID clip, long bytes) {
        return "sources/" + clip + "/" + bytes;
    }

    @Override
    public void want(UUID clip, Path file) {
        try {
            String name = name(clip, Files.size(file));
            At at = known.get(name);
            boolean rests =
                    at instanceof Failed failed && failed.when().plus(REST).isAfter(Instant.now());
            if ((at == null || at instanceof Failed && !rests) && isFirst(name, at)) {
                Thread.ofVirtual().name("store").start(() -> put(name, file));
            }
        } catch (IOException e) {
            LOG.warn("a source cannot be put into the store: {}", e.getMessage());
        }
    }

    private boolean isFirst(String name, At before) {
        return before == null
                ? known.putIfAbsent(name, new OnItsWay()) == null
                : known.replace(name, before, new OnItsWay());
    }

    private void put(String name, Path file) {
        try {
            long bytes = Files.size(file);
            if (!isThere(name, bytes)) {
                if (bytes <= piece) {
                    client.putObject(to -> to.bucket(bucket).key(name), RequestBody.fromFile(file));
                } else {
                    inPieces(name, file, bytes);
                }
            }
            known.put(name, new There());
        } catch (SdkException | IOException | UncheckedIOException e) {
            LOG.warn("a source could not be put into the store; other machines fetch it from here: {}", e.getMessage());
            known.put(name, new Failed(Instant.now()));
        }
    }

    private boolean isThere(String name, long bytes) {
        try {
            return client.headObject(of -> of.bucket(bucket).key(name)).contentLength() == bytes;
        } catch (NoSuchKeyException e) {
            return false;
        }
    }

    private void inPieces(String name, Path file, long bytes) {
        String upload =
                client.createMultipartUpload(to -> to.bucket(bucket).key(name)).uploadId();
        try {
            long each = Math.max(piece, Math.ceilDiv(bytes, MOST_PIECES));
            var parts = new ArrayList<CompletedPart>();
            for (long from = 0; from < bytes; from += each) {
                int number = parts.size() + 1;
                long length = Math.min(each, bytes - from);
                long begin = from;
                String tag = client.uploadPart(
                                to -> to.bucket(bucket)
                                        .key(name)
                                        .uploadId(upload)
                                        .partNumber(number),
                                RequestBody.fromContentProvider(
                                        () -> part(file, begin, length), length, "application/octet-stream"))
                        .eTag();
                parts.add(CompletedPart.builder().partNumber(number).eTag(tag).build());
            }
            client.completeMultipartUpload(
                    to -> to.bucket(bucket).key(name).uploadId(upload).multipartUpload(of -> of.parts(parts)));
        } catch (SdkException e) {
            client.abortMultipartUpload(of -> of.bucket(bucket).key(name).uploadId(upload));
            throw e;
        }
    }

    /** Asked for anew whenever it is read: to be signed, to be sent, to be sent again. */
    private static InputStream part(Path file, long from, long length) {
        try {
            FileChannel channel = FileChannel.open(file).position(from);
            return BoundedInputStream.builder()
                    .setInputStream(Channels.newInputStream(channel))
                    .setMaxCount(length)
                    .get();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public Optional<URI> address(UUID clip, Path file) {
        try {
            String name = name(clip, Files.size(file));
            if (!(known.get(name) instanceof There)) {
                want(clip, file);
                return Optional.empty();
            }
            return Optional.of(signer.presignGetObject(of -> of.signatureDuration(GOOD_FOR)
                            .getObjectRequest(get -> get.bucket(bucket).key(name)))
                    .url()
                    .toURI());
        } catch (IOException | URISyntaxException e) {
            return Optional.empty();
        }
    }

    @Override
    public void forget(UUID clip) {
        String begin = "sources/" + clip + "/";
        known.keySet().removeIf(name -> name.startsWith(begin));
        Thread.ofVirtual().name("store").start(() -> {
            try {
                client.listObjectsV2(of -> of.bucket(bucket).prefix(begin))
                        .contents()
                        .forEach(one ->
                                client.deleteObject(of -> of.bucket(bucket).key(one.key())));
            } catch (SdkException e) {
                LOG.warn("a source that is not wanted any more stays in the store: {}", e.getMessage());
            }
        });
    }

    @Override
    public void close() {
        client.close();
        signer.close();
    }
}
