package awlsmith.core.condition;

import awlsmith.core.alpha.OverGrey;
import awlsmith.core.colour.LayoutStages;
import awlsmith.core.film.Scratches;
import awlsmith.core.film.Spots;
import awlsmith.core.measure.Bands;
import awlsmith.core.measure.Blocking;
import awlsmith.core.measure.BlurWidth;
import awlsmith.core.measure.Borders;
import awlsmith.core.measure.Dots;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Fields;
import awlsmith.core.measure.FrameChange;
import awlsmith.core.measure.GlobalShift;
import awlsmith.core.measure.Levels;
import awlsmith.core.measure.NoiseLevel;
import awlsmith.core.measure.Seams;
import awlsmith.core.measure.StairSteps;
import awlsmith.core.measure.Swim;
import awlsmith.core.measure.TrueSize;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Ahead;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import awlsmith.core.retime.BlendFinder;
import awlsmith.core.upscale.SoftnessGuess;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.LongConsumer;

/**
 * Looks at every frame of a clip once and notes what it sees. Of large pictures the middle is looked at; only borders and
 * levels are taken from the whole.
 */
public final class Examiner {
    /** Samples of a picture beyond which only its middle is looked at. */
    private static final long MOST_SAMPLES = 1_000_000;
    /** Frames a second on which the slower measures are taken. */
    private static final double SAMPLES_A_SECOND = 3;

    /** Seconds from which on they are taken a third as often: by then there are enough of them for what is said of the whole. */
    private static final double MANY_SECONDS = 30;

    private static final int RARER = 3;

    /**
     * Seconds from one look for dust to the next, which takes as long as a dozen frames otherwise do: at first, so that short clips
     * have some, and at most.
     */
    private static final double FILM_EVERY = 0.6;

    private static final double FILM_EVERY_AT_MOST = 4;
    private static final double FILM_RARER = 1.5;
    /** How far dust stands out, luma, and how large it is at most, samples: the defaults of the step against it. */
    private static final float DUST = 20 / 255f;

    private static final int DUST_SIZE = 24;

    /** Frames that are looked at together, by all cores. */
    private static final int TOGETHER = 8;

    private final FrameSource clip;
    private final double rate;
    private final PlanePool pool;
    private final int every;
    private final List<FrameNote> frames = new ArrayList<>();
    private final List<FieldNote> fields = new ArrayList<>();
    private final List<Sample> samples = new ArrayList<>();
    private final List<FilmNote> film = new ArrayList<>();
    private final BlendFinder blends;
    private Borders borders;
    private double filmEvery = FILM_EVERY;
    private double filmAt = 1;

    /** @param rate frames a second */
    public Examiner(FrameSource clip, double rate, PlanePool pool) {
        this.clip = OverGrey.of(clip);
        this.rate = rate;
        this.pool = pool;
        this.every = every(rate);
        this.blends = new BlendFinder(rate, BlendFinder.RATES);
    }

    private static int every(double rate) {
        return (int) Math.max(1, Math.round(rate / SAMPLES_A_SECOND));
    }

    /** Bytes of planes that are held at once, roughly. */
    public static long bytes(Format format, double rate) {
        int held = 2 * TOGETHER + 2;
        if (format.chroma() == Chroma.RGB) {
            // turned into luma and chroma whole
            return held * format.floatBytes();
        }
        Region part = part(format.width(), format.height());
        return (Math.ceilDiv(held, every(rate)) + 1) * format.floatBytes() + held * format.floatBytes(part);
    }

    /**
     * @param work whose cores look, and whose wish to stop is heard
     * @param progress told the number of frames done
     * @throws Cancel.Stopped when asked to stop; nothing is kept then
     */
    public Notes examine(Work work, LongConsumer progress) {
        var held = new ArrayList<Looked>();
        try (FrameStream stream = new Ahead(opened(work.cancel()), TOGETHER, pool)) {
            int known = 0;
            do {
                work.cancel().check();
                // of the frames before, the last two are still needed
                while (held.size() > 2) {
                    held.removeFirst().frame().release(pool);
                }
                known = held.size();
                for (Optional<Frame> next = stream.next(); next.isPresent(); next = more(stream, held, known)) {
                    held.add(new Looked(next.get()));
                }
                look(held, known, work);
                progress.accept(frames.size());
            } while (held.size() > known);
        } finally {
            held.forEach(looked -> looked.frame().release(pool));
        }
        return new Notes(
                clip.format(),
                rate,
                List.copyOf(frames),
                List.copyOf(fields),
                List.copyOf(samples),
                List.copyOf(film),
                borders == null ? Borders.NONE : borders,
                blends.found());
    }

