package awlsmith.server.compare;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.compare.Against;
import awlsmith.core.compare.Figures;
import awlsmith.core.compare.Flicker;
import awlsmith.core.compare.Luma;
import awlsmith.core.compare.Scopes;
import awlsmith.core.compare.SourceScale;
import awlsmith.core.compare.SourceScale.Rect;
import awlsmith.core.compare.TellingPlaces;
import awlsmith.core.compare.Unsteadiness;
import awlsmith.core.measure.Direction;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.CodeScale;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Sides;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.StepKind;
import awlsmith.server.compare.Views.AgainstView;
import awlsmith.server.compare.Views.FiguresView;
import awlsmith.server.compare.Views.PixelView;
import awlsmith.server.compare.Views.PlaceView;
import awlsmith.server.compare.Views.ScopesView;
import awlsmith.server.compare.Views.StepsView;
import awlsmith.server.compare.Views.TakeFigures;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.treatments.Treatments;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Holds treated frames against their source. Everything is computed from the very pixels a render would give. */
@Service
class Comparing {
    /** Largest part measured, in source pixels: enough for every measure, and quick. */
    private static final int MOST_WIDTH = 512;

    private static final int MOST_HEIGHT = 384;
    /** Smallest part that the measures make sense of. */
    private static final int LEAST = 64;

    private static final int PATCH = 9;
    private static final int WAVE_COLUMNS = 320;
    /** Scopes of more pixels take longer than anyone waits. */
    private static final int SCOPE_PIXELS = 1280;

    private static final int PLACES_EACH = 2;

    private final Treatments treatments;
    private final Stills stills;
    private final References references;

    Comparing(Treatments treatments, Stills stills, References references) {
        this.treatments = treatments;
        this.stills = stills;
        this.references = references;
    }

    /** @param output number of the treated frame */
    private static SourceScale scale(Sides sides, long output) {
        return new SourceScale(
                sides.treated(),
                sides.place(output),
                sides.source().width(),
                sides.source().height());
    }

    /** A part of the source around a view, small enough to be measured quickly. */
    private static Region measured(Rect view, Format base) {
        int width = Math.clamp(view.width(), Math.min(LEAST, base.width()), Math.min(MOST_WIDTH, base.width()));
        int height = Math.clamp(view.height(), Math.min(LEAST, base.height()), Math.min(MOST_HEIGHT, base.height()));
        int x = Math.clamp(view.x() + (view.width() - width) / 2L, 0, base.width() - width);
        int y = Math.clamp(view.y() + (view.height() - height) / 2L, 0, base.height() - height);
        return new Region(x, y, width, height);
    }

    /**
     * Figures behind each step, for the part of the source that is seen.
     *
     * @param view what is seen, in source pixels
     */
    StepsView steps(UUID id, Recipe recipe, int frame, int later, Rect view, String viewer) {
        Sides sides = treatments.sides(id, recipe);
        Region part = measured(view, sides.source());
        Measured last = figures(id, sides.base().recipe(), frame, later, part, viewer);
        FiguresView source = FiguresView.of(last.figures());
        var behind = new ArrayList<FiguresView>();
        var taken = new ArrayList<@Nullable Double>();
        int turned = sides.base().recipe().steps().size();
        for (int i = 0; i < recipe.steps().size(); i++) {
            if (recipe.steps().get(i).on()) {
                // while the picture is being turned its parts cannot be matched: there the whole is as good as any
                boolean turns = i < turned - 1;
                Recipe until = new Recipe(recipe.steps().subList(0, i + 1));
                Measured made = figures(id, until, frame, later, turns ? null : part, viewer);
                taken.add(taken(last, made, recipe.steps().get(i)));
                last = made;
            } else {
                taken.add(null);
            }
            behind.add(FiguresView.of(last.figures()));
        }
        return new StepsView(source, behind, taken);
    }

    /** Figures of a part, and its luma at the source's scale. */
    private record Measured(Figures figures, Plane luma) {}

    /** How much of what a step took away runs one way: only of one that changes samples where they are. */
    private static @Nullable Double taken(Measured before, Measured after, Step step) {
        boolean inPlace = step.known().params().contains(StepKind.SHARE);
        Plane a = before.luma();
        Plane b = after.luma();
        return inPlace && a.width() == b.width() && a.height() == b.height()
                ? Views.known(Direction.ofChange(a, b))
                : null;
    }

