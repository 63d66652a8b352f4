package awlsmith.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;

/**
 * The page's memory over a time of use: a part of a minute in the tests, as many minutes as {@code -Dawlsmith.page.minutes} says when
 * it is measured for the report of {@code measure --looking}.
 */
class EnduranceIT extends BrowserIT {
    private static final double MINUTES = Double.parseDouble(System.getProperty("awlsmith.page.minutes", "0.3"));
    private static final int SAMPLES = 6;

    /** @param heap bytes of the page's own objects after a collection; @param resident bytes of the browser's renderers */
    private record Memory(double minute, double heap, double nodes, double resident) {}

    @Test
    void thePageKeepsToItsMemory() throws IOException {
        Path file = folder.resolve("clip.mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=320x240:r=25:d=4 -f lavfi -i sine=d=4 -pix_fmt yuv420p -c:v libx264 "
                + "-preset ultrafast -crf 12 -c:a aac " + file);
        drop("Endless.mp4", Files.readAllBytes(file));
        Locator link = page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Endless.mp4").setExact(true))
                .last();
        assertThat(link).isVisible(SOON);
        link.click();
        settled();
        var memory = new ArrayList<Memory>();
        try (var cdp = new Watched(page.context().newCDPSession(page))) {
            // what is loaded once is no growth
            round(0);
            long begun = System.nanoTime();
            for (int i = 0; i <= SAMPLES; i++) {
                while ((System.nanoTime() - begun) / 60e9 < MINUTES * i / SAMPLES) {
                    round(i);
                }
                memory.add(cdp.now((System.nanoTime() - begun) / 60e9));
            }
        }
        report(memory);
        Memory first = memory.getFirst();
        Memory last = memory.getLast();
        assertThat(last.heap()).as(memory.toString()).isLessThan(1.5 * first.heap() + 4e6);
        assertThat(last.nodes()).as(memory.toString()).isLessThan(2 * first.nodes() + 500);
    }

    /** The pace of a person, in ms; the waits are the use that is measured, nothing is awaited by them. */
    private static final int KEY = 120;

    private static final int GLANCE = 400;
    private static final int LOOK = 1500;

    /** What a person does again and again: steps, looks, zooms, another place, a proof now and then. */
    private void round(int n) {
        settled();
        for (String key : List.of(".", ".", "4", "e", ">", "d", "w", "0", "]", "[", "s", "w", ",")) {
            page.keyboard().press(key);
            page.waitForTimeout(KEY);
        }
        settled();
        if (n % 2 == 1 && page.locator("[data-test=proof]").count() == 0) {
            page.keyboard().press("Enter");
        }
        page.keyboard().press(" ");
        page.waitForTimeout(LOOK);
        page.keyboard().press("Escape");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Shelf"))
                .first()
                .click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Shelf")))
                .isVisible(SOON);
        page.goBack();
        settled();
        page.keyboard().press("g");
        page.waitForTimeout(GLANCE);
        page.goBack();
        // each sample is taken with the whole bench there
        settled();
    }

    private static void report(List<Memory> memory) throws IOException {
        var text = new StringBuilder(String.format(Locale.ROOT, """
                ## Memory of the page

                Over %.1f minutes of stepping, looking, zooming, playing proofs and going between the places; objects after a collection.

                | minute | objects, MB | nodes | renderers' resident memory, MB |
                |---|---|---|---|
                """, MINUTES));
        for (Memory m : memory) {
            text.append(String.format(
                    Locale.ROOT,
                    "| %.1f | %.1f | %.0f | %.0f |%n",
                    m.minute(),
                    m.heap() / 1e6,
                    m.nodes(),
                    m.resident() / 1e6));
        }
        Files.createDirectories(Path.of("target"));
        Files.writeString(Path.of("target/memory.md"), text);
    }

    private record Watched(CDPSession session) implements AutoCloseable {
        Watched {
            session.send("HeapProfiler.enable");
            session.send("Performance.enable");
        }

        Memory now(double minute) throws IOException {
            session.send("HeapProfiler.collectGarbage");
            double heap = 0;
            double nodes = 0;
            for (var metric : session.send("Performance.getMetrics").getAsJsonArray("metrics")) {
                JsonObject one = metric.getAsJsonObject();
                switch (one.get("name").getAsString()) {
                    case "JSHeapUsedSize" -> heap = one.get("value").getAsDouble();
                    case "Nodes" -> nodes = one.get("value").getAsDouble();
                    default -> {}
                }
            }
            return new Memory(minute, heap, nodes, resident());
        }

        /** Of all renderers of this user's browsers; there is one. */
        private static double resident() throws IOException {
            double sum = 0;
            try (var processes = Files.newDirectoryStream(Path.of("/proc"), "[0-9]*")) {
                for (Path process : processes) {
                    try {
                        if (Files.readString(process.resolve("cmdline")).contains("--type=renderer")) {
                            String[] pages =
                                    Files.readString(process.resolve("statm")).split(" ");
                            sum += 4096.0 * Long.parseLong(pages[1]);
                        }
                    } catch (IOException e) {
                        // it has ended meanwhile
                    }
                }
            }
            return sum;
        }

        @Override
        public void close() {
            session.detach();
        }
    }
}
