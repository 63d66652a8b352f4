package awlsmith.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.unit.DataSize;

class MediaFolderTest {
    @TempDir
    Path home;

    private MediaFolder media(DataSize keepFree) {
        return new MediaFolder(new AwlsmithProperties(
                home,
                false,
                DataSize.ofGigabytes(1),
                keepFree,
                96,
                java.util.List.of(),
                java.time.Duration.ofSeconds(10),
                java.util.List.of(),
                null));
    }

    @Test
    void everyThingHasAPlaceOfItsOwnUnderTheHome() {
        var media = media(DataSize.ofMegabytes(1));
        UUID id = UUID.randomUUID();
        assertThat(media.clip(id)).isEqualTo(home.resolve("media/clips/" + id));
        assertThat(media.render(id)).isEqualTo(home.resolve("media/renders/" + id));
        assertThat(media.incoming(id)).isEqualTo(home.resolve("media/incoming/" + id + ".part"));
        assertThat(home.resolve("media/incoming")).isDirectory();
        assertThat(media.stored(media.nameOf(media.clip(id).resolve("source"))))
                .isEqualTo(media.clip(id).resolve("source"));
    }

    @Test
    void noStoredNameLeadsOut() {
        var media = media(DataSize.ofMegabytes(1));
        for (String name : new String[] {"../secret", "clips/../../secret", "/etc/passwd"}) {
            assertThatThrownBy(() -> media.stored(name)).isInstanceOf(IllegalStateException.class);
        }
    }

    @Test
    void aFullDiskIsASentenceWithTheFigures() {
        assertThatCode(() -> media(DataSize.ofBytes(0)).demandSpace(1)).doesNotThrowAnyException();
        var almostFull = media(DataSize.ofTerabytes(4000));
        assertThatThrownBy(() -> almostFull.demandSpace(5_000_000))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("this needs 5 MB, 0 MB may be used")
                .hasMessageContaining("Remove clips")
                .hasMessageContaining("Dispatch, Storage");
    }

    /** Two transfers that fit one by one do not fit together; what has arrived is on the disk and no longer to come. */
    @Test
    void whatIsPromisedToOthersIsNotPromisedAgain() throws IOException {
        long free = Files.getFileStore(home).getUsableSpace();
        var media = media(DataSize.ofBytes(0));
        long more = free * 2 / 3;
        var left = new java.util.concurrent.atomic.AtomicLong(more);
        try (var _ = media.promise(more, left::get)) {
            assertThatThrownBy(() -> media.demandSpace(more)).isInstanceOf(Refusal.class);
            assertThatThrownBy(() -> media.promise(more, () -> more)).isInstanceOf(Refusal.class);
            left.set(0);
            assertThatCode(() -> media.demandSpace(more)).doesNotThrowAnyException();
        }
        assertThatCode(() -> media.demandSpace(more)).doesNotThrowAnyException();
    }

    @Test
    void aFolderGoesWithAllThatIsInIt() throws IOException {
        Path folder = Files.createDirectories(home.resolve("a/b/c")).getParent().getParent();
        Files.writeString(home.resolve("a/b/file"), "x");
        Path outside = Files.writeString(home.resolve("kept"), "x");
        Files.createSymbolicLink(home.resolve("a/link"), outside);
        MediaFolder.remove(folder);
        assertThat(folder).doesNotExist();
        assertThat(outside).exists();
        assertThatCode(() -> MediaFolder.remove(folder)).doesNotThrowAnyException();
    }
}
