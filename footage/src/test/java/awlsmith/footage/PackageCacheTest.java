package awlsmith.footage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PackageCacheTest {
    @TempDir
    Path folder;

    @Test
    void whatIsThereIsNotFetchedAgain() throws IOException {
        Path picture = Files.createDirectories(folder.resolve("some-pictures/usr/share"))
                .resolve("a.jpg");
        Files.writeString(picture, "picture");
        var cache = new PackageCache(folder);
        assertThat(cache.file("some-pictures", "share/a.jpg")).hasContent("picture");
        assertThatThrownBy(() -> cache.file("some-pictures", "b.jpg"))
                .isInstanceOf(IOException.class)
                .hasMessage("some-pictures has no file b.jpg");
    }

    @Test
    void aPackageThatDoesNotExistIsNamed() {
        assertThatThrownBy(() -> new PackageCache(folder.resolve("cache")).unpacked("no-such-package-anywhere"))
                .isInstanceOf(IOException.class)
                .hasMessageStartingWith("the package no-such-package-anywhere could not be fetched");
        assertThat(folder.resolve("cache/no-such-package-anywhere")).doesNotExist();
    }
}
