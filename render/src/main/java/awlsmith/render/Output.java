package awlsmith.render;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.mark.Overlay;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.TimeCode;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Subtitles;
import awlsmith.core.plan.Taking;
import awlsmith.media.BurntWords;
import awlsmith.media.FinalEncoding;
import awlsmith.media.Joiner;
import awlsmith.media.KeyFrames;
import awlsmith.media.MediaException;
import awlsmith.media.PacketCopy;
import awlsmith.media.PictureFiles;
import awlsmith.media.ReadBack;
import awlsmith.media.SoundFile;
import awlsmith.media.WebpFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** One of the files that a treatment goes into: what is its own behind the frames that all of them share. */
final class Output {
    /** Folder in that of the parts, in which words are drawn. */
    private static final String WORDS = "words";

    private final RenderRequest request;
    private final SegmentFolder segments;
    private final List<Stage> layout;
    private final RawLayout raw;
    private Optional<BurntWords> words = Optional.empty();
    private Laid over;

    /** @param segments finished so far, and where more go */
    Output(RenderRequest request, SegmentFolder segments) {
        this.request = request;
        this.segments = segments;
        this.layout = LayoutStages.between(request.treatment().output(), request.fileFormat());
        this.raw = new RawLayout(request.fileFormat());
    }

    RenderRequest request() {
        return request;
    }

    SegmentFolder segments() {
        return segments;
    }

    /** Of its raw pictures. */
    RawLayout raw() {
        return raw;
    }

    /**
     * Packs a treated frame as its file wants it.
     *
     * @param treated stays the caller's
     * @param into gets the code values
     */
    void pack(Frame treated, byte[] into, PlanePool pool, Work work) {
        Frame now = withWords(treated, pool);
        for (Stage stage : layout) {
            Frame from = now;
            now = stage.treat(distance -> from, stage.output().whole(), pool, work);
            if (from != treated) {
                from.release(pool);
            }
        }
        Frame last = now;
        for (int p = 0; p < last.planes().size(); p++) {
            int plane = p;
            work.bands(last.plane(p).height(), 128, (from, to) -> raw.packRows(last, into, plane, from, to));
        }
        if (last != treated) {
            last.release(pool);
        }
    }

    /** The frame with what is said in it, where that is drawn in; else the very frame. */
    private Frame withWords(Frame treated, PlanePool pool) {
        if (words.isEmpty()) {
            return treated;
        }
        Rational clock = request.clip()
                .index()
                .map(index -> index.clock(0))
                .orElse(request.clip().info().video().start())
                .plus(treated.time().times(request.treatment().chain().speed()));
        Optional<BurntWords.Drawn> drawn = words.get().at(clock);
        if (drawn.isEmpty()) {
            return treated;
        }
        if (over == null || over.drawn() != drawn.get()) {
            BurntWords.Drawn one = drawn.get();
            over = new Laid(one, new Overlay(request.treatment().output(), one.picture(), one.left(), one.top()));
        }
        return over.overlay().over(treated, pool);
    }

    private record Laid(BurntWords.Drawn drawn, Overlay overlay) {}

    /** Draws what is said, where it is to be drawn in, from now on. */
    void openWords(Cancel cancel) {
        if (request.isBurnt() && words.isEmpty()) {
            var format = request.treatment().output();
            words = request.clip()
                    .info()
                    .words()
                    .map(track -> BurntWords.of(
                            request.clip().info(),
                            track,
                            request.scratch().resolve(WORDS),
                            format.width(),
                            format.height(),
                            cancel));
        }
    }

    /** More goes at a size than this have never come nearer to it. */
    private static final int MOST_GOES = 4;

    /** Less of the size wanted than this is given away. */
    private static final double WASTED = 0.88;

