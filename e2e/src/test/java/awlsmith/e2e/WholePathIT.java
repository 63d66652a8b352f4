package awlsmith.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.media.TestClips;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;

/** As a new user would: sign in, drop a clip, enlarge it, look, send it out, lose the server on the way. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class WholePathIT extends BrowserIT {
    @Test
    @Order(1)
    void aDroppedFileIsTakenInWithItsFacts() throws IOException {
        Path file = folder.resolve("clip.mp4");
        // a red left half and a blue right half meet at pixel 80 of 160; long enough to be interrupted
        TestClips.ffmpeg("-f lavfi -i color=red:s=160x120:r=25:d=30 -f lavfi -i sine=d=30 "
                + "-vf drawbox=x=80:y=0:w=80:h=120:color=blue:t=fill,noise=alls=24:allf=t -pix_fmt yuv420p -c:v libx264 "
                + "-preset ultrafast -crf 20 -c:a aac " + file);
        drop("Two halves.mp4", Files.readAllBytes(file));
        Locator row =
                page.getByRole(AriaRole.LISTITEM).filter(new Locator.FilterOptions().setHasText("Two halves.mp4"));
        assertThat(row.getByText("160×120 · 25p · 0:30 · H.264 · AAC 44.1 kHz mono"))
                .isVisible(SOON);
        assertThat(row.getByText("1 take")).isVisible(SOON);
    }

    @Test
    @Order(2)
    void aFileThatIsNoVideoSaysWhy() {
        drop("letter.mp4", "dear ferry\n".repeat(300).getBytes());
        Locator fault = page.getByText("letter.mp4: this is not a video that can be read");
        assertThat(fault).isVisible(SOON);
        page.getByText("Put aside").click();
        assertThat(fault).isHidden();
    }

    @Test
    @Order(3)
    void theBenchShowsBothSidesLockedToTheSamePixel() {
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Two halves.mp4").setExact(true))
                .last()
                .click();
        settled();
        BoundingBox box = glass().boundingBox();
        // the wipe stands in the middle: source left of it, treated right of it, the clip's own edge right under it
        page.keyboard().press("8");
        settled();
        int middle = (int) (box.width / 2);
        int[] left = pixel(middle - 60, box.height / 2);
        int[] right = pixel(middle + 60, box.height / 2);
        assertThat(left[0]).isGreaterThan(180);
        assertThat(left[2]).isLessThan(90);
        assertThat(right[2]).isGreaterThan(180);
        assertThat(right[0]).isLessThan(90);
        // with the wipe far left, only the treated side shows: the edge between the halves must not have moved
        double edgeWhole = edgeOfRed(box);
        press("source");
        double edgeSource = edgeOfRed(box);
        press("treated");
        double edgeTreated = edgeOfRed(box);
        // 8:1 of the treated picture: half a treated pixel is four screen pixels
        assertThat(edgeTreated).isBetween(edgeSource - 5, edgeSource + 5);
        assertThat(edgeWhole).isBetween(edgeSource - 9, edgeSource + 9);
        press("wipe");
    }

    /** The screen column where red turns blue. */
    private static double edgeOfRed(BoundingBox box) {
        page.waitForFunction(
                "() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(true))))");
        int low = (int) (box.width / 2) - 120;
        int high = (int) (box.width / 2) + 120;
        for (int x = low; x < high; x++) {
            int[] p = pixel(x, box.height / 2);
            if (p[2] > p[0]) {
                return x;
            }
        }
        throw new AssertionError("no edge between the halves in sight");
    }

    @Test
    @Order(4)
    void theWheelZoomsAtThePointerAndDraggingMoves() {
        BoundingBox box = glass().boundingBox();
        page.keyboard().press("0");
        settled();
        double scale = view("scale");
        double px = 200;
        double py = 150;
        double before = (px - box.width / 2) / scale + view("x");
        page.mouse().move(box.x + px, box.y + py);
        page.mouse().wheel(0, -200);
        settled();
        assertThat(view("scale")).isGreaterThan(scale * 1.2);
        double after = (px - box.width / 2) / view("scale") + view("x");
        assertThat(after).isCloseTo(before, org.assertj.core.api.Assertions.within(0.02));
        double x = view("x");
        page.mouse().move(box.x + 250, box.y + 200);
        page.mouse().down();
        page.mouse().move(box.x + 310, box.y + 200);
        page.mouse().up();
        assertThat(view("x")).isCloseTo(x - 60 / view("scale"), org.assertj.core.api.Assertions.within(0.02));
        // at the edge the same drag moves the wipe and not the picture
        double still = view("x");
        page.mouse().move(box.x + box.width / 2, box.y + 300);
        page.mouse().down();
        page.mouse().move(box.x + box.width / 4, box.y + 300);
        page.mouse().up();
        assertThat(view("x")).isEqualTo(still);
        assertThat(page.locator(".grip")).hasAttribute("style", Pattern.compile("left: 2[45]"));
        page.keyboard().press("0");
    }

    @Test
    @Order(5)
    void framesAreSteppedExactlyAndTheRecipeIsKept() {
        assertThat(page.locator("[data-test=frame]")).hasText("frame 375 of 750");
        page.keyboard().press(".");
        page.keyboard().press(".");
        page.keyboard().press(",");
        assertThat(page.locator("[data-test=frame]")).hasText("frame 376 of 750");
        factor(page, "3");
        assertThat(page.locator("[data-test=size]")).hasText("480×360 · 25p");
        frame("1080p");
        assertThat(page.locator("[data-test=size]")).hasText("1440×1080 · 25p");
        page.keyboard().press("Control+z");
        assertThat(page.locator("[data-test=size]")).hasText("480×360 · 25p");
        assertThat(page.getByText("saved", new Page.GetByTextOptions().setExact(true)))
                .isVisible(SOON);
        page.reload();
        assertThat(page.locator("[data-test=size]")).hasText("480×360 · 25p");
        factor(page, "99");
        assertThat(page.getByText("allowed: 0.125..8 ×")).isVisible();
        factor(page, "4");
        assertThat(page.locator("[data-test=size]")).hasText("640×480 · 25p");
        assertThat(page.getByText("saved", new Page.GetByTextOptions().setExact(true)))
                .isVisible(SOON);
    }

    /** Every model that ships shows its own still, and the step's line names it. */
    @Test
    @Order(6)
    void everyModelShowsWhatItMakes() {
        String plain = choose("none", "");
        var seen = new HashSet<String>(List.of(plain));
        for (ModelCard card : Models.enlarging()) {
            String mode = card.mode().id();
            assertThat(seen.add(choose(card.id(), mode)))
                    .as("%s %s is like another", card.id(), mode)
                    .isTrue();
        }
        choose("none", "");
        page.locator("nav").getByText("Library").click();
        assertThat(page.locator("article[data-test^=card]")).hasCount((int)
                Models.all().stream().map(ModelCard::id).distinct().count());
        assertThat(page.getByText("frames/s of 640×360 here").first()).isVisible(SOON);
        page.goBack();
        settled();
    }

    /** 4:3 in a 16:9 frame: black beside the picture, or the picture's top and bottom cut off; both sides stay locked. */
    @Test
    @Order(7)
    void aFrameOfAnotherShapeIsShownOnThePicture() {
        frame("1080p");
        press("Letterbox");
        assertThat(page.locator("[data-test=size]")).hasText("1920×1080 · 25p");
        press("fit");
        press("treated");
        settled();
        assertThat(seen(-10, 60)).isEqualTo(new int[] {0, 0, 0});
        assertThat(seen(170, 60)).isEqualTo(new int[] {0, 0, 0});
        assertThat(seen(10, 60)[0]).isGreaterThan(180);
        assertThat(seen(150, 60)[2]).isGreaterThan(180);
        press("Fill");
        // fit shows the treated frame; pressed again, all of the source around it
        press("fit");
        press("fit");
        settled();
        // the frame covers lines 15 to 105 of 120: above it nothing is painted but the glass's own ground
        assertThat(seen(40, 8)).isEqualTo(new int[] {22, 22, 22});
        assertThat(seen(40, 20)[0]).isGreaterThan(180);
        press("source");
        settled();
        // the source shows what is cut off, dimmed
        assertThat(seen(40, 8)[0]).isBetween(60, 140);
        assertThat(seen(40, 20)[0]).isGreaterThan(180);
        press("wipe");
        factor(page, "4");
        assertThat(page.locator("[data-test=size]")).hasText("640×480 · 25p");
        settled();
    }

    /** A usual frame's outline on the enlarge card. */
    private static void frame(String id) {
        page.locator("[data-test=frame-" + id + "]").press("Enter");
    }

    private static void factor(Page on, String value) {
        Locator field = on.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Factor"));
        field.fill(value);
        field.press("Enter");
    }

    /** Chooses a swatch on the bench and gives the treated pixels of a small square in words. */
    private static String choose(String model, String mode) {
        page.locator("[data-test=swatch-" + model + "-" + mode + "]").click();
        assertThat(page.getByText("saved", new Page.GetByTextOptions().setExact(true)))
                .isVisible(SOON);
        settled();
        BoundingBox box = glass().boundingBox();
        var words = new StringBuilder();
        for (int i = 0; i < 40; i++) {
            words.append(Arrays.toString(pixel(box.width * 0.75 + i * 3, box.height / 2 + i)));
        }
        return words.toString();
    }

    @Test
    @Order(8)
    void anotherWindowsChangeIsSeenHere() {
        Page other = page.context().newPage();
        other.navigate(page.url());
        assertThat(other.locator("[data-test=size]")).hasText("640×480 · 25p");
        factor(other, "2");
        assertThat(page.locator("[data-test=size]")).hasText("320×240 · 25p");
        factor(other, "4");
        assertThat(page.locator("[data-test=size]")).hasText("640×480 · 25p");
        other.close();
    }

    @Test
    @Order(9)
    void aMarkedSpanIsSaidAndARenderSurvivesAKilledServer() throws Exception {
        page.keyboard().press(",");
        page.keyboard().press("o");
        assertThat(page.locator("[data-test=span]")).containsText("out 0:15.04");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Dispatch…"))
                .click();
        assertThat(page.locator("[data-test=dispatch-span]")).containsText("15.0 s of 30.0 s (in/out set), 376 frames");
        page.locator("[data-test=send]").click();
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Dispatch").setExact(true))
                .click();
        Locator running = page.locator("[data-test=render-running]");
        assertThat(running.getByText(Pattern.compile("frame \\d+ of 376 · [\\d.]+ fps")))
                .isVisible(SOON);
        assertThat(running.getByText(Pattern.compile("left"))).isVisible(SOON);
        Path segments = segments();
        await(() -> Files.exists(segments.resolve("segment-000002.mp4")));
        server.kill();
        var written = Files.getLastModifiedTime(segments.resolve("segment-000001.mp4"));
        assertThat(page.getByText("The connection to the server is lost")).isVisible(SOON);
        server.start();
        // the page comes back by itself, still signed in, and the render goes on
        assertThat(page.getByText("The connection to the server is lost"))
                .isHidden(new LocatorAssertions.IsHiddenOptions().setTimeout(PATIENCE));
        if (Files.exists(segments.resolve("segment-000001.mp4"))) {
            assertThat(Files.getLastModifiedTime(segments.resolve("segment-000001.mp4")))
                    .isEqualTo(written);
        }
        Locator done = page.locator("[data-test=render-done]");
        PlaywrightAssertions.assertThat(done).isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(PATIENCE));
        assertThat(done.getByText("640×480 · 25p · H.264 High · 376 frames · 15.0 s"))
                .isVisible();
        assertThat(done.getByText(Pattern.compile("all frames decode · smpte170m, limited range · 8 bit · sound AAC")))
                .isVisible();
        Download download =
                page.waitForDownload(() -> done.getByText("Download").click());
        Path fetched = folder.resolve("fetched.mp4");
        download.saveAs(fetched);
        assertThat(download.suggestedFilename()).isEqualTo("Two halves A 640x480.mp4");
        assertThat(TestClips.times(fetched)).hasSize(376);
        assertThat(TestClips.entry(fetched, "width")).isEqualTo("640");
    }

    private static Path segments() throws IOException {
        Path renders = folder.resolve("home/media/renders");
        await(() -> {
            try (var list = Files.list(renders)) {
                return list.findAny().isPresent();
            }
        });
        try (var list = Files.list(renders)) {
            return list.findFirst().orElseThrow().resolve("segments");
        }
    }

    private interface Check {
        boolean holds() throws IOException;
    }

    private static void await(Check check) throws IOException {
        long end = System.nanoTime() + 90_000_000_000L;
        while (!check.holds()) {
            if (System.nanoTime() > end) {
                throw new AssertionError("it did not happen within 90 seconds");
            }
            java.util.concurrent.locks.LockSupport.parkNanos(20_000_000);
        }
    }

    @Test
    @Order(10)
    void aSecondRenderIsCancelledAndThePagesThrewNoFaults() {
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Bench").setExact(true))
                .click();
        settled();
        page.getByText("whole clip").first().click();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Dispatch…"))
                .click();
        assertThat(page.locator("[data-test=dispatch-span]")).containsText("the whole clip, 30.0 s, 750 frames");
        page.locator("[data-test=send]").click();
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Dispatch").setExact(true))
                .click();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Cancel"))
                .click();
        assertThat(page.locator("[data-test=render-cancelled]")).isVisible(SOON);
        assertThat(FAULTS).isEmpty();
    }

    /** A new password ends the session: the page leads to signing in, and behind it back to where it was. */
    @Test
    @Order(11)
    void aSessionThatEndsLeadsToSigningInAndBack() throws IOException {
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Bench").setExact(true))
                .click();
        settled();
        String bench = page.url();
        Locator span = page.locator("[data-test=span]");
        page.keyboard().press(">");
        assertThat(page.locator("[data-test=frame]")).containsText("frame 385 ");
        Files.writeString(
                folder.resolve("home/password"), new BCryptPasswordEncoder(4).encode("a rope across the river"));
        page.keyboard().press("i");
        assertThat(page.getByText("You are signed out here")).isVisible();
        signIn();
        settled();
        assertThat(page).hasURL(bench);
        assertThat(span).containsText("in 0:15.40");

        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("sign out"))
                .click();
        assertThat(page.getByLabel("Password")).isVisible();
        assertThat(page.getByText("You are signed out here")).isHidden();
        signIn();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Shelf")))
                .isVisible(SOON);
        page.navigate(bench);
        settled();
        assertThat(span).containsText("in 0:15.40");
        assertThat(FAULTS).isEmpty();
    }

    private void signIn() {
        page.getByLabel("Password").fill("a rope across the river");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Sign in"))
                .click();
    }
}
