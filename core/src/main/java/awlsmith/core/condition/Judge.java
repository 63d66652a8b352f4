package awlsmith.core.condition;

import awlsmith.core.measure.Borders;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Fields;
import awlsmith.core.measure.Levels;
import awlsmith.core.picture.Scan;
import awlsmith.core.sound.SoundCheck;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.ToDoubleFunction;

/** Turns what was noted of a clip into its condition. Where a level is bad is common practice, no source. */
public final class Judge {
    private static final double TO_255 = 255;
    /** Times as strong at half size as white noise would be, from which on noise is coarse. */
    private static final double COARSE_GRAIN = 1.35;

    private final Notes notes;
    private final Optional<SoundCheck.Result> sound;
    private final OptionalDouble rounding;
    private final List<Long> cuts;
    private final List<Long> repeats;
    private final List<Long> flashes;
    private final float[] shake;
    private final List<Fade> fades;
    private final List<Dropped> dropped;

    /** @param notes of a whole clip */
    public Judge(Notes notes) {
        this(notes, Optional.empty(), OptionalDouble.empty());
    }

    /**
     * @param sound what was heard, if there was anything
     * @param rounding how coarsely the file's codec rounded, of 255, where it tells
     */
    public Judge(Notes notes, Optional<SoundCheck.Result> sound, OptionalDouble rounding) {
        this.notes = notes;
        this.rounding = rounding;
        this.sound = sound;
        this.cuts = Cuts.cuts(notes.frames());
        this.repeats = Cuts.repeats(notes.frames());
        this.flashes = Cuts.flashes(notes.frames());
        this.fades = Fade.among(notes.frames());
        this.dropped = Dropped.among(notes.frames(), cuts);
        this.shake =
                Path.shake(notes.frames(), cuts, notes.rate(), notes.format().width());
    }

    /** What was measured along the clip, for the time axis. */
    public Curves curves() {
        int count = notes.frames().size();
        float[] light = new float[count];
        float[] change = new float[count];
        float[] noise = new float[count];
        float[] combed = new float[count];
        for (int n = 0; n < count; n++) {
            light[n] = (float) notes.frames().get(n).light();
            change[n] = (float) (TO_255 * notes.frames().get(n).change().mean());
        }
        for (int i = 0; i < notes.samples().size(); i++) {
            var sample = notes.samples().get(i);
            int end = i + 1 < notes.samples().size()
                    ? (int) notes.samples().get(i + 1).frame()
                    : count;
            Arrays.fill(noise, Math.min(count, (int) sample.frame()), Math.min(count, end), (float)
                    (TO_255 * sample.noise().level()));
        }
        for (FieldNote note : notes.fields()) {
            if (note.frame() < count) {
                combed[(int) note.frame()] = (float) note.combed();
            }
        }
        return new Curves(light, change, noise, shake, combed, cuts, repeats, flashes, fades, dropped);
    }

