package awlsmith.demo;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.demo.scene.CrossingShot;
import awlsmith.demo.scene.DeckWalkShot;
import awlsmith.demo.scene.Shot;
import awlsmith.demo.scene.ShotRenderer;
import awlsmith.demo.scene.WinchShot;
import awlsmith.media.FootageFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleConsumer;

/** Renders each clip's truth, spoils it, and writes both. The same bytes on every run of one FFmpeg version. */
public final class FootageMaker {
    private static final ColourTags PAL = new ColourTags(
            ColourTags.Matrix.BT470BG,
            ColourTags.Range.LIMITED,
            ColourTags.Transfer.GAMMA28,
            ColourTags.Primaries.BT470BG);
    private static final ColourTags HD = new ColourTags(
            ColourTags.Matrix.BT709, ColourTags.Range.LIMITED, ColourTags.Transfer.BT709, ColourTags.Primaries.BT709);
    private static final List<String> TRUTH_CODEC =
            List.of("-c:v", "libx264", "-preset", "ultrafast", "-qp", "0", "-g", "25");

    private final Path folder;
    private final PlanePool pool;
    private final Work work;

    /** @param folder for the clips; the truth goes into a folder "truth" inside it */
    public FootageMaker(Path folder, PlanePool pool, Work work) {
        this.folder = folder;
        this.pool = pool;
        this.work = work;
    }

    /** What there is to make, in the order it is made: the quickest first. */
    public List<Footage> all() {
        return List.of(
                footage("winch-inspection", "Winch inspection", "mp4", Rational.of(3)),
                footage("deck-walk", "Deck walk", "mp4", Rational.of(2)),
                footage("tape-crossing", "Tape crossing", "mpg", new Rational(3, 2)));
    }

    private Footage footage(String id, String title, String ending, Rational scale) {
        return new Footage(
                id,
                title,
                folder.resolve(id + "." + ending),
                folder.resolve("truth").resolve(id + ".mp4"),
                scale);
    }

    /**
     * Makes one clip and its truth, unless both are there.
     *
     * @param progress share done, 0..1
     */
    public void make(Footage footage, DoubleConsumer progress) throws IOException {
        if (Files.exists(footage.clip()) && Files.exists(footage.truth())) {
            progress.accept(1);
            return;
        }
        Files.createDirectories(folder.resolve("truth"));
        switch (footage.id()) {
            case "winch-inspection" -> winch(footage, progress);
            case "deck-walk" -> deckWalk(footage, progress);
            case "tape-crossing" -> tape(footage, progress);
            default -> throw new IllegalArgumentException("no footage is called " + footage.id());
        }
    }

    private void winch(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = new Rational(25, 2);
        Format large = clean(960, 720, HD, Rational.ONE);
        Format small = yuv(320, 240, HD, Rational.ONE);
        var codec = List.of("-c:v", "libx264", "-profile:v", "baseline", "-preset", "medium", "-crf", "35", "-g", "75");
        var shot = new WinchShot();
        run(footage, shot, large, rate, small, rate, codec, Optional.empty(), progress, (frame, number) -> {
            try (var steps = new Steps(frame)) {
                steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                soften(steps.now().plane(0), 0.62f);
                grain(steps.now().plane(0), 0.008, 1000 + number);
                return steps.to(small);
            }
        });
    }

    private void deckWalk(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = Rational.of(30);
        Format large = clean(1280, 720, HD, Rational.ONE);
        Format small = yuv(640, 360, HD, Rational.ONE);
        var codec = List.of(
                "-c:v",
                "libx264",
                "-profile:v",
                "main",
                "-preset",
                "medium",
                "-crf",
                "27",
                "-g",
                "60",
                "-c:a",
                "aac",
                "-b:a",
                "96k");
        var shot = new DeckWalkShot();
        Path sound = folder.resolve("deck-walk.wav");
        new Sound(shot.seconds(), 7)
                .water(0.55)
                .engine(0.05)
                .steps(1.75, 0.22)
                .hiss(0.002)
                .write(sound);
        run(footage, shot, large, rate, small, rate, codec, Optional.of(sound), progress, (frame, number) -> {
            try (var steps = new Steps(frame)) {
                steps.reduce(small.withChroma(Chroma.S444), Kernel.BILINEAR);
                grain(steps.now().plane(0), 0.012, 2000 + number);
                sharpen(steps.now().plane(0), 0.5f);
                return steps.to(small);
            }
        });
        Files.delete(sound);
    }

