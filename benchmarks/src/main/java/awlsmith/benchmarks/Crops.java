package awlsmith.benchmarks;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.demo.Footage;
import awlsmith.demo.FootageMaker;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.render.Machine;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.imageio.ImageIO;

/** Parts of a demo frame at 400 %, one way of enlarging beside the other and the truth last, as one picture file. */
final class Crops {
    private static final long FRAME = 90;
    private static final int AROUND = 2;
    private static final int SIDE = 56;
    private static final int SHOWN = 4;
    private static final int TITLE = 24;
    private static final int GAP = 4;

    /** Parts of the deck walk's small picture: lettering, houses and winch, the church with leaves and water. */
    private static final List<Region> PARTS =
            List.of(new Region(130, 200, SIDE, SIDE), new Region(176, 90, SIDE, SIDE), new Region(372, 56, SIDE, SIDE));

    private record Way(String title, String settings) {}

    private static final List<Way> WAYS = List.of(
            new Way("Lanczos 3", "kernel=lanczos3"),
            new Way("photographic fast", "model=photographic mode=fast"),
            new Way("photographic quality", "model=photographic mode=quality"),
            new Way("photographic crisp", "model=photographic mode=crisp"),
            new Way("worn quality", "model=worn mode=quality"),
            new Way("worn crisp", "model=worn mode=crisp"));

    private final Machine machine;
    private final Path demo;

    /** @param demo folder of the demo footage; made there when it is not */
    Crops(Machine machine, Path demo) {
        this.machine = machine;
        this.demo = demo;
    }

    void write(Path file) throws IOException {
        var maker = new FootageMaker(demo, machine.planes(), machine.work(new Cancel()));
        Footage deck = maker.all().stream()
                .filter(footage -> footage.id().equals("deck-walk"))
                .findFirst()
                .orElseThrow();
        maker.make(deck, share -> {});
        List<Frame> source = frames(deck.clip());
        List<Frame> clean = frames(deck.truth());
        Frame truth = clean.get(AROUND);
        var reducer = new EnlargeStage(
                truth.format(), truth.format().withSize(640, 360, truth.format().sar()), Kernel.CATMULL_ROM);
        List<Frame> reduced = clean.stream()
                .map(large -> reducer.treat(
                        d -> large, new Region(0, 0, 640, 360), machine.planes(), machine.work(new Cancel())))
                .toList();
        var titles = new ArrayList<String>(List.of("source"));
        WAYS.forEach(way -> titles.add(way.title()));
        titles.add("truth");
        int cell = SIDE * SHOWN;
        int rows = PARTS.size() * 2;
        var sheet = new BufferedImage(
                titles.size() * (cell + GAP) - GAP, TITLE + rows * (cell + GAP) - GAP, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = sheet.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setFont(new Font(Font.SANS_SERIF, Font.PLAIN, 14));
        g.setColor(Color.LIGHT_GRAY);
        for (int i = 0; i < titles.size(); i++) {
            g.drawString(titles.get(i), i * (cell + GAP) + 2, 17);
        }
        for (int row = 0; row < rows; row++) {
            List<Frame> small = row < PARTS.size() ? source : reduced;
            Region part = PARTS.get(row % PARTS.size());
            var large = new Region(part.x() * 2, part.y() * 2, SIDE * 2, SIDE * 2);
            int y = TITLE + row * (cell + GAP);
            draw(g, small.get(AROUND), part, 0, y);
            for (int i = 0; i < WAYS.size(); i++) {
                draw(g, treated(small, "enlarge factor=2 " + WAYS.get(i).settings()), large, (i + 1) * (cell + GAP), y);
            }
            draw(g, truth, large, (WAYS.size() + 1) * (cell + GAP), y);
        }
        g.dispose();
        ImageIO.write(sheet, "png", file.toFile());
    }

    private Frame treated(List<Frame> small, String step) {
        Frame now = small.get(AROUND);
        List<Stage> stages =
                new Recipe(List.of(Step.parse(step))).chain(now.format()).stages();
        for (int i = 0; i < stages.size(); i++) {
            Stage stage = stages.get(i);
            Frame in = now;
            boolean first = i == 0;
            now = stage.treat(
                    d -> first ? small.get(AROUND + d) : in,
                    stage.output().whole(),
                    machine.planes(),
                    machine.work(new Cancel()));
        }
        return now;
    }

    /** The frame that is shown and those around it that a model may read. */
    private List<Frame> frames(Path file) {
        var info = Prober.probe(file);
        var clip = new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
        Format format = clip.format();
        var range = new FrameRange(FRAME - AROUND, FRAME + AROUND + 1);
        var frames = new ArrayList<Frame>();
        try (var stream = clip.open(range, format.whole(), machine.planes(), new Cancel())) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(frame.get());
            }
        }
        return frames;
    }

    private void draw(Graphics2D g, Frame frame, Region part, int x, int y) {
        ScreenPicture shown = ScreenPicture.of(frame, part, 1, machine.planes(), machine.work(new Cancel()));
        var image = new BufferedImage(shown.width(), shown.height(), BufferedImage.TYPE_INT_RGB);
        for (int v = 0; v < shown.height(); v++) {
            for (int u = 0; u < shown.width(); u++) {
                int at = (v * shown.width() + u) * 3;
                byte[] rgb = shown.rgb();
                image.setRGB(u, v, (rgb[at] & 255) << 16 | (rgb[at + 1] & 255) << 8 | rgb[at + 2] & 255);
            }
        }
        // whole pixels, so that nothing is smoothed for the eye
        g.drawImage(image, x, y, SIDE * SHOWN, SIDE * SHOWN, null);
    }
}