    /** What is wrong with the clip, and how much. */
    public Condition condition() {
        Scan scan = scan();
        Optional<Condition.Pulldown> pulldown = scan.isInterlaced() ? Rhythm.fields(notes.fields()) : Optional.empty();
        if (pulldown.isEmpty()) {
            pulldown = Rhythm.frames(notes.frames().size(), repeats);
        }
        Borders borders = worthwhile(notes.borders());
        Finding dots = SurfaceFindings.dither(
                median(s -> s.dots().dots()), median(s -> s.dots().flat()));
        boolean drawn = looksDrawn() || dots.isNoticed();
        var findings = new ArrayList<Finding>();
        findings.add(noise());
        findings.add(blocks());
        rounding.ifPresent(step -> findings.add(SurfaceFindings.rounding(step)));
        findings.add(colourNoise());
        findings.add(blur());
        SurfaceFindings.softness(
                        notes.samples().stream().mapToDouble(Sample::softness).toArray())
                .ifPresent(findings::add);
        findings.add(comb(scan, pulldown));
        findings.add(shake());
        findings.add(repeats(pulldown));
        findings.add(stairs());
        var size = SizeFindings.size(notes.samples().stream().map(Sample::size).toList(), bell());
        findings.add(SizeFindings.enlarged(size, notes.format()));
        findings.add(dots);
        findings.add(SurfaceFindings.bands(median(Sample::bands)));
        findings.add(haloes());
        findings.add(flicker());
        Finding swim = TimeFindings.swim(notes.film());
        findings.add(FilmFindings.dust(
                notes.film(),
                scan.isInterlaced()
                        ? "not looked for in woven fields"
                        : swim.isNoticed() ? "not told from texture that swims" : ""));
        findings.add(FilmFindings.scratches(notes.film(), scan.isInterlaced()));
        findings.add(TimeFindings.fades(fades));
        findings.add(TimeFindings.dropped(dropped, notes.frames().size()));
        findings.add(slow(drawn));
        findings.add(TimeFindings.blends(notes.blending(), notes.rate(), !scan.isInterlaced()));
        findings.add(swim);
        findings.add(clipped("black", "Crushed black", Levels::black, "black or darker"));
        findings.add(clipped("white", "Clipped white", Levels::white, "white or lighter"));
        findings.add(contrast());
        findings.add(cast());
        findings.add(colour());
        findings.add(borders(borders));
        findings.add(flat());
        sound.ifPresent(heard -> findings.addAll(SoundFindings.of(heard)));
        return new Condition(
                findings,
                scan,
                pulldown,
                borders,
                cuts.size(),
                drawn,
                light(),
                isCoarse(),
                bell(),
                smear(),
                size.repeated());
    }

    /** Drawings are often shown twice each, and meant so; a single picture does not move. */
    private Finding slow(boolean drawn) {
        int count = notes.frames().size();
        double differ = 1 - (double) repeats.size() / Math.max(1, count);
        return TimeFindings.slow(notes.rate() * differ, drawn || count < 2);
    }

    private Finding noise() {
        double level = TO_255 * median(s -> s.noise().level());
        String words = level < 1
                ? "hardly any noise"
                : say("noise %.1f of 255, %s", level, isCoarse() ? "coarse-grained" : "fine-grained");
        return new Finding(
                "noise",
                "Noise",
                level,
                "of 255",
                level / 14,
                words,
                "difference of Laplacians in quiet blocks (Immerkaer 1996), at full and half size");
    }

    private boolean isCoarse() {
        return median(s -> s.noise().grain()) >= COARSE_GRAIN;
    }

    private Finding colourNoise() {
        double level = TO_255 * median(Sample::colourNoise);
        boolean none = Double.isNaN(level) || level < 1;
        return new Finding(
                "colour-noise",
                "Colour noise",
                Double.isNaN(level) ? 0 : level,
                "of 255",
                Double.isNaN(level) ? 0 : level / 12,
                none ? "hardly any colour noise" : say("colours are noisy by %.1f of 255", level),
                "difference of Laplacians in quiet blocks (Immerkaer 1996), of both colour differences");
    }

    private Finding blocks() {
        double excess = 100 * (median(s -> s.blocks().strength()) - 1);
        int period = (int) Math.round(median(s -> s.blocks().period()));
        return new Finding(
                "blocks",
                "Blocks",
                excess,
                "%",
                excess / 100,
                excess < 5
                        ? "no blocks to see"
                        : say("steps at block edges %.0f %% larger, every %d samples", excess, period),
                "steps on the block lattice against those beside it (Muijs and Kirenko 2005)");
    }

    /** Edges this many times as wide one way as the other are a blur of that way. */
    private static final double LOPSIDED = 1.4;
    /** Degrees that the angle of a blur may be off. */
    private static final double PLAIN = 12;

