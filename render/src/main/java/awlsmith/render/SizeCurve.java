package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import awlsmith.media.Clip;
import awlsmith.media.FinalEncoding;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.PacketSizes;
import awlsmith.media.Prober;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Size against quality: a little of a render is treated once and then coded at one rate factor after another, each held against what was
 * treated. What was made lies in the request's scratch folder until this is closed.
 */
public final class SizeCurve implements AutoCloseable {
    /** Frames at one of the places: encoders that look ahead code the last of so few more coarsely than they would in a long file. */
    private static final int MOST = 60;

    /** Of the picture that shows what is lost, at its own pixels. */
    private static final int SHOWN_WIDTH = 176;

    private static final int SHOWN_HEIGHT = 120;
    /** Squares that are compared to find it. */
    private static final int SQUARE = 8;

    private final RenderRequest request;
    private final Machine machine;
    private final List<Samples.Place> places;
    private final Map<Integer, Point> known = new ConcurrentHashMap<>();
    private final Map<Path, Clip> opened = new ConcurrentHashMap<>();
    private Optional<Region> shown = Optional.empty();

    private SizeCurve(RenderRequest request, Machine machine, List<Samples.Place> places) {
        this.request = request;
        this.machine = machine;
        this.places = places;
    }

    /**
     * What a rate factor comes to.
     *
     * @param fileBytes of the whole file, sound counted by what the source's says of itself
     * @param ssim structural similarity of luma with what was treated, in the mean of all frames; NaN where pictures are too small for it
     * @param worst of the frame that fares worst
     * @param psnr of luma in dB against the largest code value, of all frames together; infinite where nothing is lost
     * @param frames that were compared
     */
    public record Point(int quality, long fileBytes, double ssim, double worst, double psnr, int frames) {}

    /**
     * Treats a little of it.
     *
     * @param request of a clip with an index, in a codec that goes by quality; its scratch folder gets what is made
     * @param budget seconds that it may take, roughly
     */
    public static SizeCurve of(RenderRequest request, Machine machine, double budget, Cancel cancel) {
        try {
            Files.createDirectories(request.scratch());
            Deliverable lossless = Deliverable.of("ffv1", Map.of(), false);
            return new SizeCurve(request, machine, new Samples(request, lossless, machine, cancel).make(budget, MOST));
        } catch (IOException e) {
            sweep(request.scratch());
            throw new MediaException("the disk refused what is tried: " + e.getMessage(), e);
        } catch (RuntimeException e) {
            sweep(request.scratch());
            throw e;
        }
    }

    /** Codes it at one rate factor and compares. */
    public synchronized Point at(int quality, Cancel cancel) {
        Point before = known.get(quality);
        if (before != null) {
            return before;
        }
        try {
            Point point = measured(quality, cancel);
            known.put(quality, point);
            return point;
        } catch (IOException e) {
            throw new MediaException("the disk refused what is tried: " + e.getMessage(), e);
        }
    }

    private Point measured(int quality, Cancel cancel) throws IOException {
        Deliverable deliverable = request.deliverable().atQuality(quality).with(Sound.NONE);
        var packets = new ArrayList<PacketSizes.Sizes>();
        double squares = 0;
        double likeness = 0;
        double worst = Double.NaN;
        int frames = 0;
        for (int p = 0; p < places.size(); p++) {
            Path folder = request.scratch().resolve("coding");
            Folders.remove(folder);
            var coding = new FinalEncoding(
                    List.of(places.get(p).file()),
                    request.fileFormat(),
                    request.outputRate(),
                    deliverable,
                    folder,
                    machine.threads());
            Path file = Files.move(
                    coding.write(0, (doing, done) -> {}, cancel),
                    coded(quality, p),
                    StandardCopyOption.REPLACE_EXISTING);
            packets.add(PacketSizes.of(file, cancel));
            try (var treated = stream(places.get(p).file().file(), cancel);
                    var made = stream(file, cancel)) {
                for (Optional<Frame> one = treated.next(); one.isPresent(); one = treated.next()) {
                    cancel.check();
                    Frame other = made.next()
                            .orElseThrow(() -> new MediaException("the encoder left out frames of what was tried"));
                    Plane a = one.get().plane(0);
                    Plane b = other.plane(0);
                    squares += Psnr.meanSquare(a, b, 0);
                    double alike = Math.min(a.width(), a.height()) < Ssim.WINDOW ? Double.NaN : Ssim.of(a, b, 0);
                    likeness += alike;
                    worst = Double.isNaN(worst) ? alike : Math.min(worst, alike);
                    frames++;
                    if (shown.isEmpty()) {
                        shown = Optional.of(mostLost(a, b));
                    }
                    one.get().release(machine.planes());
                    other.release(machine.planes());
                }
            }
        }
        long count = request.outputRange().count();
        double sound = request.soundBits()
                / 8
                * request.lasting(request.outputRange().from(), count).toDouble();
        double bytes = Samples.bytes(packets, count, deliverable.gop()) + sound;
        return new Point(
                quality,
                Math.round(bytes),
                likeness / frames,
                worst,
                Psnr.decibels(squares / frames / (peak() * peak())),
                frames);
    }