    private Measured figures(UUID id, Recipe recipe, int frame, int later, Region part, String viewer) {
        Sides sides = treatments.sides(id, recipe);
        SourceScale scale = scale(sides, sides.whole().output(frame, later));
        Region wanted = part == null
                ? measured(new Rect(0, 0, sides.source().width(), sides.source().height()), sides.source())
                : part;
        Rect seen = scale.seen(new Rect(wanted.x(), wanted.y(), wanted.width(), wanted.height()));
        if (seen.width() < 32 || seen.height() < 32) {
            // cropped away here: what is left of the picture is measured instead
            seen = scale.seen(
                    new Rect(0, 0, sides.source().width(), sides.source().height()));
            Region rest = measured(seen, sides.source());
            seen = scale.seen(new Rect(rest.x(), rest.y(), rest.width(), rest.height()));
        }
        if (seen.width() < 16 || seen.height() < 16) {
            throw new Refusal(Refusal.Kind.INVALID, "too little of the picture is left to be measured");
        }
        Region at = new Region(seen.x(), seen.y(), seen.width(), seen.height());
        return stills.look(id, recipe, frame, later, scale.needs(at), viewer, (made, work) -> {
            Plane luma = scale.luma(made, at, stills.planes(), work);
            Figures figures = Figures.of(luma, Luma.of(made), scale.factor());
            var kept = new Plane(luma.packed(), 0, luma.width(), luma.height(), luma.width());
            stills.planes().giveBack(luma);
            return new Measured(figures, kept);
        });
    }

    /** What the pointer is over: the source pixel, and the treated one. */
    List<PixelView> pixel(UUID id, Recipe recipe, int frame, int later, double x, double y, String viewer) {
        Sides sides = treatments.sides(id, recipe);
        Format base = sides.source();
        int sx = Math.clamp((int) Math.floor(x), 0, base.width() - 1);
        int sy = Math.clamp((int) Math.floor(y), 0, base.height() - 1);
        var both = new ArrayList<PixelView>();
        both.add(pixel(id, sides.base().recipe(), base, frame, later, sx, sy, viewer + "-source"));
        Placement place = sides.place(sides.whole().output(frame, later));
        double tx = place.x() + x * place.width() / base.width();
        double ty = place.y() + y * place.height() / base.height();
        Format out = sides.treated();
        if (tx >= 0 && ty >= 0 && tx < out.width() && ty < out.height()) {
            both.add(pixel(id, recipe, out, frame, later, (int) tx, (int) ty, viewer + "-treated"));
        }
        return both;
    }

    private PixelView pixel(UUID id, Recipe recipe, Format format, int frame, int later, int x, int y, String viewer) {
        int left = Math.clamp(x - PATCH / 2L, 0, Math.max(0, format.width() - PATCH));
        int top = Math.clamp(y - PATCH / 2L, 0, Math.max(0, format.height() - PATCH));
        Region patch = new Region(left, top, PATCH, PATCH).within(format.width(), format.height());
        return stills.look(id, recipe, frame, later, ScreenPicture.needs(format, patch), viewer, (made, work) -> {
            var screen = ScreenPicture.of(made, patch, 1, stills.planes(), work);
            float[] values = new float[made.planes().size()];
            int[] codes = new int[values.length];
            boolean excursion = false;
            for (int p = 0; p < values.length; p++) {
                int stepX = format.chroma().stepX(p);
                int stepY = format.chroma().stepY(p);
                Plane plane = made.plane(p);
                values[p] = plane.at(
                        Math.min(plane.width() - 1, (x - made.window().x()) / stepX),
                        Math.min(plane.height() - 1, (y - made.window().y()) / stepY));
                codes[p] = CodeScale.of(format, p).code(values[p]);
                boolean difference = format.chroma().isDifference(p);
                excursion |= difference ? Math.abs(values[p]) > 0.5 : values[p] < 0 || values[p] > 1;
            }
            int[] rgb = new int[screen.rgb().length];
            for (int i = 0; i < rgb.length; i++) {
                rgb[i] = screen.rgb()[i] & 255;
            }
            int self = (y - patch.y()) * patch.width() + x - patch.x();
            int at = 3 * self;
            var names = new ArrayList<String>(
                    format.chroma() == Chroma.RGB
                            ? List.of("R", "G", "B")
                            : List.of("Y", "Cb", "Cr")
                                    .subList(0, format.chroma().planes()));
            if (format.alpha().isThere()) {
                names.add("A");
            }
            return new PixelView(
                    x,
                    y,
                    names,
                    values,
                    codes,
                    format.depth(),
                    excursion,
                    new int[] {rgb[at], rgb[at + 1], rgb[at + 2]},
                    rgb,
                    patch.width(),
                    self);
        });
    }