    private Finding blur() {
        double width = median(s -> s.edges().width());
        var edges = edges();
        if (Double.isNaN(width)) {
            return new Finding(
                    "blur", "Blur", 0, "px", 0, "no strong edges to measure", "edge width (Marziliano 2002)");
        }
        String way = edges.lopsided() < LOPSIDED ? "" : ", mostly " + way(edges.angle());
        return new Finding(
                "blur",
                "Blur",
                width,
                "px",
                (width - 2.2) / 5,
                say(
                        "edges %.1f pixels wide%s%s",
                        width, way, Double.isNaN(bell()) ? "" : say(", as of a blur of %.1f", bell())),
                "mean width of strong edges (Marziliano et al. 2002), along four ways; the blur by their slopes (Zhuo and Sim 2011)");
    }

    private EdgeWidth.Edges edges() {
        return new EdgeWidth.Edges(
                median(s -> s.edges().across()),
                median(s -> s.edges().down()),
                median(s -> s.edges().rising()),
                median(s -> s.edges().falling()),
                0);
    }

    private Optional<Condition.Smear> smear() {
        var edges = edges();
        return edges.lopsided() < LOPSIDED
                ? Optional.empty()
                : Optional.of(new Condition.Smear(edges.smear(), edges.angle()));
    }

    private double bell() {
        return median(s -> s.bell().both());
    }

    /** In words where it nearly is one of the plain ways. */
    private static String way(double angle) {
        double off = Math.min(angle, 180 - angle);
        return off < PLAIN
                ? "sideways"
                : off > 90 - PLAIN
                        ? "up and down"
                        : say("at %.0f°, %s to the right", off, angle < 90 ? "rising" : "falling");
    }

    private Scan scan() {
        int top = count(Fields.Verdict.TOP_FIRST);
        int bottom = count(Fields.Verdict.BOTTOM_FIRST);
        int whole = count(Fields.Verdict.PROGRESSIVE);
        int fields = Math.max(top, bottom);
        // a few whole frames among fields are stills; a few fields among whole frames are errors of the measure
        if (fields < 3 || fields < 0.15 * whole || fields < 2 * Math.min(top, bottom)) {
            return Scan.PROGRESSIVE;
        }
        var verdict = top > bottom ? Fields.Verdict.TOP_FIRST : Fields.Verdict.BOTTOM_FIRST;
        // fields that do not show as combs are no fields, whatever the comparison says
        double[] combed = notes.fields().stream()
                .filter(note -> note.verdict() == verdict)
                .mapToDouble(FieldNote::combed)
                .sorted()
                .toArray();
        if (combed[combed.length / 2] <= FieldNote.COMBED) {
            return Scan.PROGRESSIVE;
        }
        return top > bottom ? Scan.TOP_FIRST : Scan.BOTTOM_FIRST;
    }

    private int count(Fields.Verdict verdict) {
        return (int) notes.fields().stream()
                .filter(note -> note.verdict() == verdict)
                .count();
    }

    private Finding comb(Scan scan, Optional<Condition.Pulldown> pulldown) {
        long combed = notes.fields().stream().filter(FieldNote::isCombed).count();
        double share =
                notes.fields().isEmpty() ? 0 : 100.0 * combed / notes.fields().size();
        boolean fields = scan.isInterlaced();
        String order = scan == Scan.TOP_FIRST ? "top field first" : "bottom field first";
        String words = !fields
                ? "whole frames"
                : say("fields woven, %s; combing in %.0f %% of frames", order, share)
                        + (pulldown.filter(Condition.Pulldown::fields).isPresent()
                                ? ", in the 3:2 rhythm of film"
                                : "");
        return new Finding(
                "comb",
                "Comb",
                fields ? share : 0,
                "% of frames",
                fields ? Math.max(0.5, share / 100) : 0,
                words,
                "lines against those of the neighbouring frames, each parity by itself");
    }

    private Finding shake() {
        double sum = 0;
        for (float one : shake) {
            sum += one * (double) one;
        }
        double rms = Math.sqrt(sum / Math.max(1, shake.length));
        return new Finding(
                "shake",
                "Shake",
                rms,
                "% of width",
                rms / 0.9,
                rms < 0.1 ? "steady" : say("shakes by %.2f %% of the width", rms),
                "shift of row and column sums, against the mean place over a second");
    }