    /** Largest code value of luma, where black is 0 and white 1: figures of PSNR are told against that. */
    private double peak() {
        var format = request.fileFormat();
        double top = Math.pow(2, format.depth()) - 1;
        boolean isLimited = format.colour().range() != ColourTags.Range.FULL;
        return isLimited ? top / (219 * Math.pow(2, format.depth() - 8)) : 1;
    }

    private Path coded(int quality, int place) {
        return request.scratch().resolve("at-" + quality + "-" + place + ".coded");
    }

    private FrameStream stream(Path file, Cancel cancel) {
        Clip clip = opened.computeIfAbsent(file, one -> clip(one, cancel));
        long count = clip.index().orElseThrow().count();
        return clip.open(new FrameRange(0, count), clip.format().whole(), machine.planes(), cancel);
    }

    private static Clip clip(Path file, Cancel cancel) {
        var info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, frames -> {}, cancel)));
    }

    /** Where most is lost, as large as is shown. */
    static Region mostLost(Plane treated, Plane made) {
        int across = Math.max(1, treated.width() / SQUARE);
        int down = Math.max(1, treated.height() / SQUARE);
        // sums of all squares above and left of each corner
        double[][] sums = new double[down + 1][across + 1];
        for (int y = 0; y < down; y++) {
            for (int x = 0; x < across; x++) {
                sums[y + 1][x + 1] =
                        sums[y][x + 1] + sums[y + 1][x] - sums[y][x] + lost(treated, made, x * SQUARE, y * SQUARE);
            }
        }
        int wide = Math.min(across, SHOWN_WIDTH / SQUARE);
        int high = Math.min(down, SHOWN_HEIGHT / SQUARE);
        double most = -1;
        int left = 0;
        int top = 0;
        for (int y = 0; y + high <= down; y++) {
            for (int x = 0; x + wide <= across; x++) {
                double here = sums[y + high][x + wide] - sums[y][x + wide] - sums[y + high][x] + sums[y][x];
                if (here > most) {
                    most = here;
                    left = x * SQUARE;
                    top = y * SQUARE;
                }
            }
        }
        return new Region(left, top, Math.min(treated.width(), SHOWN_WIDTH), Math.min(treated.height(), SHOWN_HEIGHT));
    }

    private static double lost(Plane treated, Plane made, int left, int top) {
        double sum = 0;
        for (int y = top; y < Math.min(treated.height(), top + SQUARE); y++) {
            for (int x = left; x < Math.min(treated.width(), left + SQUARE); x++) {
                double d = treated.at(x, y) - made.at(x, y);
                sum += d * d;
            }
        }
        return sum;
    }

    /**
     * The place where most was lost at the rate factor that was tried first, at its own pixels, of the first frame in the middle of the span.
     *
     * @param quality that it is coded at; empty for what was treated
     */
    public synchronized ScreenPicture picture(Optional<Integer> quality, Cancel cancel) {
        Region part = shown.orElseThrow(() -> new MediaException("nothing was tried yet; ask for a point first"));
        Path file = quality.map(q -> coded(q, 0))
                .orElseGet(() -> places.getFirst().file().file());
        if (!Files.exists(file)) {
            throw new MediaException("this quality was not tried yet; ask for its point first");
        }
        try (var stream = stream(file, cancel)) {
            Frame frame = stream.next().orElseThrow();
            try {
                return ScreenPicture.of(frame, part, 1, machine.planes(), machine.work(cancel));
            } finally {
                frame.release(machine.planes());
            }
        }
    }

    @Override
    public void close() {
        sweep(request.scratch());
    }

    private static void sweep(Path folder) {
        try {
            Folders.remove(folder);
        } catch (IOException e) {
            // it is swept by a later start
        }
    }
}