    private void tape(Footage footage, DoubleConsumer progress) throws IOException {
        Rational sar = new Rational(16, 15);
        Format large = clean(1080, 864, PAL, sar);
        Format small = yuv(720, 576, PAL, sar);
        var codec = List.of(
                "-c:v",
                "mpeg2video",
                "-flags:v",
                "+ildct+ilme+bitexact",
                "-top",
                "1",
                "-b:v",
                "6000k",
                "-maxrate",
                "8000k",
                "-bufsize",
                "1835k",
                "-g",
                "12",
                "-bf",
                "2",
                "-c:a",
                "mp2",
                "-b:a",
                "192k");
        var shot = new CrossingShot();
        Path sound = folder.resolve("tape-crossing.wav");
        new Sound(shot.seconds(), 11)
                .water(0.4)
                .engine(0.10)
                .hum(0.035)
                .hiss(0.008)
                .write(sound);
        var tape = new Tape(1931);
        var weave = new Weave(small.withChroma(Chroma.S444));
        run(
                footage,
                shot,
                large,
                Rational.of(50),
                small,
                Rational.of(25),
                codec,
                Optional.of(sound),
                progress,
                (frame, number) -> {
                    try (var steps = new Steps(frame)) {
                        steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                        Frame woven = weave.add(steps.now(), number);
                        if (woven == null) {
                            return null;
                        }
                        tape.wear(woven);
                        return new Steps(woven).to(small);
                    }
                });
        Files.delete(sound);
    }

    /** Spoils one clean frame; null when the frame only adds to the next. */
    private interface Spoiling {
        Frame of(Frame clean, long number);
    }

    private void run(
            Footage footage,
            Shot shot,
            Format large,
            Rational rate,
            Format small,
            Rational smallRate,
            List<String> codec,
            Optional<Path> sound,
            DoubleConsumer progress,
            Spoiling spoiling)
            throws IOException {
        Path truthPart =
                footage.truth().resolveSibling("part-" + footage.truth().getFileName());
        Path clipPart = footage.clip().resolveSibling("part-" + footage.clip().getFileName());
        Format truthFormat = yuv(large.width(), large.height(), large.colour(), large.sar());
        var renderer = new ShotRenderer(shot, large, pool, work);
        long count = rate.times(Math.round(shot.seconds())).ticks(Rational.ONE);
        // fields are moments of their own: the truth keeps the first of each pair, of the second only its lines are
        // looked at
        boolean fields = !rate.equals(smallRate);
        try (var truth = new FootageFile(truthPart, truthFormat, smallRate, TRUTH_CODEC, Optional.empty());
                var clip = new FootageFile(clipPart, small, smallRate, codec, sound)) {
            for (long n = 0; n < count; n++) {
                work.cancel().check();
                boolean second = fields && n % 2 == 1;
                Frame clean = renderer.frame(n, Rational.of(n).dividedBy(rate), y -> !second || y % 3 != 0);
                if (!second) {
                    write(new Steps(clean).to(truthFormat), truth);
                }
                Frame spoilt = spoiling.of(clean, n);
                if (spoilt != null) {
                    write(spoilt, clip);
                }
                clean.release(pool);
                progress.accept((double) (n + 1) / count);
            }
            truth.finish(work.cancel());
            clip.finish(work.cancel());
        }
        Files.move(truthPart, footage.truth(), StandardCopyOption.ATOMIC_MOVE);
        Files.move(clipPart, footage.clip(), StandardCopyOption.ATOMIC_MOVE);
    }

