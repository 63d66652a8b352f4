package awlsmith.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Two parts of a recording become one clip, which goes out as a film, as sound alone and as a contact sheet. */
class JoiningIT extends BrowserIT {
    private static final LocatorAssertions.HasCountOptions LONG =
            new LocatorAssertions.HasCountOptions().setTimeout(PATIENCE);

    private static Path part(String name, int frames) throws IOException {
        Path words =
                Files.writeString(folder.resolve(name + ".srt"), "1\n00:00:00,100 --> 00:00:00,900\nAll aboard\n\n");
        Path file = folder.resolve(name);
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=320x240:r=25 -f lavfi -i sine=r=48000:d=" + frames / 25.0 + " -i " + words
                        + " -map 0 -map 1 -map 2 -frames:v " + frames
                        + " -pix_fmt yuv420p -c:v libx264 -preset ultrafast -g 25 -c:a aac -c:s srt " + file);
        return file;
    }

    /** By its first letters, as the list shows a few at a time. */
    private void chooseCodec(String label) {
        Locator codecs = page.locator(".v-dialog .v-select").first();
        codecs.click();
        assertThat(page.getByRole(AriaRole.LISTBOX)).isVisible(SOON);
        page.keyboard().type(label.split(" ")[0]);
        assertThat(codecs).containsText(label);
        // closes the list, and goes on
        page.keyboard().press("Tab");
        assertThat(page.getByRole(AriaRole.LISTBOX)).isHidden();
    }

    @Test
    void partsAreJoinedAndGoOutInEveryWay() throws IOException {
        page.navigate(base + "/shelf");
        assertThat(page.getByText("Drop files anywhere")).isVisible(SOON);
        page.locator("input[aria-label='Take in files']")
                .setInputFiles(new Path[] {part("crossing-1.mkv", 50), part("crossing-2.mkv", 75)});
        for (String clip : List.of("crossing-2.mkv", "crossing-1.mkv")) {
            Locator row = page.locator("[data-clip='" + clip + "']");
            assertThat(row.getByText("1 take")).isVisible(SOON);
            row.getByRole(AriaRole.CHECKBOX).click();
        }
        page.locator("[data-test=join-selected]").click();
        Locator dialog = page.locator("[data-test=join-dialog]");
        assertThat(dialog.locator("li").first()).containsText("crossing-1.mkv");
        assertAccessible("the dialog of joining");
        page.locator("[data-test=join]").click();
        Locator joined = page.locator("[data-clip='crossing joined']");
        assertThat(joined.getByText("1 take")).isVisible(SOON);

        joined.getByRole(AriaRole.CHECKBOX).click();
        page.locator("[data-test=send-selected]").click();
        assertThat(page.locator("[data-test=plan]"))
                .containsText("fps", new LocatorAssertions.ContainsTextOptions().setTimeout(PATIENCE));
        page.locator("[data-test=another]").click();
        chooseCodec("Contact sheet");
        assertThat(page.locator("[data-test=plan]")).containsText("Contact sheet");
        page.locator("[data-test=another]").click();
        chooseCodec("Sound alone");
        assertThat(page.locator("[data-test=plan]")).containsText("Sound alone");
        assertAccessible("the dialog of three files");
        page.locator("[data-test=send]").click();
        page.navigate(base + "/dispatch");
        assertThat(page.locator("[data-test=render-done]")).hasCount(3, LONG);
        assertThat(page.getByText("one picture")).isVisible(SOON);
        Locator sound = page.locator("[data-test=render-done]").filter(new Locator.FilterOptions().setHasText(".wav"));
        Download download =
                page.waitForDownload(() -> sound.getByText("Download").click());
        Path fetched = folder.resolve("fetched.wav");
        download.saveAs(fetched);
        assertThat(Double.parseDouble(TestClips.ffprobe("-show_entries format=duration -of csv=p=0 " + fetched)
                        .strip()))
                .isBetween(4.99, 5.01);
        assertThat(FAULTS).isEmpty();
    }
}