    private Finding repeats(Optional<Condition.Pulldown> pulldown) {
        double share = 100.0 * repeats.size() / Math.max(1, notes.frames().size());
        String rhythm = pulldown.filter(p -> !p.fields())
                .map(p -> ", every " + ordinal(p.period()) + " frame")
                .orElse("");
        return new Finding(
                "repeats",
                "Repeats",
                share,
                "% of frames",
                share / 40,
                repeats.isEmpty() ? "no frame repeated" : say("%.0f %% of frames only repeat the last", share) + rhythm,
                "change of every block against what is usual around it");
    }

    private Finding stairs() {
        double doubled = median(Sample::stairs);
        return new Finding(
                "stairs",
                "Stair-steps",
                100 * doubled,
                "%",
                (doubled - 0.1) / 0.6,
                doubled < 0.25
                        ? "no doubled lines"
                        : say("every second step is %.0f %% smaller: doubled lines", 100 * doubled),
                "steps between even and odd neighbours");
    }

    private Finding haloes() {
        double shot = 100 * median(Sample::seams);
        boolean none = Double.isNaN(shot) || shot < 2;
        return new Finding(
                "haloes",
                "Haloes",
                Double.isNaN(shot) ? 0 : Math.max(0, shot),
                "% of the edge",
                none ? 0 : shot / 16,
                none ? "no haloes" : say("light overshoots edges by %.0f %%, as of sharpening", shot),
                "overshoot where an edge stands alone between even surfaces (our own)");
    }

    /** Change of exposure from frame to frame: how far a frame's light is from the median of itself and four around it. */
    private Finding flicker() {
        var frames = notes.frames();
        double sum = 0;
        int count = 0;
        for (int n = 2; n + 2 < frames.size(); n++) {
            int at = n;
            if (cuts.stream().anyMatch(cut -> cut > at - 2 && cut <= at + 2)) {
                continue;
            }
            double[] near = new double[5];
            for (int k = -2; k <= 2; k++) {
                near[k + 2] = frames.get(n + k).light();
            }
            Arrays.sort(near);
            double d = frames.get(n).light() - near[2];
            sum += d * d;
            count++;
        }
        double rms = TO_255 * Math.sqrt(sum / Math.max(1, count));
        return new Finding(
                "flicker",
                "Flicker",
                rms,
                "of 255",
                rms / 4,
                rms < 0.5 ? "even light" : say("the light of frames jumps by %.1f of 255", rms),
                "mean light against the median of five frames");
    }

    private Finding clipped(String id, String label, ToDoubleFunction<Levels> share, String words) {
        double percent = 100 * median(s -> share.applyAsDouble(s.levels()));
        return new Finding(
                id,
                label,
                percent,
                "% of pixels",
                percent / 40,
                percent < 0.1 ? "none" : say("%.1f %% of pixels are %s", percent, words),
                "samples at the ends of the nominal range (ITU-R BT.601, BT.709)");
    }

    /** Of the darkest frames the low end and of the lightest the high one, but for the outermost twentieth. */
    private Condition.Light light() {
        double[] lows = notes.samples().stream()
                .mapToDouble(s -> s.levels().low())
                .sorted()
                .toArray();
        double[] highs = notes.samples().stream()
                .mapToDouble(s -> s.levels().high())
                .sorted()
                .toArray();
        return lows.length == 0
                ? new Condition.Light(0, 1)
                : new Condition.Light(lows[lows.length / 20], highs[highs.length - 1 - highs.length / 20]);
    }

    private Finding contrast() {
        double range = 100 * median(s -> s.levels().high() - s.levels().low());
        return new Finding(
                "contrast",
                "Low contrast",
                range,
                "% of range",
                (62 - range) / 40,
                say("light spans %.0f %% of the range", range),
                "luma between the darkest and lightest hundredth");
    }

