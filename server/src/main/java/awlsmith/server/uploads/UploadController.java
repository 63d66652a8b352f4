package awlsmith.server.uploads;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.clips.Clips;
import awlsmith.server.problem.Refusal;
import awlsmith.server.storage.MediaFolder;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import me.desair.tus.server.TusFileUploadService;
import me.desair.tus.server.exception.TusException;
import me.desair.tus.server.upload.UploadInfo;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * Takes files in piece by piece: a transfer that broke off, for whatever reason and on whichever side, goes on from the last
 * byte that arrived. What has arrived whole becomes a clip in the same request.
 */
@Hidden
@RestController
class UploadController {
    private static final Logger LOG = LoggerFactory.getLogger(UploadController.class);
    static final String URI = "/api/uploads";
    /** Unfinished files are kept so long. */
    private static final long KEEP_MILLIS = 7L * 24 * 60 * 60 * 1000;

    private final TusFileUploadService tus;
    private final Path folder;
    private final Clips clips;
    private final MediaFolder media;
    private final long largest;

    UploadController(Clips clips, MediaFolder media, AwlsmithProperties properties) {
        this.clips = clips;
        this.media = media;
        this.largest = properties.largestUpload().toBytes();
        this.folder = media.unfinished();
        this.tus = new TusFileUploadService()
                .withUploadUri(URI)
                .withStoragePath(folder.toString())
                .withMaxUploadSize(largest)
                .withUploadExpirationPeriod(KEEP_MILLIS);
        media.promise(0, this::toCome);
    }

    @RequestMapping({URI, URI + "/{id}"})
    void upload(HttpServletRequest request, HttpServletResponse response) throws IOException {
        if (request.getMethod().equals("POST")) {
            check(request.getHeader("Upload-Length"));
        }
        tus.process(request, response);
        if (request.getMethod().equals("PATCH") && response.getStatus() == HttpServletResponse.SC_NO_CONTENT) {
            takeIn(request.getRequestURI(), response);
        }
    }

    /** Said before a byte is sent, not after all of them. */
    private void check(String announced) {
        if (announced == null) {
            throw new Refusal(Refusal.Kind.INVALID, "the file's length must be announced before it is sent");
        }
        long bytes;
        try {
            bytes = Long.parseLong(announced.trim());
        } catch (NumberFormatException e) {
            // the protocol's own answer to a wrong header is as good as ours
            return;
        }
        if (bytes > largest) {
            throw Clips.tooLarge(largest);
        }
        media.demandSpace(bytes);
    }

    /** Bytes that are still to come of all transfers that were begun, those broken off included: they may go on at any time. */
    private long toCome() {
        Path uploads = folder.resolve("uploads");
        if (!Files.isDirectory(uploads)) {
            return 0;
        }
        long bytes = 0;
        try (var all = Files.list(uploads)) {
            for (Path one : all.toList()) {
                UploadInfo info = tus.getUploadInfo(URI + "/" + one.getFileName());
                if (info != null && info.hasLength()) {
                    bytes += Math.max(0, info.getLength() - info.getOffset());
                }
            }
        } catch (IOException | TusException e) {
            // one that ends just now
        }
        return bytes;
    }

    private void takeIn(String uri, HttpServletResponse response) throws IOException {
        try {
            UploadInfo info = tus.getUploadInfo(uri);
            if (info == null || info.isUploadInProgress()) {
                return;
            }
            String name = info.getFileName();
            Path file =
                    folder.resolve("uploads").resolve(info.getId().toString()).resolve("data");
            try {
                String shown = name == null ? "" : name;
                String rate = info.getMetadata().get("rate");
                if (rate == null) {
                    clips.takeInFile(shown, file);
                } else {
                    // pictures of a series, packed
                    clips.takeInPictures(shown, rate, file);
                }
            } catch (Refusal e) {
                // the sender must hear why instead of that all is well
                response.reset();
                throw e;
            } finally {
                tus.deleteUpload(uri);
            }
        } catch (TusException e) {
            LOG.warn("an upload could not be finished: {}", e.getMessage());
            throw new Refusal(Refusal.Kind.INVALID, "the file did not arrive whole; drop it again");
        }
    }

    @Scheduled(fixedDelay = 60 * 60 * 1000)
    void forgetOld() {
        try {
            if (Files.isDirectory(folder)) {
                tus.cleanup();
            }
        } catch (IOException e) {
            LOG.warn("old unfinished uploads could not be removed: {}", e.getMessage());
        }
    }
}
