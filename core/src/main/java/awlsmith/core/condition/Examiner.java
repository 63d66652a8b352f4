package awlsmith.core.condition;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.film.Scratches;
import awlsmith.core.film.Spots;
import awlsmith.core.measure.Blocking;
import awlsmith.core.measure.Borders;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Fields;
import awlsmith.core.measure.FrameChange;
import awlsmith.core.measure.GlobalShift;
import awlsmith.core.measure.Levels;
import awlsmith.core.measure.NoiseLevel;
import awlsmith.core.measure.StairSteps;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
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

    private final FrameSource clip;
    private final double rate;
    private final PlanePool pool;
    private final List<FrameNote> frames = new ArrayList<>();
    private final List<FieldNote> fields = new ArrayList<>();
    private final List<Sample> samples = new ArrayList<>();
    private final List<FilmNote> film = new ArrayList<>();
    private Borders borders;

    /** @param rate frames a second */
    public Examiner(FrameSource clip, double rate, PlanePool pool) {
        this.clip = clip;
        this.rate = rate;
        this.pool = pool;
    }

    /**
     * @param progress told the number of frames done
     * @throws Cancel.Stopped when asked to stop; nothing is kept then
     */
    public Notes examine(LongConsumer progress, Cancel cancel) {
        int every = (int) Math.max(1, Math.round(rate / SAMPLES_A_SECOND));
        double filmEvery = FILM_EVERY;
        double filmAt = 1;
        Looked before = null;
        Looked here = null;
        try (FrameStream stream = opened(cancel)) {
            Optional<Frame> next = stream.next();
            while (next.isPresent()) {
                cancel.check();
                Looked after = new Looked(next.get(), middle(next.get()));
                note(here, after);
                if (frames.size() % every == 1 || every == 1) {
                    sample(after);
                }
                if (before != null) {
                    fields.add(field(before, here, after));
                    if (here.frame().number() >= filmAt) {
                        // in woven fields teeth would pass for dust
                        if (fields.getLast().combed() <= FieldNote.COMBED) {
                            film.add(film(before, here, after, Work.alone().with(cancel)));
                        }
                        filmAt += filmEvery * rate;
                        filmEvery = Math.min(FILM_EVERY_AT_MOST, filmEvery * FILM_RARER);
                    }
                    before.frame().release(pool);
                }
                before = here;
                here = after;
                progress.accept(frames.size());
                next = stream.next();
            }
        } finally {
            if (before != null) {
                before.frame().release(pool);
            }
            if (here != null) {
                here.frame().release(pool);
            }
        }
        return new Notes(
                clip.format(),
                rate,
                List.copyOf(frames),
                List.copyOf(fields),
                List.copyOf(samples),
                List.copyOf(film),
                borders == null ? Borders.NONE : borders);
    }

    /** Luma and chroma whatever the clip holds; RGB is turned into them as for a file in BT.709. */
    private FrameStream opened(Cancel cancel) {
        Format format = clip.format();
        if (format.chroma() != Chroma.RGB) {
            return clip.open(FrameRange.all(), format.whole(), pool, cancel);
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

    /** A frame, the luma that is looked at, and its sums. */
    private record Looked(Frame frame, Plane luma, GlobalShift.Profiles profiles) {
        Looked(Frame frame, Plane luma) {
            this(frame, luma, GlobalShift.Profiles.of(luma));
        }
    }

    /** Whole macroblocks of the middle. */
    private static Plane middle(Frame frame) {
        Plane luma = frame.plane(0);
        return luma.window(part(luma.width(), luma.height()));
    }

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

    private void note(Looked before, Looked here) {
        double light = 0;
        float[] rows = here.profiles().rows();
        for (float row : rows) {
            light += row;
        }
        frames.add(new FrameNote(
                light / rows.length,
                here.frame().time().toDouble(),
                before == null ? FrameNote.NO_CHANGE : FrameChange.between(before.luma(), here.luma()),
                before == null ? FrameNote.NO_SHIFT : GlobalShift.between(before.profiles(), here.profiles())));
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
                Scratches.find(here.luma(), DUST / 2, work).size());
    }

    private void sample(Looked here) {
        Borders.of(here.frame().plane(0)).ifPresent(found -> borders = borders == null ? found : borders.common(found));
        Plane luma = here.luma();
        Frame whole = here.frame();
        samples.add(new Sample(
                whole.number(),
                NoiseLevel.of(luma),
                colourNoise(whole),
                Blocking.of(luma),
                EdgeWidth.of(luma),
                StairSteps.of(luma),
                Levels.of(whole)));
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
