package awlsmith.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** A batch as it is sent out in the evening: two clips, two files each; it rests, the server is killed, and in the morning all is there. */
class SendingIT extends BrowserIT {
    private static final LocatorAssertions.HasCountOptions LONG =
            new LocatorAssertions.HasCountOptions().setTimeout(PATIENCE);

    private static Path footage(String name, int frames) {
        return TestClips.moving(
                folder, name, 320, 240, "25", frames, "-pix_fmt yuv420p -c:v libx264 -preset ultrafast -g 50");
    }

    @Test
    void aBatchRestsSurvivesAKilledServerAndComesOutRight() throws IOException {
        page.navigate(base + "/shelf");
        assertThat(page.getByText("Drop files anywhere")).isVisible(SOON);
        page.locator("input[aria-label='Take in files']")
                .setInputFiles(new Path[] {footage("pier.mp4", 250), footage("quay.mp4", 200)});
        for (String clip : List.of("pier.mp4", "quay.mp4")) {
            Locator row = page.locator("[data-clip='" + clip + "']");
            assertThat(row.getByText("1 take")).isVisible(SOON);
            row.getByRole(AriaRole.CHECKBOX).click();
        }
        page.locator("[data-test=send-selected]").click();
        assertThat(page.getByText("Send out 2 clips")).isVisible(SOON);
        assertThat(page.locator("[data-test=plan]")).containsText("roughly");
        page.locator("[data-test=another]").click();
        page.locator("[data-test=preset-edit]").click();
        assertThat(page.locator("[data-test=plan]")).containsText("To cut");
        page.locator("[data-test=tags]").click();
        page.locator("[data-test=tag-title]").fill("{clip}, take {take}");
        Locator name = page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true));
        name.fill("{clip} {codec}");
        assertThat(page.getByText("pier ProRes.mov")).isVisible(SOON);
        assertAccessible("the dialog of several clips");
        page.locator("[data-test=send]").click();
        assertThat(page.getByText("4 files sent to Dispatch")).isVisible(SOON);

        page.navigate(base + "/dispatch");
        Locator running = page.locator("[data-test=render-running]");
        // both files of the first clip are made at once
        assertThat(running).hasCount(2, LONG);
        assertThat(running.first().getByText(Pattern.compile("frame \\d+ of 250 · [\\d.]+ fps")))
                .isVisible(SOON);
        page.locator("[data-test=rest-all]").click();
        assertThat(page.locator("[data-test=render-paused]")).hasCount(4, LONG);
        assertAccessible("dispatch at rest");
        server.kill();
        assertThat(page.getByText("The connection to the server is lost")).isVisible(SOON);
        server.start();
        assertThat(page.getByText("The connection to the server is lost"))
                .isHidden(new LocatorAssertions.IsHiddenOptions().setTimeout(PATIENCE));
        assertThat(page.locator("[data-test=render-paused]")).hasCount(4, LONG);
        page.locator("[data-test=resume-all]").click();
        assertThat(page.locator("[data-test=render-paused]")).hasCount(0, LONG);
        // and once more in the midst of it
        assertThat(running).hasCount(2, LONG);
        server.kill();
        server.start();
        assertThat(page.locator("[data-test=render-done]")).hasCount(4, LONG);
        for (String[] file : new String[][] {
            {"pier H264.mp4", "250", "h264"},
            {"pier ProRes.mov", "250", "prores"},
            {"quay H264.mp4", "200", "h264"},
            {"quay ProRes.mov", "200", "prores"}
        }) {
            Locator row =
                    page.locator("[data-test=render-done]").filter(new Locator.FilterOptions().setHasText(file[0]));
            Download download =
                    page.waitForDownload(() -> row.getByText("Download").click());
            Path fetched = folder.resolve("fetched-" + file[0].replace(" ", "-"));
            download.saveAs(fetched);
            assertThat(download.suggestedFilename()).isEqualTo(file[0]);
            assertThat(TestClips.times(fetched)).hasSize(Integer.parseInt(file[1]));
            assertThat(TestClips.entry(fetched, "codec_name")).isEqualTo(file[2]);
            assertThat(TestClips.entry(fetched, "width")).isEqualTo("640");
            assertThat(TestClips.tag(fetched, "title"))
                    .isEqualTo(file[2].equals("prores") ? file[0].split(" ")[0] + ", take A" : "");
            Files.delete(fetched);
        }
        // one of them is treated further
        Locator first =
                page.locator("[data-test=render-done]").filter(new Locator.FilterOptions().setHasText("quay H264.mp4"));
        first.getByText("More").click();
        page.getByText("Put it on the shelf").click();
        assertThat(page.getByText("quay H264.mp4 is on the shelf")).isVisible(SOON);
        page.navigate(base + "/shelf");
        assertThat(page.locator("[data-clip='quay H264.mp4']").getByText("1 take"))
                .isVisible(SOON);
        assertThat(FAULTS).isEmpty();
    }
}