    private Finding cast() {
        double cb = TO_255 * median(s -> s.levels().castCb());
        double cr = TO_255 * median(s -> s.levels().castCr());
        double strength = Math.hypot(cb, cr);
        return new Finding(
                "cast",
                "Colour cast",
                strength,
                "of 255",
                strength / 24,
                strength < 3 ? "greys are grey" : say("greys lean to %s by %.0f of 255", hue(cb, cr), strength),
                "mean chroma of the least coloured quarter of middle tones");
    }

    /** The nearest colour word to an angle of the blue and red difference, by BT.601's bars. */
    static String hue(double cb, double cr) {
        double angle = Math.toDegrees(Math.atan2(cr, cb));
        String[] words = {"blue", "magenta", "red", "orange", "yellow", "green", "cyan", "blue"};
        double[] ends = {22, 75, 118, 145, 190, 250, 300, 338};
        double turned = (angle + 360) % 360;
        for (int i = 0; i < ends.length; i++) {
            if (turned < ends[i]) {
                return words[i];
            }
        }
        return "blue";
    }

    private Finding colour() {
        double saturation = TO_255 * median(s -> s.levels().saturation());
        boolean grey = notes.format().chroma() == awlsmith.core.picture.Chroma.GREY;
        boolean missing = grey || saturation < 1.5;
        return new Finding(
                "colour",
                "Colour",
                grey ? 0 : saturation,
                "of 255",
                // a fact, and no fault: films were meant to be so
                0,
                missing ? "black and white" : say("mean saturation %.0f of 255", saturation),
                "mean distance of chroma from grey");
    }

    private Finding borders(Borders borders) {
        int rows = borders.top() + borders.bottom();
        int columns = borders.left() + borders.right();
        double share = 100.0
                * (1
                        - (double) (notes.format().width() - columns)
                                * (notes.format().height() - rows)
                                / ((double) notes.format().width()
                                        * notes.format().height()));
        return new Finding(
                "borders",
                "Borders",
                share,
                "% of the picture",
                borders.isNone() ? 0 : 0.4 + share / 50,
                borders.isNone()
                        ? "no black borders"
                        : say(
                                "black borders: %d left, %d top, %d right, %d bottom",
                                borders.left(), borders.top(), borders.right(), borders.bottom()),
                "rows and columns that stay black throughout");
    }

    /** Footage that a camera recorded logarithmically: no black, no white, little colour, in more than 8 bits. */
    private Finding flat() {
        double low = median(s -> s.levels().low());
        double high = median(s -> s.levels().high());
        double saturation = TO_255 * median(s -> s.levels().saturation());
        boolean flat = notes.format().depth() > 8 && low > 0.07 && high < 0.78 && saturation < 14 && saturation > 1.5;
        return new Finding(
                "flat",
                "Logarithmic",
                100 * (high - low),
                "% of range",
                flat ? 0.5 : 0,
                flat ? "looks like a camera's logarithmic recording" : "not logarithmic by its looks",
                "no black, no white, little colour, more than 8 bits");
    }

    private static Borders worthwhile(Borders found) {
        // a column or two of black are common at the ends of tape lines and not worth a word
        return found.left() + found.right() + found.top() + found.bottom() < 4 ? Borders.NONE : found;
    }

    /** Flat colours with hard edges: nothing at all in most places, and steep edges. */
    private boolean looksDrawn() {
        return median(s -> s.noise().flat()) > 0.35 && median(s -> s.edges().width()) < 3;
    }

    private double median(ToDoubleFunction<Sample> of) {
        double[] values = notes.samples().stream()
                .mapToDouble(of)
                .filter(v -> !Double.isNaN(v))
                .sorted()
                .toArray();
        return values.length == 0 ? Double.NaN : values[values.length / 2];
    }

    private static String ordinal(int n) {
        return n == 2 ? "second" : n == 3 ? "third" : n == 4 ? "fourth" : n == 5 ? "fifth" : n + "th";
    }

    private static String say(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }
}
