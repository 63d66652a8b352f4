package awlsmith.demo;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.demo.scene.CrossingShot;
import awlsmith.demo.scene.DeckWalkShot;
import awlsmith.demo.scene.LampNightShot;
import awlsmith.demo.scene.LandingShot;
import awlsmith.demo.scene.RegattaShot;
import awlsmith.demo.scene.SafetyFilm;
import awlsmith.demo.scene.Shot;
import awlsmith.demo.scene.ShotRenderer;
import awlsmith.demo.scene.WinchShot;
import awlsmith.media.Clip;
import awlsmith.media.FootageFile;
import awlsmith.media.Prober;
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
    private static final ColourTags RGB = new ColourTags(
            ColourTags.Matrix.RGB, ColourTags.Range.FULL, ColourTags.Transfer.BT709, ColourTags.Primaries.BT709);
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
                footage("safety-film", "Safety film", "gif", Rational.of(3)),
                footage("winch-inspection", "Winch inspection", "mp4", Rational.of(3)),
                footage("faded-reel", "Faded reel", "mkv", Rational.of(2)),
                footage("moving-postcard", "Moving postcard", "mp4", Rational.of(2)),
                footage("deck-walk", "Deck walk", "mp4", Rational.of(2)),
                footage("lamp-night", "Lamp night", "mp4", Rational.of(2)),
                footage("regatta", "Regatta", "mp4", Rational.of(2)),
                footage("tape-crossing", "Tape crossing", "mpg", new Rational(3, 2)),
                footage("cut-short", "Cut short", "mkv", Rational.of(2)));
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
            case "moving-postcard" -> movingPostcard(footage, progress);
            case "deck-walk" -> deckWalk(footage, progress);
            case "tape-crossing" -> tape(footage, progress);
            case "lamp-night" -> lampNight(footage, progress);
            case "regatta" -> regatta(footage, progress);
            case "faded-reel" -> fadedReel(footage, progress);
            case "safety-film" -> safetyFilm(footage, progress);
            case "cut-short" -> cutShort(footage, progress);
            default -> throw new IllegalArgumentException("no footage is called " + footage.id());
        }
    }

    private static List<String> h264(String crf, String... more) {
        var words = new java.util.ArrayList<>(List.of("-c:v", "libx264", "-preset", "medium", "-crf", crf, "-g", "48"));
        words.addAll(List.of(more));
        return words;
    }

    private void lampNight(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = Rational.of(24);
        Format large = clean(1280, 720, HD, Rational.ONE);
        Format small = yuv(640, 360, HD, Rational.ONE);
        var shot = new LampNightShot();
        Path sound = folder.resolve("lamp-night.wav");
        new Sound(shot.seconds(), 19).water(0.25).hum(0.02).hiss(0.02).write(sound);
        var codec = h264("21", "-c:a", "aac", "-b:a", "96k");
        run(footage, shot, large, rate, small, rate, codec, Optional.of(sound), progress, (frame, number) -> {
            try (var steps = new Steps(frame, pool, work)) {
                steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                Spoil.darkNoise(steps.now().plane(0), 0.045, 0.07, 3000 + number);
                Spoil.darkNoise(steps.now().plane(1), 0.012, 0, 4000 + number);
                Spoil.darkNoise(steps.now().plane(2), 0.012, 0, 5000 + number);
                return steps.to(small);
            }
        });
        Files.delete(sound);
    }

    private void regatta(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = Rational.of(25);
        Format large = clean(1280, 720, HD, Rational.ONE);
        Format small = yuv(640, 360, HD, Rational.ONE).withDepth(10);
        var codec = List.of("-c:v", "libx265", "-preset", "medium", "-crf", "20", "-x265-params", "log-level=error");
        run(
                footage,
                new RegattaShot(),
                large,
                rate,
                small,
                rate,
                codec,
                Optional.empty(),
                progress,
                (frame, number) -> {
                    try (var steps = new Steps(frame, pool, work)) {
                        steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                        Spoil.defocus(steps.now().plane(0), 7);
                        Spoil.grain(steps.now().plane(0), 0.004, 6000 + number);
                        return steps.to(small);
                    }
                });
    }

    private void fadedReel(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = Rational.of(18);
        Format large = clean(960, 720, PAL, Rational.ONE);
        Format small = new Format(480, 360, Chroma.GREY, Siting.LEFT, 8, PAL, Rational.ONE);
        var codec = List.of("-c:v", "ffv1", "-level", "3");
        var light = new Random(31);
        run(
                footage,
                new LandingShot(),
                large,
                rate,
                small,
                rate,
                codec,
                Optional.empty(),
                progress,
                (frame, number) -> {
                    try (var steps = new Steps(frame, pool, work)) {
                        steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                        Plane luma = steps.now().plane(0);
                        Spoil.soften(luma, 0.7f);
                        Spoil.fade(luma, 0.30, 0.72, 1 + 0.035 * light.nextGaussian());
                        Spoil.grain(luma, 0.022, 7000 + number);
                        Spoil.dust(luma, number);
                        Frame grey = Frame.blank(small, small.whole(), frame.number(), frame.time(), pool);
                        System.arraycopy(
                                luma.packed(),
                                0,
                                grey.plane(0).data(),
                                grey.plane(0).row(0),
                                480 * 360);
                        return grey;
                    }
                });
    }

    /** An old view of the landing that somebody had a program set moving. */
    private void movingPostcard(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = Rational.of(16);
        Format large = clean(960, 720, HD, Rational.ONE);
        Format small = yuv(480, 360, HD, Rational.ONE);
        var generated = new Generated();
        run(
                footage,
                new LandingShot(),
                large,
                rate,
                small,
                rate,
                h264("19"),
                Optional.empty(),
                progress,
                (frame, number) -> {
                    try (var steps = new Steps(frame, pool, work)) {
                        steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                        generated.spoil(steps.now().plane(0), number, work);
                        return steps.to(small);
                    }
                });
    }

    /** Drawn, not cast: every third pixel of the large drawing is what the old film keeps, stairs and all. */
    private void safetyFilm(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = Rational.of(15);
        var rgb = new Format(960, 720, Chroma.RGB, Siting.LEFT, 8, RGB, Rational.ONE);
        Format small = rgb.withSize(320, 240, Rational.ONE);
        Format truthFormat = yuv(960, 720, HD, Rational.ONE);
        write(footage, truthFormat, rate, small, rate, List.of("-c:v", "gif"), Optional.empty(), (truth, clip) -> {
            int count = (int) Math.round(SafetyFilm.SECONDS * 15);
            for (int n = 0; n < count; n++) {
                work.cancel().check();
                Frame large = drawn(SafetyFilm.frame(n / 15.0, 3), rgb, 1, n);
                write(new Steps(large, pool, work).to(truthFormat), truth);
                large.release(pool);
                write(drawn(SafetyFilm.frame(n / 15.0, 3), small, 3, n), clip);
                progress.accept((n + 1.0) / count);
            }
        });
    }

    private Frame drawn(java.awt.image.BufferedImage image, Format format, int every, long number) {
        Frame frame = Frame.blank(format, format.whole(), number, Rational.ZERO, pool);
        for (int y = 0; y < format.height(); y++) {
            for (int x = 0; x < format.width(); x++) {
                int rgb = image.getRGB(x * every + every / 2, y * every + every / 2);
                for (int p = 0; p < 3; p++) {
                    frame.plane(p).set(x, y, (rgb >> (16 - 8 * p) & 0xff) / 255f);
                }
            }
        }
        return frame;
    }

    /** A copy that was broken off: the crossing once more, in a file that ends too early and has been damaged before. */
    private void cutShort(Footage footage, DoubleConsumer progress) throws IOException {
        Footage crossing = all().stream()
                .filter(one -> one.id().equals("tape-crossing"))
                .findFirst()
                .orElseThrow();
        make(crossing, share -> {});
        Clip source = Clip.streamed(Prober.probe(crossing.truth()));
        Rational rate = Rational.of(25);
        Format large = source.format();
        Format small = yuv(640, 480, PAL, Rational.ONE);
        write(footage, large, rate, small, rate, h264("24", "-bf", "0"), Optional.empty(), (truth, clip) -> {
            try (var stream = source.open(FrameRange.all(), large.whole(), pool, work.cancel())) {
                long n = 0;
                for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                    try (var steps = new Steps(frame.get(), pool, work)) {
                        steps.reduce(small, Kernel.AREA);
                        Spoil.grain(steps.now().plane(0), 0.006, 8000 + n);
                        write(steps.to(small), clip);
                    }
                    write(frame.get(), truth);
                    progress.accept(++n / 150.0);
                }
            }
        });
        damage(footage.clip());
    }

    /** Takes the last two fifths away and overwrites three short stretches of what is left. */
    private static void damage(Path file) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        byte[] kept = java.util.Arrays.copyOf(bytes, bytes.length * 3 / 5);
        var random = new Random(5);
        for (double place : new double[] {0.3, 0.55, 0.8}) {
            int at = (int) (kept.length * place);
            for (int i = 0; i < 160; i++) {
                kept[at + i] = (byte) random.nextInt(256);
            }
        }
        Path part = file.resolveSibling("part-" + file.getFileName());
        Files.write(part, kept);
        Files.move(part, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
    }

    private void winch(Footage footage, DoubleConsumer progress) throws IOException {
        Rational rate = new Rational(25, 2);
        Format large = clean(960, 720, HD, Rational.ONE);
        Format small = yuv(320, 240, HD, Rational.ONE);
        var codec = List.of("-c:v", "libx264", "-profile:v", "baseline", "-preset", "medium", "-crf", "35", "-g", "75");
        var shot = new WinchShot();
        run(footage, shot, large, rate, small, rate, codec, Optional.empty(), progress, (frame, number) -> {
            try (var steps = new Steps(frame, pool, work)) {
                steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                Spoil.soften(steps.now().plane(0), 0.62f);
                Spoil.grain(steps.now().plane(0), 0.008, 1000 + number);
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
            try (var steps = new Steps(frame, pool, work)) {
                steps.reduce(small.withChroma(Chroma.S444), Kernel.BILINEAR);
                Spoil.grain(steps.now().plane(0), 0.012, 2000 + number);
                Spoil.sharpen(steps.now().plane(0), 0.5f);
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
                    try (var steps = new Steps(frame, pool, work)) {
                        steps.reduce(small.withChroma(Chroma.S444), Kernel.AREA);
                        Frame woven = weave.add(steps.now(), number);
                        if (woven == null) {
                            return null;
                        }
                        tape.wear(woven);
                        return new Steps(woven, pool, work).to(small);
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
        Format truthFormat = yuv(large.width(), large.height(), large.colour(), large.sar());
        var renderer = new ShotRenderer(shot, large, pool, work);
        long count = rate.times(Math.round(shot.seconds())).ticks(Rational.ONE);
        // fields are moments of their own: the truth keeps the first of each pair, of the second only its lines are
        // looked at
        boolean fields = !rate.equals(smallRate);
        write(footage, truthFormat, smallRate, small, smallRate, codec, sound, (truth, clip) -> {
            for (long n = 0; n < count; n++) {
                work.cancel().check();
                boolean second = fields && n % 2 == 1;
                Frame clean = renderer.frame(n, Rational.of(n).dividedBy(rate), y -> !second || y % 3 != 0);
                if (!second) {
                    write(new Steps(clean, pool, work).to(truthFormat), truth);
                }
                Frame spoilt = spoiling.of(clean, n);
                if (spoilt != null) {
                    write(spoilt, clip);
                }
                clean.release(pool);
                progress.accept((double) (n + 1) / count);
            }
        });
    }

    /** Fills the truth's file and the clip's. */
    private interface Filling {
        void of(FootageFile truth, FootageFile clip);
    }

    /** Both files get their names once they are whole. */
    private void write(
            Footage footage,
            Format truthFormat,
            Rational truthRate,
            Format small,
            Rational smallRate,
            List<String> codec,
            Optional<Path> sound,
            Filling filling)
            throws IOException {
        Path truthPart =
                footage.truth().resolveSibling("part-" + footage.truth().getFileName());
        Path clipPart = footage.clip().resolveSibling("part-" + footage.clip().getFileName());
        try (var truth = new FootageFile(truthPart, truthFormat, truthRate, TRUTH_CODEC, Optional.empty());
                var clip = new FootageFile(clipPart, small, smallRate, codec, sound)) {
            filling.of(truth, clip);
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

    private static Format clean(int width, int height, ColourTags colour, Rational sar) {
        return new Format(width, height, Chroma.S444, Siting.LEFT, 8, colour, sar);
    }

    private static Format yuv(int width, int height, ColourTags colour, Rational sar) {
        return new Format(width, height, Chroma.S420, Siting.LEFT, 8, colour, sar);
    }
}