    /**
     * Makes one file of the segments, reads it back and judges it.
     *
     * @param frames in all segments
     */
    Renderer.Made join(long frames, Machine machine, RenderWatch watch, Cancel cancel) throws IOException {
        Path out = request.out();
        Path part = out.resolveSibling("." + out.getFileName() + ".part." + RenderRequest.ending(out));
        Path folder = request.scratch().resolve("coding");
        try {
            watch.ending("putting the file together", 0);
            if (request.deliverable().taking() == Taking.SOURCE) {
                return copied(part, folder, cancel);
            }
            var along = along(frames);
            if (request.deliverable().taking() == Taking.SOUND) {
                return sounded(along, part, cancel);
            }
            if (request.deliverable().taking() == Taking.FEW) {
                var picked = new Picked(this, machine, watch, cancel).make(part, folder);
                Files.move(part, out, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
                return new Renderer.Result(picked.at(out), Optional.empty());
            }
            var made = request.deliverable().isCodedInParts()
                    ? joined(segments.list(frames), along, part, cancel)
                    : coded(frames, along, part, folder, machine, watch, cancel);
            new Verdict(request, request.fileFormat(), along, frames).demand(made.facts(), cancel);
            Files.move(part, out, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
            return new Renderer.Result(made.facts().at(out), made.note());
        } finally {
            Files.deleteIfExists(part);
            Folders.remove(folder);
            Folders.remove(request.scratch().resolve(WORDS));
        }
    }

    /** The source's own packets; what goes along is put to them as to any others. */
    private Renderer.Result copied(Path part, Path folder, Cancel cancel) throws IOException {
        var source = request.clip();
        var index = source.index().orElseThrow();
        KeyFrames.Piece piece = request.piece(cancel);
        Folders.remove(folder);
        Files.createDirectories(folder);
        Path pictures = PacketCopy.copy(source.info(), piece, index, folder, cancel);
        long count = piece.frames().count();
        Joiner.Along along = along(count);
        // its name in MP4 goes by the codec
        Codec codec = source.info().video().codec().equals("hevc")
                ? Codecs.H265
                : request.deliverable().codec();
        Optional<String> note = Joiner.join(
                List.of(new Joiner.Segment(pictures, along.seconds())),
                source.info().video().format(),
                codec,
                along,
                part,
                request.scratch(),
                cancel);
        ReadBack.Facts facts = ReadBack.of(part, cancel);
        PacketCopy.prove(index, piece, facts.index());
        new Verdict(request, request.fileFormat(), along, count).demand(facts, cancel);
        Files.move(part, request.out(), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        return new Renderer.Result(facts.at(request.out()), note);
    }

    private Renderer.Sounded sounded(Joiner.Along along, Path part, Cancel cancel) throws IOException {
        Optional<String> note = SoundFile.write(along, part, cancel);
        SoundFile.Facts facts = SoundFile.readBack(part, cancel);
        Verdict.demandSound(facts, along, request.deliverable().container(), cancel);
        Files.move(part, request.out(), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        return new Renderer.Sounded(facts, note);
    }

    /** @param note what was changed or left out, in words */
    private record Made(ReadBack.Facts facts, Optional<String> note) {}

    /** Out of parts that are coded as the file is. */
    private Made joined(List<Joiner.Segment> parts, Joiner.Along along, Path part, Cancel cancel) {
        var note = Joiner.join(
                parts, request.fileFormat(), request.deliverable().codec(), along, part, request.scratch(), cancel);
        return new Made(ReadBack.of(part, cancel), note);
    }

    /** Out of parts without loss, coded now. */
    private Made coded(
            long frames, Joiner.Along along, Path part, Path folder, Machine machine, RenderWatch watch, Cancel cancel)
            throws IOException {
        Deliverable deliverable = request.deliverable();
        var coding = new FinalEncoding(
                segments.list(frames),
                request.fileFormat(),
                request.outputRate(),
                deliverable,
                folder,
                machine.threads());
        Folders.remove(folder);
        switch (deliverable.container()) {
            case ZIP -> {
                List<Path> pictures = coding.pictures(watch::ending, cancel);
                var facts = PictureFiles.readBack(pictures, request.outputRate().orElse(Rational.of(25)), cancel);
                PictureFiles.pack(
                        pictures, request.called(), Long.parseLong(deliverable.setting("first")), part, cancel);
                return new Made(facts, Optional.empty());
            }
            case GIF, APNG -> {
                coding.look(0, watch::ending, cancel);
                Files.move(coding.write(0, watch::ending, cancel), part, StandardCopyOption.REPLACE_EXISTING);
                return new Made(ReadBack.of(part, cancel), Optional.empty());
            }
            case WEBP -> {
                List<Path> pictures = coding.pictures(watch::ending, cancel);
                WebpFile.write(
                        pictures,
                        shown(pictures.size()),
                        deliverable.setting("loop").equals("once"),
                        part,
                        cancel);
                return new Made(
                        WebpFile.readBack(
                                part,
                                folder.resolve("back"),
                                request.outputRate().orElse(Rational.of(25)),
                                cancel),
                        Optional.empty());
            }
            default -> {
                return sized(coding, along, part, watch, cancel);
            }
        }
    }

    /** When each picture is shown, and when the last is no more, seconds from the first. */
    private List<Rational> shown(int pictures) {
        long first = request.outputRange().from();
        var times = new ArrayList<Rational>();
        for (int n = 0; n <= pictures; n++) {
            times.add(request.lasting(first, n));
        }
        return times;
    }

    /** At the bit rate that was told; or at that which makes a file of the size that was told, found by going at it again. */
    private Made sized(FinalEncoding coding, Joiner.Along along, Path part, RenderWatch watch, Cancel cancel) {
        Deliverable deliverable = request.deliverable();
        double seconds = along.seconds().toDouble();
        boolean bySize = deliverable.setting("by").equals("size");
        double most = bySize ? Double.parseDouble(deliverable.setting("size")) * 1e6 : Double.MAX_VALUE;
        double sound = Joiner.soundBits(along, part) / 8 * seconds;
        if (sound >= most) {
            throw tooSmall(most, sound);
        }
        long bits = request.bitsAtEnd(seconds);
        coding.look(bits, watch::ending, cancel);
        for (int go = 1; ; go++) {
            Path pictures = coding.write(bits, watch::ending, cancel);
            Made made = joined(List.of(new Joiner.Segment(pictures, along.seconds())), along, part, cancel);
            double bytes = made.facts().info().bytes();
            double without = bytes - pictures.toFile().length();
            double share =
                    (RenderRequest.AIM * most - without) / pictures.toFile().length();
            // pictures that need no more bits do not take them: once is enough to find out
            boolean isWasted = bySize && go == 1 && bytes < WASTED * most;
            if (bytes <= most && !isWasted) {
                return made;
            }
            if (go == MOST_GOES || without >= most) {
                throw tooSmall(most, without);
            }
            bits = Math.max(
                    RenderRequest.LEAST_BITS, (long) (bits * (isWasted ? Math.min(4, share) : Math.min(0.97, share))));
        }
    }

    private static MediaException tooSmall(double most, double along) {
        return new MediaException(String.format(
                Locale.ROOT,
                "the file cannot be made as small as %.2f MB: sound and all else that goes along take %.2f MB of it."
                        + " Choose a larger size, other sound, or a smaller picture",
                most / 1e6,
                along / 1e6));
    }

    private Joiner.Along along(long frames) {
        var clip = request.clip();
        long first = request.outputRange().from();
        Rational seconds = request.lasting(first, frames);
        // what goes along keeps to the file's clock, on which the pictures need not begin at 0
        Rational start = clip.index()
                .map(index -> index.clock(request.range().from()))
                .orElse(clip.info().video().start());
        boolean attached = request.deliverable().subtitles() == Subtitles.ATTACHED;
        return new Joiner.Along(
                attached ? clip.info() : clip.info().withoutSubtitles(),
                start,
                seconds,
                // in MXF all tracks begin and end with the pictures
                request.isWhole() && request.deliverable().container() != Container.MXF,
                request.deliverable().sound(),
                request.treatment().chain().speed(),
                request.outputRate(),
                request.firstLabel().map(TimeCode::toString),
                request.comment(),
                request.deliverable().tags().over(clip.info().extras().tags()));
    }
}
