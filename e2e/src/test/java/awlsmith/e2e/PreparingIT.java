package awlsmith.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;

/** As a new user would: drop a mixed heap, see what is wrong with each, take a suggestion, set a span, crop, repair. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class PreparingIT extends BrowserIT {
    private static final LocatorAssertions.ContainsTextOptions IN_TIME =
            new LocatorAssertions.ContainsTextOptions().setTimeout(PATIENCE);

    private static Locator row(String name) {
        return page.getByRole(AriaRole.LISTITEM).filter(new Locator.FilterOptions().setHasText(name));
    }

    /** Nothing dropped before the page listens is heard. */
    private static void shelf() {
        page.navigate(base + "/shelf");
        assertThat(row("Old tape.mpg")).isVisible(SOON);
    }

    private static void open(String name) {
        shelf();
        row(name)
                .getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName(name))
                .last()
                .click();
        settled();
    }

    @Test
    @Order(1)
    void aMixedHeapIsTakenInAndEachClipsConditionAppears() throws IOException {
        Path fields = folder.resolve("fields.mpg");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=320x240:r=50 -frames:v 60 -vf gblur=0.7,tinterlace=mode=interleave_top"
                + " -pix_fmt yuv420p -c:v mpeg2video -q:v 3 -flags +ildct+ilme -top 1 " + fields);
        Path whole = folder.resolve("whole.mkv");
        TestClips.ffmpeg("-f lavfi -i mandelbrot=s=160x120:r=25:start_scale=1:end_scale=0.3:end_pts=90 -frames:v 100"
                + " -pix_fmt yuv420p -c:v libx264 -g 25 -bf 0 " + whole);
        byte[] bytes = Files.readAllBytes(whole);
        byte[] cut = Arrays.copyOf(bytes, bytes.length * 2 / 3);
        for (int i = 0; i < 150; i++) {
            cut[cut.length / 2 + i] = (byte) (37 * i);
        }
        drop("Old tape.mpg", Files.readAllBytes(fields));
        drop("letter.mp4", "dear ferry\n".repeat(300).getBytes());
        drop("Broken off.mkv", cut);
        assertThat(page.getByText("letter.mp4: this is not a video")).isVisible(SOON);
        assertThat(row("Old tape.mpg").locator("[data-test=wrong]")).containsText("fields woven", IN_TIME);
        assertThat(row("Old tape.mpg").locator("[data-test=bar-comb]")).isVisible();
        assertThat(row("Broken off.mkv").getByText(Pattern.compile("the file ends early.*damaged place")))
                .isVisible(SOON);
    }

    @Test
    @Order(2)
    void aTransferThatBreaksIsTakenUpAgain() throws IOException {
        var broken = new AtomicInteger();
        var asked = new AtomicInteger();
        page.route("**/api/uploads/*", route -> {
            String method = route.request().method();
            asked.addAndGet(method.equals("HEAD") ? 1 : 0);
            if (method.equals("PATCH") && broken.getAndIncrement() == 0) {
                route.abort();
            } else {
                route.resume();
            }
        });
        Path file = TestClips.moving(folder, "resumed.mp4", 160, 120, "25", 20, "-pix_fmt yuv420p -c:v libx264");
        drop("Resumed.mp4", Files.readAllBytes(file));
        assertThat(row("Resumed.mp4").getByText("1 take")).isVisible(SOON);
        page.unroute("**/api/uploads/*");
        assertThat(broken.get()).isGreaterThan(1);
        // after the break it asked how much had arrived
        assertThat(asked.get()).isPositive();
    }

    @Test
    @Order(3)
    void theSuggestionIsTakenAtOneClickAndFieldsBecomeFrames() {
        open("Old tape.mpg");
        Locator suggested = page.locator("[data-test=suggested]");
        assertThat(suggested).containsText("suggested");
        suggested.locator(".fold").click();
        assertThat(suggested).containsText("Deinterlace fields woven, top field first");
        suggested.getByText("Take it").click();
        assertThat(page.locator("[data-test=size]").first()).hasText("320×240 · 50p");
        assertThat(suggested).containsText("taken");
        settled();
        page.keyboard().press(".");
        assertThat(page.locator(".glass .chip").first()).containsText("+ 1/2");
        page.keyboard().press(".");
        assertThat(page.locator(".glass .chip").first()).not().containsText("+ 1/2");
        page.keyboard().press("Control+z");
        assertThat(suggested).containsText("Take it");
        // stepping goes by the plan, which follows a moment later; fields that are enlarged as they are make whole
        // frames
        assertThat(page.locator("[data-test=size]").first()).containsText("640×480 · 25p");
    }

    @Test
    @Order(4)
    void aSpanIsMarkedByKeysAndTypedExactly() {
        page.keyboard().press("Home");
        for (int i = 0; i < 5; i++) {
            page.keyboard().press(".");
        }
        page.keyboard().press("i");
        for (int i = 0; i < 9; i++) {
            page.keyboard().press(".");
        }
        page.keyboard().press("o");
        Locator span = page.locator("[data-test=span]");
        assertThat(span).containsText("in 0:00.20");
        assertThat(span).containsText("out 0:00.60");
        span.getByText("in 0:00.20").click();
        page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("in"))
                .fill("00:00:00:08");
        page.keyboard().press("Enter");
        assertThat(span).containsText("in 0:00.32");
    }

    @Test
    @Order(5)
    void smallPicturesStandInWhileOneDragsAlongTheTimeAxis() {
        BoundingBox strip = page.locator("[data-test=strip]").boundingBox();
        double y = strip.y + strip.height / 2;
        Locator under = page.locator("[data-test=peek] img");
        page.mouse().move(strip.x + strip.width / 2, y);
        assertThat(under).isVisible(SOON);
        assertThat(page.locator("[data-test=peek]")).containsText("frame 30");
        Locator name = page.locator("[data-test=left-name]");
        page.mouse().down();
        boolean seen = false;
        for (int i = 0; i < 200 && !seen; i++) {
            page.mouse().move(strip.x + strip.width * (0.1 + 0.004 * i), y);
            seen = name.textContent().contains("small");
        }
        assertThat(seen).isTrue();
        assertThat(under).isHidden();
        page.mouse().up();
        settled();
        assertThat(name).not().containsText("small");
    }

    @Test
    @Order(6)
    void aCropDraggedOnThePictureKeepsTheVeryPixels() throws IOException {
        Path file = folder.resolve("quarters.mkv");
        // four colours that meet at 80,60 of 160x120
        TestClips.ffmpeg("-f lavfi -i color=red:s=160x120:r=25:d=1 -vf drawbox=x=80:y=0:w=80:h=60:color=blue:t=fill,"
                + "drawbox=x=0:y=60:w=80:h=60:color=white:t=fill,drawbox=x=80:y=60:w=80:h=60:color=lime:t=fill"
                + " -pix_fmt yuv444p -c:v ffv1 " + file);
        shelf();
        drop("Quarters.mkv", Files.readAllBytes(file));
        assertThat(row("Quarters.mkv").getByText("1 take")).isVisible(SOON);
        open("Quarters.mkv");
        page.keyboard().press("c");
        settled();
        drag(page.locator("[data-test=grip-nw]"), 40, 30);
        drag(page.locator("[data-test=grip-se]"), -20, -10);
        Locator crop = page.locator("[data-test=crop]");
        assertThat(crop).containsText("100×80 at 40,30");
        page.keyboard().press("Escape");
        assertThat(crop).isHidden();
        assertThat(page.locator("[data-test=size]").first()).hasText("100×80 · 25p");
        press("treated");
        // of the kept box alone all of the source is seen at the second press
        press("fit");
        settled();
        // what lies in the crop is where it was, what lies outside is gone
        assertColour(seen(60, 45), 200, 0, 0);
        assertColour(seen(100, 45), 0, 0, 200);
        assertColour(seen(60, 80), 200, 200, 200);
        assertColour(seen(100, 80), 0, 200, 0);
        assertThat(seen(20, 15)).isEqualTo(new int[] {0x16, 0x16, 0x16});
    }

    /** Drags a grip by pixels of the source picture. */
    private static void drag(Locator grip, double x, double y) {
        BoundingBox at = grip.boundingBox();
        double scale = view("scale");
        double fromX = at.x + at.width / 2;
        double fromY = at.y + at.height / 2;
        page.mouse().move(fromX, fromY);
        page.mouse().down();
        page.mouse().move(fromX + x * scale / 2, fromY + y * scale / 2);
        page.mouse().move(fromX + x * scale, fromY + y * scale);
        page.mouse().up();
    }

    private static void assertColour(int[] seen, int... least) {
        for (int i = 0; i < 3; i++) {
            assertThat(seen[i] > 150).as(Arrays.toString(seen)).isEqualTo(least[i] > 150);
        }
    }

    @Test
    @Order(7)
    void damageIsMarkedAndARebuiltCopyStandsBesideIt() {
        open("Broken off.mkv");
        assertThat(page.locator("[data-test=damage]").first()).isVisible();
        shelf();
        row("Broken off.mkv").getByText("Repair a copy").click();
        assertThat(row("Broken off.mkv repaired").getByText("1 take")).isVisible(SOON);
        row("Broken off.mkv")
                .filter(new Locator.FilterOptions().setHasNotText("repaired"))
                .getByText("Mend a copy")
                .click();
        assertThat(row("Broken off.mkv mended").getByText("FFV1")).isVisible(SOON);
        assertThat(FAULTS).isEmpty();
    }

    @Test
    @Order(7)
    void numberedPicturesBecomeAClip() throws IOException {
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=96x64:r=25 -frames:v 6 -pix_fmt rgb24 " + folder.resolve("plank_%02d.png"));
        Files.delete(folder.resolve("plank_04.png"));
        Path[] pictures;
        try (var files = Files.list(folder)) {
            pictures = files.filter(file -> file.getFileName().toString().startsWith("plank_"))
                    .toArray(Path[]::new);
        }
        page.locator("input[aria-label='Take in files']").setInputFiles(pictures);
        Locator dialog = page.locator("[data-test=series]");
        assertThat(dialog.getByText("1 missing: 4")).isVisible();
        assertAccessible("what a series of pictures becomes");
        dialog.locator(".v-select").click();
        page.getByRole(
                        AriaRole.OPTION,
                        new Page.GetByRoleOptions().setName("18").setExact(true))
                .click();
        dialog.getByText("As one clip").click();
        Locator made = row("plank 1-6.png");
        assertThat(made.getByText("1 picture is missing from the numbering (4)"))
                .isVisible(SOON);
        assertThat(made.getByText(Pattern.compile("18p"))).isVisible();
        // off the shelf, and back with all that belongs to it
        page.getByLabel("More for plank 1-6.png").click();
        page.getByText("Take off the shelf").click();
        page.locator("[data-test=aside]").getByText("take back").click();
        assertThat(row("plank 1-6.png").getByText("1 take")).isVisible(SOON);
        assertThat(FAULTS).isEmpty();
    }

    /** A still picture that shakes by whole pixels: suggested, looked through, and then it lies where the source does. */
    @Test
    @Order(8)
    void aShakyClipIsHeldSteady() throws IOException {
        Path shaky = folder.resolve("shaky.mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=320x240:r=25,loop=loop=-1:size=1 -frames:v 75 -vf"
                + " crop=256:192:x='32+8*sin(n*2.1)':y='24+6*cos(n*1.7)' -pix_fmt yuv420p -c:v libx264 -crf 8 "
                + shaky);
        shelf();
        drop("Shaky.mp4", Files.readAllBytes(shaky));
        assertThat(row("Shaky.mp4").locator("[data-test=wrong]")).containsText("shakes by", IN_TIME);
        open("Shaky.mp4");
        page.getByText("Take it", new Page.GetByTextOptions().setExact(true)).click();
        // a short clip is looked through unasked
        Locator looking = page.locator("[data-test=looking]");
        assertThat(page.getByText("Steady").first()).isVisible();
        assertThat(looking).isHidden(new LocatorAssertions.IsHiddenOptions().setTimeout(PATIENCE));
        assertThat(page.getByText(Pattern.compile("over 1 s, enlarged by up to \\d+ %")))
                .isVisible();
        // the last step taken is the one that is open
        assertThat(page.locator("[data-test=step-curves] svg")).hasCount(3);
        page.keyboard().press(".");
        assertThat(page.locator("[data-test=frame]")).containsText("frame 38 ");
        settled();
        assertThat(FAULTS).isEmpty();
    }

    /** A curve bent by pointer and by keys, a value that changes over time, and a table out of a file; all of it accessible. */
    @Test
    @Order(9)
    void lightIsSetByACurveOverTimeAndByATable() throws IOException {
        open("Old tape.mpg");
        addStep("Levels");
        Locator summary = page.locator(".open .step .figure");
        assertThat(summary).hasText("0 to 100 %, gamma 1");
        page.locator(".open [data-test=more]").click();
        Locator board = page.locator(".curve svg");
        board.scrollIntoViewIfNeeded();
        BoundingBox box = board.boundingBox();
        page.mouse().move(box.x + box.width * 0.3, box.y + box.height * 0.7);
        page.mouse().down();
        page.mouse().move(box.x + box.width * 0.3, box.y + box.height * 0.5);
        page.mouse().up();
        assertThat(summary).containsText(", curve");
        Locator point = board.getByLabel("Point 2");
        assertThat(point).hasAttribute("aria-valuenow", "50");
        point.focus();
        page.keyboard().press("ArrowUp");
        assertThat(point).hasAttribute("aria-valuenow", "51");
        page.keyboard().press("Delete");
        assertThat(board.getByLabel("Point 3")).isHidden();
        assertThat(summary).not().containsText("curve");
        // the value at this frame becomes one of two, and only this one changes
        page.locator(".open").getByText("changes over time").first().click();
        assertThat(page.locator(".keys .key")).hasCount(2);
        Locator black = page.getByLabel("Black", new Page.GetByLabelOptions().setExact(true));
        black.fill("12");
        black.press("Enter");
        assertThat(summary).containsText("0…12 to 100 %");
        page.getByText("same throughout").click();
        assertThat(summary).containsText("12 to 100 %");
        addStep("Lookup table");
        Path table = folder.resolve("warm.cube");
        Files.writeString(table, "LUT_1D_SIZE 2\n0.1 0 0\n1 1 0.9\n");
        page.locator(".open input[type=file]").setInputFiles(folder.resolve("fields.mpg"));
        assertThat(page.locator(".open")).containsText("cannot be used");
        page.locator(".open input[type=file]").setInputFiles(table);
        assertThat(summary).hasText("warm.cube");
        settled();
        assertAccessible("the levels and table cards");
    }

    private static void addStep(String name) {
        page.getByText("+ step").click();
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Find a step"))
                .fill(name);
        page.locator(".kind:has(b:text-is(\"" + name + "\"))").first().click();
    }

    @Test
    @Order(30)
    void whatOneStepChangesIsSeenAlone() {
        open("Resumed.mp4");
        page.getByText("+ step").click();
        page.locator(".kind")
                .filter(new Locator.FilterOptions().setHasText("Denoise"))
                .first()
                .click();
        Locator alone = page.locator("[data-test=alone]");
        alone.click();
        assertThat(page.locator(".glass")).containsText("difference ×8");
        page.keyboard().press("w");
        assertThat(page.locator(".glass")).containsText("before denoise");
        assertThat(page.locator(".glass")).containsText("after denoise 160×120");
        alone.click();
        assertThat(page.locator(".glass")).not().containsText("before denoise");
        assertThat(alone).hasText("See what it changes");
    }
}
