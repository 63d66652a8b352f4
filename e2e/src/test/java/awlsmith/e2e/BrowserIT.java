package awlsmith.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;

/** A started application, a browser signed in to it, and what both kinds of test do with them. */
abstract class BrowserIT {
    /** Milliseconds a test waits for what must come: a limit against what hangs, however slow the machine is. */
    static final int PATIENCE = 300_000;

    static final LocatorAssertions.IsVisibleOptions SOON =
            new LocatorAssertions.IsVisibleOptions().setTimeout(PATIENCE);

    @TempDir
    static Path folder;

    static ServerProcess server;
    static Playwright playwright;
    static Browser browser;
    static Page page;
    static String base;
    static final List<String> FAULTS = new ArrayList<>();

    @BeforeAll
    static void start() throws Exception {
        emptyDatabase();
        // states are waited for, however busy the machine is
        PlaywrightAssertions.setDefaultAssertionTimeout(60_000);
        int port;
        try (var socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        base = "http://127.0.0.1:" + port;
        server = new ServerProcess(folder.resolve("home"), port);
        String link = server.start();
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-gpu",
                                "--disable-quic",
                                "--no-first-run",
                                "--disable-background-networking",
                                "--disable-component-update",
                                "--disable-sync",
                                "--disable-dev-shm-usage")));
        page = browser.newContext(new Browser.NewContextOptions().setViewportSize(1280, 800))
                .newPage();
        page.setDefaultTimeout(90_000);
        page.onPageError(FAULTS::add);
        page.navigate(base + "/shelf");
        assertThat(page.getByText("Open the link that was printed")).isVisible(SOON);
        page.navigate(link);
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Shelf")))
                .isVisible(SOON);
    }

    @AfterAll
    static void stop() {
        if (playwright != null) {
            playwright.close();
        }
        if (server != null) {
            server.close();
        }
    }

    static void emptyDatabase() throws Exception {
        try (var db = DriverManager.getConnection(
                        System.getenv("SPRING_DATASOURCE_URL"),
                        "awlsmith",
                        System.getenv("SPRING_DATASOURCE_PASSWORD"));
                var statement = db.createStatement()) {
            String name = db.getCatalog();
            statement.execute("drop database " + name);
            statement.execute("create database " + name + " character set utf8mb4 collate utf8mb4_unicode_ci");
        }
    }

    /** Drops a file on the page as a hand would, with a real DataTransfer. */
    static void drop(String name, byte[] bytes) {
        Object files = page.evaluateHandle(
                "([name, base64]) => { const data = new DataTransfer();"
                        + " const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));"
                        + " data.items.add(new File([bytes], name)); return data }",
                List.of(name, Base64.getEncoder().encodeToString(bytes)));
        for (String event : List.of("dragenter", "dragover", "drop")) {
            page.dispatchEvent("body", event, Map.of("dataTransfer", files));
        }
    }

    static Locator glass() {
        return page.locator("[data-test=glass]");
    }

    /** Waits until both sides show what was wished for. */
    static void settled() {
        assertThat(glass())
                .hasAttribute(
                        "data-pending", "false", new LocatorAssertions.HasAttributeOptions().setTimeout(PATIENCE));
        page.waitForFunction(
                "() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(true))))");
    }

    static int[] pixel(double x, double y) {
        @SuppressWarnings("unchecked")
        var rgba = (List<Integer>) page.evaluate(
                "([x, y]) => Array.from(document.querySelector('[data-test=glass]').getContext('2d')"
                        + ".getImageData(Math.round(x), Math.round(y), 1, 1).data)",
                List.of(x, y));
        return new int[] {rgba.get(0), rgba.get(1), rgba.get(2)};
    }

    static double view(String name) {
        return Double.parseDouble(glass().getAttribute("data-" + name));
    }

    static void press(String button) {
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName(button).setExact(true))
                .click();
    }

    /** What the glass shows at a point of the source picture, in the source's pixels. */
    static int[] seen(double x, double y) {
        BoundingBox box = glass().boundingBox();
        return pixel((x - view("x")) * view("scale") + box.width / 2, (y - view("y")) * view("scale") + box.height / 2);
    }

    static BufferedImage image(Path file) {
        try {
            return ImageIO.read(file.toFile());
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** Rules of WCAG 2 A and AA as axe-core checks them, once nothing fades in any more: what does has half its contrast. */
    static void assertAccessible(String what) {
        assertAccessible(page, what);
    }

    static void assertAccessible(Page of, String what) {
        of.waitForFunction("() => !document.querySelector('[class*=-enter-active]')");
        org.assertj.core.api.Assertions.assertThat(new AxeBuilder(of)
                        .withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa"))
                        .analyze()
                        .getViolations())
                .as(what)
                .extracting(rule -> rule.getId() + ": "
                        + rule.getNodes().stream()
                                .map(node -> node.getHtml())
                                .limit(4)
                                .toList())
                .isEmpty();
    }
}
