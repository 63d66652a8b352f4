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
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;

/** Every way of looking and choosing, by the pixels that are shown. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class LookingIT extends BrowserIT {
    private static final LocatorAssertions.HasAttributeOptions LONG =
            new LocatorAssertions.HasAttributeOptions().setTimeout(PATIENCE);

    private static String bench;

    private static void chord(String... keys) {
        for (String key : keys) {
            page.keyboard().press(key);
        }
    }

    @Test
    @Order(1)
    void aClipIsOpened() throws IOException {
        Path file = folder.resolve("clip.mp4");
        // red left of column 80, blue right of it, a white square that moves along the top
        TestClips.ffmpeg("-f lavfi -i color=red:s=160x120:r=25:d=3 -f lavfi -i color=white:s=10x10:r=25:d=3 -f lavfi "
                + "-i sine=d=3 -filter_complex [0]drawbox=x=80:y=0:w=80:h=120:color=blue:t=fill[a];[a][1]overlay=x=2*n:y=4 "
                + "-pix_fmt yuv420p -c:v libx264 -preset ultrafast -crf 12 -c:a aac " + file);
        drop("Halves.mp4", Files.readAllBytes(file));
        Locator link = page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Halves.mp4").setExact(true))
                .last();
        assertThat(link).isVisible(SOON);
        link.click();
        settled();
        bench = page.url();
    }

    private static boolean isRed(int[] p) {
        return p[0] > 180 && p[2] < 90;
    }

    private static boolean isBlue(int[] p) {
        return p[2] > 180 && p[0] < 90;
    }

    @Test
    @Order(2)
    void aPairShowsTheSameSpotTwice() {
        chord("e", "8");
        settled();
        BoundingBox box = glass().boundingBox();
        double half = box.width / 2;
        for (double middle : new double[] {half / 2, half + half / 2}) {
            // the middle of the picture, where the colours meet, lies in the middle of each half
            assertThat(isRed(pixel(middle - 30, box.height / 2))).isTrue();
            assertThat(isBlue(pixel(middle + 30, box.height / 2))).isTrue();
        }
        // zooming at a pointer in the right half keeps the point under it
        page.mouse().move(box.x + half + half / 2 + 12, box.y + box.height / 2);
        page.mouse().wheel(0, -300);
        settled();
        assertThat(isBlue(pixel(half + half / 2 + 16, box.height / 2))).isTrue();
        assertThat(isRed(pixel(half / 2 - 60, box.height / 2))).isTrue();
        chord("w", "0");
    }

    @Test
    @Order(3)
    void theDifferenceIsDarkWhereNothingDiffers() {
        chord("d");
        settled();
        assertThat(page.getByText("white is 32 of 255")).isVisible();
        int[] flat = seen(30, 60);
        assertThat(flat[0] + flat[1] + flat[2]).isLessThan(60);
        chord("+");
        assertThat(page.getByText("white is 16 of 255")).isVisible();
        chord("w");
    }

    /** The right half cropped away is ground on the treated side and dim blue on the source's. */
    @Test
    @Order(4)
    void theTurnedEdgeParts() {
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("+ step"))
                .click();
        page.locator(".kind")
                .filter(new Locator.FilterOptions().setHasText("Crop"))
                .first()
                .click();
        chord("Escape");
        Locator width = page.getByLabel("Width").first();
        width.fill("80");
        width.press("Enter");
        assertThat(page.locator("[data-test=size]").first()).containsText("80×120");
        settled();
        page.locator("[data-test=glass]").focus();
        chord("0");
        for (int i = 0; i < 9; i++) {
            chord("}");
        }
        settled();
        assertThat(page.locator(".grip")).hasAttribute("style", Pattern.compile("rotate\\(45deg\\)"));
        BoundingBox box = glass().boundingBox();
        double x = box.width / 2;
        double y = box.height / 2;
        // on a line to the lower right of the middle all is on the treated side, to the upper right on the source's
        int[] above = pixel(x + 40, y - 120);
        int[] below = pixel(x + 120, y - 40);
        assertThat(above[2]).as("dim blue of the source").isGreaterThan(60);
        assertThat(below[2]).as("nothing of the treated picture").isLessThan(40);
        for (int i = 0; i < 9; i++) {
            chord("{");
        }
        chord("Control+z");
        chord("Control+z");
        assertThat(page.locator("[data-test=size]")).hasCount(1);
        settled();
    }

    @Test
    @Order(5)
    void pinsAreDroppedByKeyAndByBoxAndShowBothSides() {
        BoundingBox box = glass().boundingBox();
        page.mouse().move(box.x + box.width / 2, box.y + box.height / 2);
        chord("p");
        assertThat(page.locator("[data-test=pin]")).hasCount(1);
        page.keyboard().down("Shift");
        page.mouse().move(box.x + box.width / 2 - 90, box.y + 120);
        page.mouse().down();
        page.mouse().move(box.x + box.width / 2 - 20, box.y + 180);
        page.mouse().up();
        page.keyboard().up("Shift");
        assertThat(page.locator("[data-test=pin]")).hasCount(2);
        for (String side : List.of("source", "treated")) {
            Locator loupe = page.locator("[data-test=pin] canvas[data-side=" + side + "]")
                    .first();
            assertThat(loupe).hasAttribute("data-pending", "false", LONG);
            // the pin lies across the meeting of the colours: red on its left, blue on its right
            page.waitForFunction(
                    "(side) => { const c = document.querySelector(`[data-test=pin] canvas[data-side=${side}]`);"
                            + " const d = (x) => c.getContext('2d').getImageData(x, c.height / 2, 1, 1).data;"
                            + " return d(4)[0] > 150 && d(c.width - 5)[2] > 150 }",
                    side);
        }
        page.locator("[data-test=pin] button.name").first().click();
        page.getByLabel("Name of the pin").fill("meeting");
        page.getByLabel("Name of the pin").press("Enter");
        assertThat(page.getByText("1 meeting")).isVisible();
    }

    @Test
    @Order(6)
    void thePixelUnderThePointerAndTheScopesAreTold() {
        chord("x");
        BoundingBox box = glass().boundingBox();
        page.mouse().move(box.x + 60, box.y + box.height / 2);
        page.mouse().move(box.x + 64, box.y + box.height / 2);
        // red of R'G'B' 255 0 0 is Y 81 or 82 (BT.601-7 section 2.5: 16 + 219 x 0.299 = 81.5)
        Locator first = page.locator(".pixel table").first();
        assertThat(first).containsText(Pattern.compile("Y\\s*8[0-3]"));
        chord("h");
        assertThat(page.getByLabel("Vectorscope")).isVisible(SOON);
        page.waitForFunction("() => { const c = document.querySelector('canvas[aria-label=Vectorscope]');"
                + " return c.getContext('2d').getImageData(0, 0, c.width, c.height).data.some((v) => v > 150) }");
        chord("h");
    }

    @Test
    @Order(7)
    void aProofIsMadeAndPlayedInStep() {
        chord("Home", "Enter");
        Locator proof = page.locator("[data-test=proof]");
        assertThat(proof).hasAttribute("data-state", "DONE", LONG);
        // it plays by itself: time goes on, and both sides are in the picture
        page.waitForFunction("() => { const t = document.querySelector('[data-test=time]').textContent;"
                + " return !t.includes('0:00.00') }");
        assertThat(page.getByLabel("Pause")).isVisible();
        BoundingBox box = glass().boundingBox();
        assertThat(isRed(pixel(box.width / 4, box.height * 0.6))).isTrue();
        assertThat(isBlue(pixel(box.width * 0.75, box.height * 0.6))).isTrue();
        chord(" ");
        assertThat(page.getByLabel("Play the proof")).isVisible();
        settled();
        // paused, the square stands where the frame told has it: twice the frame's number from the left, on either side
        int frame = Integer.parseInt(page.locator(".bar .chip")
                .first()
                .textContent()
                .replaceAll(".*frame (\\d+).*", "$1")
                .strip());
        assertThat(seen(2 * frame + 5, 9))
                .satisfies(p -> assertThat(p[0] + p[1] + p[2]).isGreaterThan(600));
        chord("Escape");
    }

    @Test
    @Order(8)
    void takesAreCopiedChangedAndUndoneAcrossSessions() {
        chord("n");
        assertThat(page.locator("[data-test=takes]")).containsText("Take B of 2");
        Locator factor = page.getByLabel("Factor", new Page.GetByLabelOptions().setExact(true));
        factor.fill("3");
        factor.press("Enter");
        assertThat(page.locator("[data-test=size]").last()).containsText("480×360");
        settled();
        assertThat(page.locator("[role=status]", new Page.LocatorOptions().setHasText("saved")))
                .isVisible();
        page.reload();
        settled();
        assertThat(page.locator("[data-test=takes]")).containsText("Take B");
        assertThat(page.locator("[data-test=size]").last()).containsText("480×360");
        chord("Control+z");
        assertThat(page.locator("[data-test=size]").last()).containsText("320×240");
        chord("Control+Shift+z");
        assertThat(page.locator("[data-test=size]").last()).containsText("480×360");
        // against the other take: its name stands on the left
        chord("a");
        assertThat(page.locator(".tag.at-left")).hasText("take A");
        settled();
        assertThat(isRed(seen(30, 60))).isTrue();
        chord("a");
        assertThat(page.locator(".tag.at-left")).containsText("source");
        chord("t");
        assertThat(page.locator("[data-test=takes]")).containsText("Take A");
    }

    @Test
    @Order(9)
    void takesAreVariedAndChosenOnTheSheet() {
        page.getByText("Vary…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog.getByText("Photographic")).isVisible();
        assertAccessible("the vary dialog");
        for (Locator box : dialog.locator("input[type=checkbox]").all()) {
            box.uncheck();
        }
        dialog.getByText("None").click();
        dialog.getByText("Make and compare").click();
        assertThat(page.getByText("3 takes at 2 pins")).isVisible(SOON);
        assertThat(page.locator("[data-test=take]")).hasCount(3);
        Locator cell = page.locator("[data-test=take]").nth(1).locator("canvas").first();
        assertThat(cell).hasAttribute("data-pending", "false", LONG);
        assertThat(page.locator("[data-test=take]").first().getByText(Pattern.compile("noise \\d")))
                .isVisible(SOON);
        chord("ArrowDown", "k");
        assertThat(page.locator("[data-test=take].kept")).hasCount(1);
        chord("b");
        assertThat(page.getByText("Take ?1")).isVisible();
        assertThat(page.getByText("Take B")).isHidden();
        page.locator("[data-test=take]").first().getByText("choose").click();
        assertThat(page.getByText("You chose take")).isVisible();
        Download saved =
                page.waitForDownload(() -> page.getByText("Save as picture").click());
        assertThat(saved.suggestedFilename()).endsWith("sheet.png");
        assertThat(imageWidth(saved.path())).isGreaterThan(500);
        page.locator("[data-test=take]").nth(2).getByText("discard").click();
        assertThat(page.getByText("2 takes at 2 pins")).isVisible();
        assertThat(page.getByText("Discarded:")).isVisible();
        // a cell leads to its place on the glass
        page.locator("[data-test=take]").first().locator("button.cell").first().click();
        settled();
        assertThat(view("x")).isCloseTo(80, within(4.0));
        // the spot at three magnifications, each a pair: source left, treated right, the colours' border in the middle
        // of each half
        chord("2");
        settled();
        Download crops = page.waitForDownload(() -> page.getByText("crops", new Page.GetByTextOptions().setExact(true))
                .click());
        assertThat(imageWidth(crops.path())).isEqualTo(960);
        var picture = image(crops.path());
        assertThat(picture.getHeight()).isEqualTo(3 * 334);
        for (int strip = 0; strip < 3; strip++) {
            int y = strip * 334 + 34 + 150;
            for (int middle : new int[] {240, 720}) {
                assertThat(isRed(rgb(picture.getRGB(middle - 60, y)))).isTrue();
                assertThat(isBlue(rgb(picture.getRGB(middle + 60, y)))).isTrue();
            }
        }
    }

    private static int[] rgb(int packed) {
        return new int[] {packed >> 16 & 255, packed >> 8 & 255, packed & 255};
    }

    private static int imageWidth(Path file) {
        return image(file).getWidth();
    }

    /** Without a mouse: from the shelf to a verdict. */
    @Test
    @Order(10)
    void aTakeIsChosenWithKeysOnly() {
        page.navigate(bench);
        settled();
        chord("g");
        assertThat(page.locator("[data-test=take]")).hasCount(2);
        chord("ArrowDown", "Enter");
        settled();
        assertThat(page).hasURL(Pattern.compile("/bench/.*take="));
        chord("k");
        assertThat(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^kept?$")))
                        .first())
                .isVisible();
    }

    /**
     * Frames a second that are drawn while wiping, zooming and playing, told to the report of `measure --looking`; the browser
     * itself draws at most 60. Nothing is asserted of speed.
     */
    @Test
    @Order(12)
    void drawingIsMeasured() throws IOException {
        page.navigate(bench);
        settled();
        chord("Home", "Enter");
        assertThat(page.locator("[data-test=proof]").last()).hasAttribute("data-state", "DONE", LONG);
        String count =
                "(act) => new Promise((done) => { let n = 0; const begun = performance.now(); const tick = () => {"
                        + " act(n); if (++n < 120) requestAnimationFrame(tick);"
                        + " else done(120000 / (performance.now() - begun)) }; requestAnimationFrame(tick) })";
        String key =
                "(n) => window.dispatchEvent(new KeyboardEvent('keydown', { key: n % 40 < 20 ? ']' : '[', bubbles: true }))";
        double playing = fps(count, "() => {}");
        double wipingWhilePlaying = fps(count, key);
        chord("Escape");
        settled();
        double wiping = fps(count, key);
        double zooming = fps(
                count,
                "(n) => document.querySelector('[data-test=glass]').dispatchEvent(new WheelEvent('wheel',"
                        + " { deltaY: n % 60 < 30 ? -12 : 12, cancelable: true, bubbles: true }))");
        settled();
        chord("d");
        double difference = fps(count, key);
        chord("w");
        Files.createDirectories(Path.of("target"));
        Files.writeString(
                Path.of("target/drawing.md"),
                String.format(java.util.Locale.ROOT, """
                        ## Drawing

                        Frames a second in headless Chromium at 1280x800 without a graphics processor, at most 60; measured by the browser tests.

                        | wiping | zooming | difference | playing a proof | wiping while it plays |
                        |---|---|---|---|---|
                        | %.0f | %.0f | %.0f | %.0f | %.0f |
                        """, wiping, zooming, difference, playing, wipingWhilePlaying));
        assertThat(List.of(playing, wiping, zooming, difference, wipingWhilePlaying))
                .allMatch(fps -> fps > 0);
    }

    /** A take that was proved, changed and proved again at the same place: both play in exact step. */
    @Test
    @Order(13)
    void twoProofsPlayBesideEachOther() {
        page.navigate(bench);
        settled();
        chord("n");
        assertThat(page.locator("[data-test=takes]")).containsText("of 3");
        settled();
        Locator proofs = page.locator("[data-test=proof]");
        assertThat(proofs.first()).isVisible();
        int before = proofs.count() + 1;
        chord("Home", "Enter");
        assertThat(proofs).hasCount(before);
        assertThat(page.getByText("prove again")).hasCount(0);
        assertThat(proofs.last()).hasAttribute("data-state", "DONE", LONG);
        Locator strength = page.getByLabel("Strength", new Page.GetByLabelOptions().setExact(true));
        strength.fill("40");
        strength.press("Enter");
        page.getByText("prove again").click();
        assertThat(proofs).hasCount(before + 1);
        assertThat(proofs.last()).hasAttribute("data-state", "DONE", LONG);
        Locator beside = page.getByLabel("Beside another proof");
        assertThat(beside).isVisible(SOON);
        // the row of proofs is drawn anew while the newest one comes to rest
        settled();
        beside.click();
        page.locator(".v-menu .v-list-item").first().click();
        assertThat(proofs).hasCount(before + 2);
        assertThat(proofs.last()).hasAttribute("data-state", "DONE", LONG);
        assertThat(page.locator(".tag.at-left")).containsText("take");
        assertThat(page.locator("[data-test=proof-state]")).containsText("|");
        chord("e");
        BoundingBox box = glass().boundingBox();
        page.waitForCondition(() -> isBlue(pixel(box.width * 0.4, box.height * 0.6)));
        for (double half : new double[] {0, 0.5}) {
            assertThat(isRed(pixel(box.width * (half + 0.1), box.height * 0.6))).isTrue();
            assertThat(isBlue(pixel(box.width * (half + 0.4), box.height * 0.6)))
                    .isTrue();
        }
        chord("w", "Escape");
        assertThat(FAULTS).isEmpty();
    }

    private static double fps(String count, String act) {
        return ((Number) page.evaluate("() => (" + count + ")(" + act + ")")).doubleValue();
    }

    @Test
    @Order(11)
    void everyPlaceIsAccessible() {
        String clip = bench.replaceAll(".*/bench/([^?]+).*", "$1");
        for (String place : List.of("/shelf", "/bench/" + clip, "/sheet/" + clip, "/dispatch", "/library")) {
            page.navigate(base + place);
            page.waitForLoadState();
            if (place.startsWith("/bench")) {
                settled();
            } else {
                assertThat(page.getByRole(AriaRole.HEADING).first()).isVisible(SOON);
            }
            assertAccessible(place);
        }
        Page stranger = browser.newContext().newPage();
        stranger.navigate(base + "/shelf");
        assertThat(stranger.getByText("Open the link that was printed")).isVisible(SOON);
        assertAccessible(stranger, "the place of those who are not signed in");
        stranger.context().close();
        page.navigate(base + "/bench/" + clip);
        settled();
        page.locator("[data-test=takes]").click();
        page.getByText("new take from…").click();
        assertThat(page.getByText("A new take begins with")).isVisible();
        assertAccessible("what a new take begins with");
        assertThat(FAULTS).isEmpty();
    }
}