    /** Scopes of source and treated over the part of the source that is seen. */
    List<ScopesView> scopes(UUID id, Recipe recipe, int frame, int later, Rect view, String viewer) {
        Sides sides = treatments.sides(id, recipe);
        Format base = sides.source();
        SourceScale scale = scale(sides, sides.whole().output(frame, later));
        Rect seen = scale.seen(new Rect(
                Math.max(0, view.x()),
                Math.max(0, view.y()),
                Math.min(SCOPE_PIXELS, view.width()),
                Math.min(SCOPE_PIXELS, view.height())));
        if (seen.isEmpty()) {
            throw new Refusal(Refusal.Kind.INVALID, "nothing of the picture is in sight; move it back into the glass");
        }
        Region source = new Region(seen.x(), seen.y(), seen.width(), seen.height())
                .aligned(base.chroma(), base.width(), base.height());
        var both = new ArrayList<ScopesView>();
        both.add(stills.look(id, sides.base().recipe(), frame, later, source, viewer, (made, work) -> view(made)));
        both.add(stills.look(id, recipe, frame, later, scale.needs(source), viewer, (made, work) -> view(made)));
        return both;
    }

    private static ScopesView view(Frame frame) {
        Scopes scopes = Scopes.of(frame, WAVE_COLUMNS);
        var pairs = new ArrayList<Integer>();
        for (int i = 0; i < scopes.vectors().length; i++) {
            if (scopes.vectors()[i] > 0) {
                pairs.add(i);
                pairs.add(scopes.vectors()[i]);
            }
        }
        Format format = frame.format();
        return new ScopesView(
                scopes.histogram(),
                scopes.columns(),
                scopes.waveform(),
                pairs.stream().mapToInt(Integer::intValue).toArray(),
                scopes.below(),
                scopes.above(),
                scopes.samples(),
                format.colour().matrixFor(format.height()).name().toLowerCase(Locale.ROOT));
    }

    /** The places of a frame that tell most. */
    List<PlaceView> places(UUID id, Recipe recipe, int frame, String viewer) {
        Sides sides = treatments.sides(id, recipe);
        Pair pair = pair(id, recipe, sides, frame, null, viewer);
        return places(pair, frame, PLACES_EACH);
    }

    private static List<PlaceView> places(Pair pair, int frame, int each) {
        if (pair.source().width() < LEAST || pair.source().height() < LEAST) {
            return List.of();
        }
        return TellingPlaces.of(pair.source(), pair.treated(), each).stream()
                .map(place -> new PlaceView(
                        frame,
                        place.x() + pair.x(),
                        place.y() + pair.y(),
                        place.why().words(),
                        place.why().isHarm(),
                        place.amount()))
                .toList();
    }

    /** Luma of one frame on both sides at the source's scale, and the treated picture's own figures. */
    private record Pair(
            Plane source, Plane treated, Figures sourceFigures, Figures figures, int x, int y, double secondsAFrame) {}

    /** @param part of the source; null for all that the treated picture still holds of it */
    private Pair pair(UUID id, Recipe recipe, Sides sides, int frame, Region part, String viewer) {
        SourceScale scale = scale(sides, sides.whole().output(frame, 0));
        Format base = sides.source();
        Rect rest = scale.seen(new Rect(0, 0, base.width(), base.height()));
        Rect seen;
        if (part == null) {
            seen = rest;
        } else {
            seen = scale.seen(new Rect(part.x(), part.y(), part.width(), part.height()));
        }
        if (seen.width() < 16 || seen.height() < 16) {
            throw new Refusal(Refusal.Kind.INVALID, "too little of the picture is left to be compared");
        }
        Region at = new Region(seen.x(), seen.y(), seen.width(), seen.height());
        record Made(Plane luma, Figures figures) {}
        Made source = stills.look(id, sides.base().recipe(), frame, 0, aligned(at, base), viewer, (made, work) -> {
            Plane luma = packed(made, at, work);
            return new Made(luma, Figures.of(luma, luma, 1));
        });
        long start = System.nanoTime();
        var seconds = new double[1];
        Made treated = stills.look(id, recipe, frame, 0, scale.needs(at), viewer, (made, work) -> {
            double share = (double) made.window().area() / made.format().whole().area();
            seconds[0] = (System.nanoTime() - start) / 1e9 / share;
            Plane luma = scale.luma(made, at, stills.planes(), work);
            return new Made(luma, Figures.of(luma, Luma.of(made), scale.factor()));
        });
        return new Pair(source.luma(), treated.luma(), source.figures(), treated.figures(), at.x(), at.y(), seconds[0]);
    }