    private void write(Frame frame, FootageFile file) {
        var layout = new RawLayout(frame.format());
        byte[] raw = new byte[layout.frameBytes()];
        layout.pack(frame, raw);
        file.write(raw);
        frame.release(pool);
    }

    /** A frame taken through a few stages; what lies between goes back to the pool. */
    private final class Steps implements AutoCloseable {
        private final Frame start;
        private Frame now;

        Steps(Frame start) {
            this.start = start;
            this.now = start;
        }

        Frame now() {
            return now;
        }

        void reduce(Format to, Kernel kernel) {
            step(new EnlargeStage(now.format(), to, kernel));
        }

        /** A frame of its own in the file's layout; the caller releases it. */
        Frame to(Format file) {
            for (var stage : LayoutStages.between(now.format(), file)) {
                step(stage);
            }
            Frame made = now;
            now = start;
            return made;
        }

        private void step(awlsmith.core.pipeline.Stage stage) {
            Frame from = now;
            now = stage.treat(distance -> from, stage.output().whole(), pool, work);
            if (from != start) {
                from.release(pool);
            }
        }

        @Override
        public void close() {
            if (now != start) {
                now.release(pool);
            }
        }
    }

    /** Weaves the upper lines of one moment with the lower lines of the next, top field first. */
    private static final class Weave {
        private final Frame woven;

        Weave(Format format) {
            woven = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
        }

        Frame add(Frame moment, long number) {
            int parity = (int) (number % 2);
            for (int p = 0; p < 3; p++) {
                Plane from = moment.plane(p);
                Plane to = woven.plane(p);
                for (int y = parity; y < to.height(); y += 2) {
                    System.arraycopy(from.data(), from.row(y), to.data(), to.row(y), to.width());
                }
            }
            return parity == 1 ? woven : null;
        }
    }

    private static Format clean(int width, int height, ColourTags colour, Rational sar) {
        return new Format(width, height, Chroma.S444, Siting.LEFT, 8, colour, sar);
    }

    private static Format yuv(int width, int height, ColourTags colour, Rational sar) {
        return new Format(width, height, Chroma.S420, Siting.LEFT, 8, colour, sar);
    }

    private static void grain(Plane plane, double level, long seed) {
        var random = new Random(seed);
        for (int y = 0; y < plane.height(); y++) {
            for (int x = 0; x < plane.width(); x++) {
                plane.data()[plane.row(y) + x] += (float) (level * random.nextGaussian());
            }
        }
    }

    /** Three-tap blur both ways; share of the middle sample. */
    private static void soften(Plane plane, float middle) {
        float side = (1 - middle) / 2;
        float[] d = plane.data();
        for (int y = 0; y < plane.height(); y++) {
            float left = d[plane.row(y)];
            for (int x = 0; x < plane.width(); x++) {
                int at = plane.row(y) + x;
                float here = d[at];
                float right = x + 1 < plane.width() ? d[at + 1] : here;
                d[at] = middle * here + side * (left + right);
                left = here;
            }
        }
        for (int x = 0; x < plane.width(); x++) {
            float above = plane.at(x, 0);
            for (int y = 0; y < plane.height(); y++) {
                float here = plane.at(x, y);
                float below = y + 1 < plane.height() ? plane.at(x, y + 1) : here;
                plane.set(x, y, middle * here + side * (above + below));
                above = here;
            }
        }
    }

    /** What small cameras do to look crisp: edges pushed apart, haloes included. */
    private static void sharpen(Plane plane, float strength) {
        Plane blurred = new Plane(plane.packed(), 0, plane.width(), plane.height(), plane.width());
        soften(blurred, 0.4f);
        for (int y = 0; y < plane.height(); y++) {
            for (int x = 0; x < plane.width(); x++) {
                float v = plane.at(x, y);
                plane.set(x, y, v + strength * 2 * (v - blurred.at(x, y)));
            }
        }
    }
}