    private static Optional<Frame> more(FrameStream stream, List<Looked> held, int known) {
        return held.size() - known < TOGETHER ? stream.next() : Optional.empty();
    }

    /** What is found in one frame, and in the one before it, which has both its neighbours now. */
    private static final class Found {
        private FrameNote note;
        private Optional<Sample> sample = Optional.empty();
        private Optional<Borders> borders = Optional.empty();
        private Optional<FieldNote> field = Optional.empty();
        private Optional<FilmNote> film = Optional.empty();
    }

    /** Looks at the frames from one on; those before it were looked at and are neighbours. */
    private void look(List<Looked> held, int from, Work work) {
        int count = held.size() - from;
        if (count == 0) {
            return;
        }
        var found = new Found[count];
        boolean[] wantsFilm = new boolean[count];
        for (int i = 0; i < count; i++) {
            found[i] = new Found();
            wantsFilm[i] =
                    from + i >= 2 && isFilmDue(held.get(from + i - 1).frame().number());
        }
        Work alone = Work.alone().with(work.cancel());
        work.bands(count, 1, (first, end) -> {
            for (int i = first; i < end; i++) {
                held.get(from + i).sum();
            }
        });
        work.bands(count, 1, (first, end) -> {
            for (int i = first; i < end; i++) {
                one(held, from + i, wantsFilm[i], found[i], alone);
            }
        });
        held.subList(from, held.size()).forEach(looked -> blends.see(looked.luma()));
        for (Found one : found) {
            frames.add(one.note);
            one.sample.ifPresent(samples::add);
            one.borders.ifPresent(seen -> borders = borders == null ? seen : borders.common(seen));
            one.field.ifPresent(fields::add);
            one.film.ifPresent(film::add);
        }
    }

    private boolean isFilmDue(long frame) {
        if (frame < filmAt) {
            return false;
        }
        filmAt += filmEvery * rate;
        filmEvery = Math.min(FILM_EVERY_AT_MOST, filmEvery * FILM_RARER);
        return true;
    }

    private void one(List<Looked> held, int i, boolean wantsFilm, Found found, Work work) {
        Looked here = held.get(i);
        found.note = note(i == 0 ? null : held.get(i - 1), here);
        if (isSample(here.frame().number())) {
            found.sample = Optional.of(sample(here));
            found.borders = Borders.of(here.frame().plane(0));
        }
        if (i >= 2) {
            FieldNote field = field(held.get(i - 2), held.get(i - 1), here);
            found.field = Optional.of(field);
            // in woven fields teeth would pass for dust
            if (wantsFilm && field.combed() <= FieldNote.COMBED) {
                found.film = Optional.of(film(held.get(i - 2), held.get(i - 1), here, work));
            }
        }
    }

    /** That takes longer than all else: a few samples, ever farther apart, are enough. */
    private boolean isAskedHowSoft(long frame) {
        long sample = frame / every;
        return frame % every == 0 && Long.bitCount(sample) <= 1;
    }

    private boolean isSample(long frame) {
        return frame % (frame < MANY_SECONDS * rate ? every : (long) RARER * every) == 0;
    }

    /** Luma and chroma whatever the clip holds; RGB is turned into them as for a file in BT.709. */
    private FrameStream opened(Cancel cancel) {
        Format format = clip.format();
        if (format.chroma() != Chroma.RGB) {
            // the whole only where all of it is looked at
            Region middle = part(format.width(), format.height());
            return clip.open(FrameRange.all(), number -> isSample(number) ? format.whole() : middle, pool, cancel);
        }
        var colour = new ColourTags(
                ColourTags.Matrix.BT709,
                ColourTags.Range.LIMITED,
                format.colour().transfer(),
                format.colour().primaries());
        var luma = new Format(
                format.width(), format.height(), Chroma.S444, format.siting(), format.depth(), colour, format.sar());
        var chain = new Chain(format, LayoutStages.between(format, luma));
        return chain.open(
                clip, FrameRange.all(), luma.whole(), pool, Work.alone().with(cancel));
    }

