package awlsmith.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.media.TestClips;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;

/**
 * Eight jobs as a practitioner does them, in few clicks, and nothing that is fixed on the bench moves meanwhile. How many clicks each took is
 * written to target/jobs.md.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class JobsIT extends BrowserIT {
    /** What must stay where it is on the bench whatever is done. */
    private static final List<String> FIXED = List.of(
            "header", ".ledger", ".glass", ".side", ".run", ".strip", ".foot", ".tabs", "[data-test=suggested]");

    private static final LocatorAssertions.IsVisibleOptions MADE =
            new LocatorAssertions.IsVisibleOptions().setTimeout(PATIENCE);
    private static final List<String> TOLD = new ArrayList<>();
    private static int clicks;
    private static int keys;

    private static Locator row(String name) {
        return page.locator("[data-clip='" + name + "']");
    }

    private static Map<String, List<Long>> places() {
        var all = new TreeMap<String, List<Long>>();
        for (String part : FIXED) {
            Locator found = page.locator(part).first();
            if (page.url().contains("/bench/") && found.count() > 0) {
                BoundingBox box = found.boundingBox();
                // what is scrolled out of sight may lie anywhere
                if (box.y < 0) {
                    continue;
                }
                all.put(
                        part,
                        List.of(Math.round(box.x), Math.round(box.y), Math.round(box.width), Math.round(box.height)));
            }
        }
        return all;
    }

    /** One act of a hand on the bench, after which all that is fixed lies where it lay. */
    private static void still(Runnable act) {
        var before = places();
        act.run();
        settled();
        assertThat(places()).isEqualTo(before);
    }

    private static void click(Locator what) {
        clicks++;
        what.click();
    }

    private static void key(String name) {
        keys++;
        page.keyboard().press(name);
    }

    private static void begin() {
        clicks = 0;
        keys = 0;
    }

    private static void end(String job, int before) {
        TOLD.add("| " + job + " | " + clicks + " | " + keys + " | " + before + " |");
    }

    @AfterAll
    static void write() throws IOException {
        Files.createDirectories(Path.of("target"));
        Files.writeString(
                Path.of("target", "jobs.md"),
                "| job | clicks | keys | clicks and keys before |\n|---|---|---|---|\n" + String.join("\n", TOLD)
                        + "\n");
    }

    private static void shelf() {
        page.navigate(base + "/shelf");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Shelf")))
                .isVisible(SOON);
        // nothing dropped before the page listens is heard
        assertThat(page.getByText("Drop files anywhere")).isVisible(SOON);
    }

    private static void treat(String name) {
        click(page.getByLabel("Treat " + name));
        settled();
    }

    private static void send() {
        still(() -> {
            click(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Dispatch…")));
            assertThat(page.locator("[data-test=dispatch-span]")).isVisible(SOON);
            assertAccessible("the dispatch dialog");
            click(page.locator("[data-test=send]"));
            assertThat(page.getByText("Sent to Dispatch")).isVisible(SOON);
        });
    }

    private static void ready(String name) {
        assertThat(row(name).getByText("1 take")).isVisible(MADE);
        assertThat(row(name).locator("[data-test=wrong] [role=status]"))
                .hasCount(0, new LocatorAssertions.HasCountOptions().setTimeout(PATIENCE));
    }

    /** Own, empty and false files: each is there, or says what is wrong with it. */
    @Test
    @Order(1)
    void ownEmptyAndFalseFilesAreTakenIn() throws IOException {
        Path tape = folder.resolve("tape.mpg");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=160x120:r=50 -f lavfi -i sine=r=48000 -frames:v 24 -t 0.5 -vf"
                + " gblur=0.7,tinterlace=mode=interleave_top -pix_fmt yuv420p -c:v mpeg2video -q:v 3 -flags +ildct+ilme -top 1"
                + " -c:a mp2 " + tape);
        Path night = folder.resolve("night.mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=160x120:r=25 -frames:v 16 -vf"
                + " eq=brightness=-0.3:contrast=0.5,noise=alls=24:allf=t -pix_fmt yuv420p -c:v libx264 -crf 16 "
                + night);
        Path drawn = folder.resolve("drawn.gif");
        TestClips.ffmpeg("-f lavfi -i testsrc=s=120x90:r=10 -frames:v 8 " + drawn);
        Path faded = folder.resolve("faded.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=160x120:r=18 -frames:v 16 -vf"
                + " format=gray,lutyuv=y=80+val*0.25 -c:v ffv1 " + faded);
        Path whole = folder.resolve("whole.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=160x120:r=25 -frames:v 60 -pix_fmt yuv420p -c:v libx264 -g 12 -bf 0 " + whole);
        byte[] bytes = Files.readAllBytes(whole);
        begin();
        shelf();
        drop("Tape.mpg", Files.readAllBytes(tape));
        drop("Night.mp4", Files.readAllBytes(night));
        drop("Drawn.gif", Files.readAllBytes(drawn));
        drop("Faded.mkv", Files.readAllBytes(faded));
        drop("Damaged.mkv", Arrays.copyOf(bytes, bytes.length * 3 / 5));
        drop("empty.mp4", new byte[0]);
        drop("letter.mov", "dear ferry\n".repeat(300).getBytes());
        assertThat(page.getByText("empty.mp4 is empty")).isVisible(SOON);
        assertThat(page.getByText("letter.mov: this is not a video")).isVisible(MADE);
        for (String name : List.of("Tape.mpg", "Night.mp4", "Drawn.gif", "Faded.mkv", "Damaged.mkv")) {
            ready(name);
        }
        // what came last stands first, and is marked until somebody looks at it
        assertThat(page.locator("[data-clip]").first()).hasAttribute("data-clip", "Damaged.mkv");
        assertThat(row("Tape.mpg").locator("[data-test=new]")).isVisible();
        assertAccessible("the shelf with faults");
        end("own, empty and false files taken in", 2);
    }

    @Test
    @Order(2)
    void aTapeBecomesACleanFile() {
        begin();
        shelf();
        treat("Tape.mpg");
        still(() -> click(page.getByText("Take it", new Page.GetByTextOptions().setExact(true))));
        send();
        click(page.getByRole(
                AriaRole.LINK, new Page.GetByRoleOptions().setName("Dispatch").setExact(true)));
        Locator done = page.locator("[data-test=render-done]").first();
        assertThat(done).isVisible(MADE);
        // layer II sound is not what every player reads in MP4
        assertThat(done).containsText("coded as AAC");
        Download file = page.waitForDownload(() -> click(done.getByText("Download")));
        String tags = TestClips.ffprobe(
                "-select_streams v -show_entries stream=color_range,color_space,color_transfer,color_primaries -of csv=p=0 "
                        + file.path());
        assertThat(tags).doesNotContain("unknown");
        assertThat(tags.strip().split(",")).hasSize(4);
        shelf();
        assertThat(row("Tape.mpg")).containsText("1 sent out");
        assertThat(row("Tape.mpg").locator("[data-test=new]")).hasCount(0);
        end("tape to a clean file", 14);
    }

    @Test
    @Order(3)
    void aNightClipIsTreatedTwiceAndChosenBlind() {
        begin();
        shelf();
        treat("Night.mp4");
        still(() -> click(page.getByText("Take it", new Page.GetByTextOptions().setExact(true))));
        page.mouse().move(600, 300);
        still(() -> key("p"));
        assertThat(page.locator("[data-test=pin]")).hasCount(1);
        still(() -> key("n"));
        assertThat(page.locator("[data-test=takes]")).containsText("Take B");
        Locator plain = page.locator("[data-test=swatch-none-]");
        plain.scrollIntoViewIfNeeded();
        double top = plain.boundingBox().y;
        still(() -> click(plain));
        assertThat(plain.boundingBox().y).isCloseTo(top, within(1.0));
        key("g");
        assertThat(page.getByText("2 takes at 1 pin")).isVisible(SOON);
        key("b");
        assertAccessible("the sheet while names are hidden");
        click(page.locator("[data-test=take]").first().getByText("choose"));
        assertThat(page.getByText("You chose take")).isVisible(SOON);
        end("night clip, two treatments, blind choice", 13);
    }

    @Test
    @Order(4)
    void aDrawnClipIsLetterboxed() {
        begin();
        shelf();
        treat("Drawn.gif");
        still(() -> click(page.locator("[data-test=frame-1080p] text")));
        still(() -> click(page.getByRole(
                AriaRole.BUTTON,
                new Page.GetByRoleOptions().setName("Letterbox").setExact(true))));
        assertThat(page.locator("[data-test=size]").last()).containsText("1920×1080");
        assertThat(page.locator("[data-test=fitted]")).containsText("25 % of the frame stays black, left and right");
        send();
        end("drawn clip letterboxed", 7);
    }

    @Test
    @Order(5)
    void aDamagedFileIsRescuedAndTheRecordSaysHow() {
        begin();
        shelf();
        click(row("Damaged.mkv").getByText("Mend a copy"));
        ready("Damaged.mkv mended");
        Locator made = row("Damaged.mkv mended");
        // it was cut off behind whole pictures: nothing between two of them is lost
        assertThat(made.locator("[data-test=rescue]"))
                .hasText(Pattern.compile("no frame had to be made up; \\d+ are missing at the end"));
        assertThat(made.getByText("Mend a copy")).hasCount(0);
        assertThat(made.getByText("Repair a copy")).hasCount(0);
        end("damaged file rescued", 2);
    }

    @Test
    @Order(6)
    void aFadedReelGetsItsLightBack() {
        begin();
        shelf();
        treat("Faded.mkv");
        still(() -> click(page.getByText("Take it", new Page.GetByTextOptions().setExact(true))));
        assertThat(page.locator(".ledger")).containsText("Levels");
        send();
        end("faded reel", 6);
    }

    @Test
    @Order(7)
    void aCloseUpAtThreeTimesAndItsCrops() {
        begin();
        shelf();
        treat("Night.mp4");
        still(() -> {
            Locator factor = page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Factor"));
            click(factor);
            factor.fill("3");
            key("Enter");
        });
        assertThat(page.locator("[data-test=size]").last()).containsText("480×360");
        // a crop far from the middle of what is seen must not save a black picture
        still(() -> key("c"));
        BoundingBox box = glass().boundingBox();
        still(() -> {
            clicks++;
            page.mouse().move(box.x + box.width * 0.55, box.y + box.height * 0.55);
            page.mouse().down();
            page.mouse().move(box.x + box.width * 0.7, box.y + box.height * 0.7);
            page.mouse().up();
        });
        assertThat(page.locator("[data-test=crop]")).containsText("×");
        still(() -> key("Escape"));
        Download crops =
                page.waitForDownload(() -> click(page.getByText("crops", new Page.GetByTextOptions().setExact(true))));
        assertThat(crops.suggestedFilename()).contains("crops");
        var saved = image(crops.path());
        for (int strip = 0; strip < 3; strip++) {
            // the treated half of each magnification, without its captions: a picture, if one of the night, and not the
            // glass's ground
            var tones = new java.util.HashSet<Integer>();
            int ground = 0;
            for (int y = 60; y < 320; y++) {
                for (int x = 500; x < 940; x++) {
                    int colour = saved.getRGB(x, strip * saved.getHeight() / 3 + y) & 0xFFFFFF;
                    tones.add(colour >> 8 & 255);
                    ground += colour == 0x161616 ? 1 : 0;
                }
            }
            assertThat(tones).as("strip %d", strip).hasSizeGreaterThan(20);
            // twice as large each time: the small box that is kept fills the last one
            double most = new double[] {0.9, 0.6, 0.1}[strip];
            assertThat(ground / (260.0 * 440)).as("strip %d", strip).isLessThan(most);
        }
        end("close-up at 3x with crops saved", 24);
    }

    /** Two proofs of one clip laid beside each other, keys only. */
    @Test
    @Order(8)
    void twoProofsAreComparedByKeys() {
        begin();
        shelf();
        treat("Drawn.gif");
        clicks = 0;
        still(() -> key("Enter"));
        assertThat(page.locator("[data-test=proof][data-state=DONE]"))
                .hasCount(1, new LocatorAssertions.HasCountOptions().setTimeout(PATIENCE));
        still(() -> key("n"));
        assertThat(page.locator("[data-test=takes]")).containsText("Take B");
        still(() -> {
            key("l");
            assertThat(page.locator(".kind").first()).isVisible(SOON);
            assertAccessible("the picker");
            keys += 4;
            page.keyboard().type("sharp");
            key("Enter");
        });
        still(() -> key("Enter"));
        assertThat(page.locator("[data-test=proof][data-state=DONE]"))
                .hasCount(2, new LocatorAssertions.HasCountOptions().setTimeout(PATIENCE));
        key("j");
        assertThat(page.locator("[data-test=proof-state]"))
                .containsText("A | B", new LocatorAssertions.ContainsTextOptions().setTimeout(PATIENCE));
        end("two proofs compared, keys only", 30);
        key("?");
        assertAccessible("the keys");
        key("Escape");
        assertThat(FAULTS).isEmpty();
    }
}