    private static Region aligned(Region at, Format format) {
        return at.aligned(format.chroma(), format.width(), format.height());
    }

    /** A copy of the wanted part that stays when the frame is given back. */
    private static Plane packed(Frame frame, Region at, Work work) {
        Region inside =
                new Region(at.x() - frame.window().x(), at.y() - frame.window().y(), at.width(), at.height());
        Plane copy = Plane.of(at.width(), at.height());
        System.arraycopy(Luma.of(frame).window(inside).packed(), 0, copy.data(), 0, at.width() * at.height());
        return copy;
    }

    /**
     * Figures of a whole take at a few frames.
     *
     * @param frames of the source; at most three are looked at
     */
    TakeFigures take(UUID id, Recipe recipe, List<Integer> frames, String viewer) {
        Sides sides = treatments.sides(id, recipe);
        int count = Math.toIntExact(sides.whole().material().times().count());
        SourceScale scale = scale(sides, sides.whole().output(frames.isEmpty() ? 0 : frames.getFirst(), 0));
        Format base = sides.source();
        Rect rest = scale.seen(new Rect(0, 0, base.width(), base.height()));
        Region part = measured(rest, base);
        var source = new ArrayList<Figures>();
        var treated = new ArrayList<Figures>();
        var harm = new ArrayList<PlaceView>();
        var against = new ArrayList<Against>();
        double change = 0;
        double quickest = Double.MAX_VALUE;
        double sourceFlicker = Double.NaN;
        double flicker = Double.NaN;
        double sourceShake = Double.NaN;
        double shake = Double.NaN;
        List<Integer> some = frames.stream().distinct().limit(3).toList();
        for (int frame : some) {
            Pair pair = pair(id, recipe, sides, frame, part, viewer);
            source.add(pair.sourceFigures());
            treated.add(pair.figures());
            change += meanSquare(pair.source(), pair.treated()) / some.size();
            quickest = Math.min(quickest, pair.secondsAFrame());
            places(pair, frame, 1).stream().filter(PlaceView::harm).forEach(harm::add);
            if (Double.isNaN(flicker) && count > 1) {
                int next = frame + 1 < count ? frame + 1 : frame - 1;
                Pair other = pair(id, recipe, sides, next, part, viewer);
                // the first frame may wait for the decoder and for a model to be loaded
                quickest = Math.min(quickest, other.secondsAFrame());
                if (count > 2) {
                    int third = next > frame ? (next + 1 < count ? next + 1 : frame - 1) : next - 1;
                    Pair last = pair(id, recipe, sides, third, part, viewer);
                    // in the order of time, or against it, which is the same
                    boolean between = third < frame && next > frame;
                    Pair first = between ? last : pair;
                    Pair second = between ? pair : other;
                    Pair end = between ? other : last;
                    sourceShake = Unsteadiness.of(first.source(), second.source(), end.source());
                    shake = Unsteadiness.of(first.treated(), second.treated(), end.treated());
                }
                sourceFlicker = Flicker.of(pair.source(), other.source(), pair.source(), other.source());
                flicker = Flicker.of(pair.source(), other.source(), pair.treated(), other.treated());
            }
            references
                    .against(
                            id,
                            recipe,
                            sides.treated(),
                            sides.place(sides.whole().output(frame, 0)),
                            frame,
                            viewer)
                    .ifPresent(against::add);
        }
        return new TakeFigures(
                FiguresView.of(Figures.mean(source)),
                FiguresView.of(Figures.mean(treated)),
                Views.known(sourceFlicker),
                Views.known(flicker),
                Views.known(sourceShake),
                Views.known(shake),
                255 * Math.sqrt(change),
                quickest,
                view(against).orElse(null),
                harm);
    }

    private static Optional<AgainstView> view(List<Against> all) {
        if (all.isEmpty()) {
            return Optional.empty();
        }
        double psnr = all.stream().mapToDouble(Against::psnr).average().orElseThrow();
        double ssim = all.stream().mapToDouble(Against::ssim).average().orElseThrow();
        return Optional.of(new AgainstView(Views.known(psnr), ssim));
    }

    private static double meanSquare(Plane a, Plane b) {
        double sum = 0;
        for (int y = 0; y < a.height(); y++) {
            for (int x = 0; x < a.width(); x++) {
                double d = a.at(x, y) - b.at(x, y);
                sum += d * d;
            }
        }
        return sum / ((double) a.width() * a.height());
    }
}