    /** A frame, the luma that is looked at, and its sums once they are made. */
    private static final class Looked {
        private final Frame frame;
        private final Plane luma;
        private GlobalShift.Profiles profiles;

        Looked(Frame frame) {
            this.frame = frame;
            Format format = frame.format();
            Region middle = part(format.width(), format.height());
            this.luma = frame.plane(0)
                    .window(new Region(
                            middle.x() - frame.window().x(),
                            middle.y() - frame.window().y(),
                            middle.width(),
                            middle.height()));
        }

        void sum() {
            profiles = GlobalShift.Profiles.of(luma);
        }

        Frame frame() {
            return frame;
        }

        Plane luma() {
            return luma;
        }

        GlobalShift.Profiles profiles() {
            return profiles;
        }
    }

    /** Whole macroblocks of the middle. */
    static Region part(int width, int height) {
        if ((long) width * height <= MOST_SAMPLES) {
            return Region.whole(width, height);
        }
        double share = Math.sqrt((double) MOST_SAMPLES / ((double) width * height));
        int w = Math.max(64, (int) (width * share) & ~15);
        int h = Math.max(64, (int) (height * share) & ~15);
        return new Region(Math.max(0, (width - w) / 2) & ~15, Math.max(0, (height - h) / 2) & ~15, w, h)
                .within(width, height);
    }

    private static FrameNote note(Looked before, Looked here) {
        double light = 0;
        float[] rows = here.profiles().rows();
        for (float row : rows) {
            light += row;
        }
        return new FrameNote(
                light / rows.length,
                here.frame().time().toDouble(),
                before == null ? FrameNote.NO_CHANGE : FrameChange.between(before.luma(), here.luma()),
                before == null ? FrameNote.NO_SHIFT : GlobalShift.between(before.profiles(), here.profiles()));
    }

    private static FieldNote field(Looked before, Looked here, Looked after) {
        var fit = Fields.fit(before.luma(), here.luma(), after.luma());
        return new FieldNote(here.frame().number(), Fields.verdict(fit), Fields.combed(here.luma()));
    }

    private static FilmNote film(Looked before, Looked here, Looked after, Work work) {
        Spots spots = Spots.find(before.luma(), here.luma(), after.luma(), DUST, DUST_SIZE, work);
        return new FilmNote(
                here.frame().number(),
                spots.count(),
                Scratches.find(here.luma(), DUST / 2, work).size(),
                Swim.between(
                        before.luma(), after.luma(), NoiseLevel.of(after.luma()).level(), work));
    }

    private Sample sample(Looked here) {
        Plane luma = here.luma();
        Frame whole = here.frame();
        return new Sample(
                whole.number(),
                NoiseLevel.of(luma),
                colourNoise(whole),
                Blocking.of(luma),
                EdgeWidth.of(luma),
                BlurWidth.of(luma),
                Seams.of(luma),
                StairSteps.of(luma),
                TrueSize.of(luma),
                Dots.of(luma),
                Bands.share(luma),
                isAskedHowSoft(whole.number()) ? SoftnessGuess.of(luma) : Double.NaN,
                Levels.of(whole));
    }

    /** Mean of both colour differences, at the scale where it is stronger: they are often enlarged from less. */
    private double colourNoise(Frame frame) {
        if (frame.planes().size() < 3) {
            return Double.NaN;
        }
        double sum = 0;
        for (int p = 1; p < 3; p++) {
            Plane whole = frame.plane(p);
            Plane chroma = whole.window(part(whole.width(), whole.height()));
            Plane raised = pool.borrow(chroma.width(), chroma.height());
            for (int y = 0; y < chroma.height(); y++) {
                int from = chroma.row(y);
                int to = raised.row(y);
                for (int x = 0; x < chroma.width(); x++) {
                    // around grey, where noise is asked of light
                    raised.data()[to + x] = chroma.data()[from + x] + 0.5f;
                }
            }
            sum += NoiseLevel.of(raised).level() / 2;
            pool.giveBack(raised);
        }
        return sum;
    }
}
