package awlsmith.core.condition;

import awlsmith.core.measure.Borders;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.plan.ModelSuggestion;
import awlsmith.core.recipe.Step;
import awlsmith.core.upscale.SoftnessGuess;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A first recipe for a clip, from its condition; nothing that the footage does not need.
 *
 * @param parts in order
 * @param notes what was found that no step can treat
 */
public record Suggestion(List<Part> parts, List<String> notes) {
    /** @param reason a sentence with the figure it rests on */
    public record Part(Step step, String reason) {}

    /** What there is no step for; told so that nobody looks for one. */
    private static final List<String> WITHOUT_STEP =
            List.of("colour-noise", "black", "white", "cast", "flat", "loudness", "floor", "hum", "clipping");

    /** Models for what a program made. */
    private static final String GENERATED = "generated";

    /** Per cent of the range left below and above what is used. */
    private static final double LEVELS_ROOM = 2;
    /** Used so much over the whole clip, the range is not worth stretching. */
    private static final double LEVELS_WORTH = 85;

    /** Colours of a drawn surface lie so many deviations of its grain apart, and at least and at most so far, of 255. */
    private static final double PAPER = 5;

    private static final double PAPER_LEAST = 10;
    private static final double PAPER_MOST = 60;

    /** Rounded so coarsely that little detail is left, of 255: H.264 at QP 34. */
    private static final double LITTLE_LEFT = 30;

    /** Blurred by so much, in samples, footage is worth making sharper first. */
    private static final double SHARPEN_FROM = 0.9;
    /** From here on computing does better than the net, where nothing else is wrong. */
    private static final double DEBLUR_FROM = 1.4;

    private static final double DEBLUR_MOST = 4;
    /** A blur of one way of fewer samples is one of all ways, for all that matters; of more nothing can be undone by computing. */
    private static final double LEAST_SMEAR = 3;

    private static final double MOST_SMEAR = 20;
    /** Rounded by less than this, of 255, what a codec left does not spoil it. */
    private static final double FINELY_ROUNDED = 8;
    /** Blurred by so much, what comes out is enlarged as worn. */
    private static final double WORN_FROM = 1.3;

    /** Per cent of softness of what a kernel enlarged and the mean made small again; by docs/detail.md. */
    private static final long AVERAGED = 75;

    /** Largest factor of enlarging. */
    private static final double MOST_FACTOR = 8;

    /** Per cent of a mask beyond which footage keeps some of what its sharpening did. */
    private static final int MOST_MASK = 120;

    /** Frames a second that slow footage is brought to or above, nearly those of film: twice 12 is enough. */
    private static final double FILM_RATE = 23.5;

    private static final int MOST_TIMES = 5;

    /** Severity of blur from which on footage counts as soft. */
    private static final double SOFT = 0.4;

    public Suggestion {
        parts = List.copyOf(parts);
        notes = List.copyOf(notes);
    }

    /** @param byFile the model that the file's codec and bit rate speak for */
    public static Suggestion of(Condition condition, Format format, ModelSuggestion byFile) {
        var parts = new ArrayList<Part>();
        boolean film = condition.pulldown().filter(Condition.Pulldown::fields).isPresent();
        condition.pulldown().ifPresent(pulldown -> parts.add(cadence(pulldown, condition)));
        if (condition.scan().isInterlaced() && !film) {
            parts.add(deinterlace(condition.scan(), format, condition.finding("comb")));
        }
        if (condition.finding("blends").isNoticed()) {
            parts.add(new Part(
                    Step.of("unblend", Map.of()), condition.finding("blends").words()));
        }
        if (!condition.borders().isNone()) {
            parts.add(crop(condition.borders(), format, condition.finding("borders")));
        }
        boolean whole =
                !format.scan().isInterlaced() || film || condition.scan().isInterlaced();
        Finding flicker = condition.finding("flicker");
        if (flicker.isNoticed()) {
            parts.add(new Part(Step.of("even-light", Map.of()), flicker.words()));
        }
        dust(condition).ifPresent(parts::add);
        Optional<Part> sharper = whole ? sharper(condition) : Optional.empty();
        if (whole) {
            if (sharper.filter(part -> part.step().kind().equals("refine")).isEmpty()) {
                repair(condition).ifPresent(parts::add);
            }
            cleaning(condition).ifPresent(parts::add);
            if (enlarged(condition) > 1) {
                parts.add(trueSize(condition));
            } else if (condition.finding("stairs").isNoticed()) {
                parts.add(new Part(
                        Step.of("stairs", Map.of()), condition.finding("stairs").words()));
            }
            haloes(condition).ifPresent(parts::add);
            sharper.ifPresent(parts::add);
        }
        Finding bands = condition.finding("bands");
        if (bands.isNoticed() && whole && !condition.drawn()) {
            parts.add(new Part(Step.of("bands", Map.of()), bands.words()));
        }
        levels(condition).ifPresent(parts::add);
        boolean cleaned = parts.stream()
                .anyMatch(part ->
                        List.of("repair", "denoise").contains(part.step().kind()));
        parts.add(enlarge(condition, format, byFile, cleaned, sharper));
        steady(condition).filter(part -> whole).ifPresent(parts::add);
        fluent(condition).filter(part -> whole).ifPresent(parts::add);
        boolean stretched = parts.stream().anyMatch(part -> part.step().kind().equals("levels"));
        var notes = condition.findings().stream()
                .filter(finding -> finding.isNoticed()
                        && (WITHOUT_STEP.contains(finding.id())
                                || finding.id().equals("contrast") && !stretched
                                || finding.id().equals("blur") && sharper.isEmpty() && enlarged(condition) == 1
                                || finding.id().equals("stairs") && !whole
                                || finding.id().equals("haloes") && (condition.drawn() || !whole)))
                .map(finding -> finding.label() + ": " + finding.words())
                .toList();
        return new Suggestion(parts, notes);
    }

    private static Part cadence(Condition.Pulldown pulldown, Condition condition) {
        if (pulldown.fields()) {
            return new Part(
                    Step.of(
                            "cadence",
                            Map.of("kind", "film", "phase", pulldown.phase(), "order", order(condition.scan()))),
                    condition.finding("comb").words() + ": the film's own frames can be put together again");
        }
        return new Part(
                Step.of("cadence", Map.of("period", pulldown.period(), "phase", pulldown.phase())),
                condition.finding("repeats").words() + ": without them motion runs evenly");
    }

    /** Times the footage was enlarged before; 1 where nothing speaks for it. */
    private static double enlarged(Condition condition) {
        return condition
                .ifThere("enlarged")
                .filter(Finding::isNoticed)
                .map(Finding::value)
                .orElse(1.0);
    }

    private static Part trueSize(Condition condition) {
        Finding found = condition.finding("enlarged");
        return new Part(Step.of("true-size", Map.of("factor", Math.rint(100 * found.value()) / 100)), found.words());
    }

    /** What edges are blurred by once the picture has its true size, in its samples. */
    private static double bell(Condition condition) {
        return condition.bell() / enlarged(condition);
    }

    /** Three times the usual shake and a little more: beyond it are single jolts, which may stay. */
    private static int rim(Finding shake) {
        return Math.clamp((int) Math.ceil(3 * shake.value()) + 1, 2, 10);
    }

    private static Optional<Part> dust(Condition condition) {
        Finding dust = condition.finding("dust");
        Finding scratches = condition.finding("scratches");
        if (!dust.isNoticed() && !scratches.isNoticed()) {
            return Optional.empty();
        }
        Map<String, Object> settings = new java.util.TreeMap<>();
        if (!dust.isNoticed()) {
            settings.put("largest", 0);
        }
        if (!scratches.isNoticed()) {
            settings.put("scratches", "keep");
        }
        String both = dust.isNoticed() && scratches.isNoticed()
                ? dust.words() + ", " + scratches.words()
                : (dust.isNoticed() ? dust : scratches).words();
        return Optional.of(new Part(Step.of("dust", settings), both));
    }

    private static double rounding(Condition condition) {
        return condition.ifThere("rounding").map(Finding::value).orElse(0.0);
    }

    /** Where the codec rounded coarsely, or where blocks are seen; of drawings the model for these knows better. */
    private static Optional<Part> repair(Condition condition) {
        Optional<Finding> rounding = condition.ifThere("rounding");
        Finding blocks = condition.finding("blocks");
        boolean coarse = rounding.filter(Finding::isNoticed).isPresent();
        if (!coarse && !blocks.isNoticed()
                || condition.drawn()
                || Models.of(ModelCard.Job.REPAIR).isEmpty()) {
            return Optional.empty();
        }
        Map<String, Object> settings = rounding.<Map<String, Object>>map(
                        found -> Map.of("rounding", Math.max(1, Math.rint(found.value()))))
                .orElse(Map.of());
        return Optional.of(new Part(
                Step.of("repair", settings), coarse ? rounding.orElseThrow().words() : blocks.words()));
    }

    /** Of drawn surfaces dots and paper are taken, of all else noise. */
    private static Optional<Part> cleaning(Condition condition) {
        Finding noise = condition.finding("noise");
        Finding dither = condition.finding("dither");
        if (dither.isNoticed()) {
            return Optional.of(new Part(Step.of("undither", Map.of()), dither.words()));
        }
        if (!noise.isNoticed()) {
            return Optional.empty();
        }
        if (condition.drawn()) {
            double step = Math.clamp(Math.rint(PAPER * noise.value()), PAPER_LEAST, PAPER_MOST);
            return Optional.of(
                    new Part(Step.of("undither", Map.of("colours", step)), noise.words() + " on drawn surfaces"));
        }
        return Optional.of(new Part(Step.of("denoise", Map.of()), noise.words()));
    }

    /** What sharpening did is undone by about as much as measured best: a mask of one sample, stronger where seams are. */
    private static Optional<Part> haloes(Condition condition) {
        Finding haloes = condition.finding("haloes");
        if (!haloes.isNoticed() || condition.drawn()) {
            return Optional.empty();
        }
        int amount = (int) Math.clamp(10 * Math.round(2 + 0.37 * haloes.value()), 30, MOST_MASK);
        return Optional.of(
                new Part(Step.of("haloes", Map.of("kind", "mask", "radius", 1.0, "amount", amount)), haloes.words()));
    }

    /**
     * By what was measured in docs/detail.md: where much is blurred and nothing else is wrong computing alone does best, else the net, which is
     * told what else there is.
     */
    private static Optional<Part> sharper(Condition condition) {
        Finding blur = condition.finding("blur");
        double bell = bell(condition);
        if (condition.drawn() || !blur.isNoticed() || !(bell >= SHARPEN_FROM)) {
            return Optional.empty();
        }
        double size = Math.min(DEBLUR_MOST, Math.rint(10 * bell) / 10);
        Optional<Condition.Smear> smear =
                condition.smear().filter(one -> one.length() / enlarged(condition) >= LEAST_SMEAR);
        boolean sound = !condition.finding("noise").isNoticed()
                && !condition.finding("blocks").isNoticed()
                && rounding(condition) < FINELY_ROUNDED;
        if (smear.isPresent() && sound) {
            double length = Math.rint(10 * smear.get().length() / enlarged(condition)) / 10;
            return Optional.of(new Part(
                    Step.of(
                            "deblur",
                            Map.of(
                                    "kind",
                                    "line",
                                    "size",
                                    Math.min(MOST_SMEAR, length),
                                    "angle",
                                    Math.rint(smear.get().angle()) % 180)),
                    blur.words()));
        }
        if (bell >= DEBLUR_FROM && sound || Models.of(ModelCard.Job.REFINE).isEmpty()) {
            return Optional.of(new Part(Step.of("deblur", Map.of("size", size)), blur.words()));
        }
        // how soft it is the step measures by the sharpest edges: the middle of all is too much where some of the scene
        // is out of focus
        Map<String, Object> settings = new java.util.TreeMap<>();
        condition
                .ifThere("rounding")
                .ifPresent(found -> settings.put("rounding", Math.max(1, Math.rint(found.value()))));
        return Optional.of(new Part(Step.of("refine", settings), blur.words()));
    }

    /** What was filmed logarithmically looks faded too, and drawings may be meant so. */
    private static Optional<Part> levels(Condition condition) {
        Finding contrast = condition.finding("contrast");
        if (!contrast.isNoticed() || condition.finding("flat").isNoticed() || condition.drawn()) {
            return Optional.empty();
        }
        // one in a hundred lies beyond the ends measured: a little room keeps it from being cut
        double black = Math.max(0, Math.floor(100 * condition.light().low()) - LEVELS_ROOM);
        double white = Math.min(100, Math.ceil(100 * condition.light().high()) + LEVELS_ROOM);
        if (white - black > LEVELS_WORTH) {
            return Optional.empty();
        }
        return Optional.of(new Part(Step.of("levels", Map.of("black", black, "white", white)), contrast.words()));
    }

    /** Behind what cleans and enlarges: nets know pictures that were not warped, and on the larger grid less is lost (docs/decisions/017). */
    private static Optional<Part> steady(Condition condition) {
        Finding shake = condition.finding("shake");
        return shake.isNoticed()
                ? Optional.of(new Part(Step.of("steady", Map.of("edges", "fill", "rim", rim(shake))), shake.words()))
                : Optional.empty();
    }

    /** Behind enlarging: a net that sees the clip's own frames alone has half the work, and what is made is as good (docs/retiming.md). */
    private static Optional<Part> fluent(Condition condition) {
        Finding slow = condition.finding("slow");
        if (!slow.isNoticed()) {
            return Optional.empty();
        }
        int times = (int) Math.clamp(Math.ceil(FILM_RATE / slow.value()), 2, MOST_TIMES);
        return Optional.of(new Part(Step.of("rate", Map.of("rate", times + "x", "frames", "made")), slow.words()));
    }

    private static String order(Scan scan) {
        return scan == Scan.BOTTOM_FIRST ? "bottom" : "top";
    }

    private static Part deinterlace(Scan measured, Format format, Finding comb) {
        boolean asTold = format.scan() == measured;
        String reason = comb.words()
                + (asTold
                        ? ""
                        : format.scan().isInterlaced() ? "; the file says otherwise" : "; the file does not say so");
        return new Part(Step.of("deinterlace", asTold ? Map.of() : Map.of("order", order(measured))), reason);
    }

    private static Part crop(Borders borders, Format format, Finding finding) {
        int left = even(borders.left());
        int top = even(borders.top());
        int width = (format.width() - left - borders.right()) & -2;
        int height = (format.height() - top - borders.bottom()) & -2;
        return new Part(
                Step.of("crop", Map.of("left", left, "top", top, "width", width, "height", height)), finding.words());
    }

    private static int even(int side) {
        return (side + 1) & -2;
    }

    private static boolean isThere(String family) {
        return Models.families().stream().anyMatch(card -> card.id().equals(family));
    }

    /**
     * By what was measured in docs/cleaning.md: behind cleaning the model for clean footage does better than that for worn, but where little is
     * left, where noise is coarse (it would draw strokes of what remains), and where edges are soft.
     */
    private static Part enlarge(
            Condition condition, Format format, ModelSuggestion byFile, boolean cleaned, Optional<Part> sharper) {
        Finding noise = condition.finding("noise");
        Finding blocks = condition.finding("blocks");
        double before = enlarged(condition);
        // what is soft because it was enlarged is not soft at its true size
        double blurred = condition.finding("blur").severity() / before;
        String model;
        String reason;
        if (condition.drawn()) {
            model = "drawn";
            Finding dither = condition.finding("dither");
            reason = dither.isNoticed() ? dither.words() : "flat colours with hard edges";
        } else if (condition.finding("swim").isNoticed() && isThere(GENERATED)) {
            model = GENERATED;
            reason = condition.finding("swim").words();
        } else if (sharper.isPresent()) {
            boolean worn = bell(condition) >= WORN_FROM
                    || condition.coarse()
                    || rounding(condition) >= LITTLE_LEFT
                    || sharper.get().step().kind().equals("deblur");
            model = worn ? "worn" : "photographic";
            reason = worn ? "calm with what sharpening leaves" : "clean enough once it is sharper";
        } else if (cleaned && !condition.coarse() && blurred < SOFT && rounding(condition) < LITTLE_LEFT) {
            model = "photographic";
            reason = "clean enough once it is cleaned";
        } else if (noise.isNoticed() || blocks.isNoticed()) {
            model = "worn";
            reason = noise.severity() >= blocks.severity() ? noise.words() : blocks.words();
        } else if (blurred >= SOFT || condition.finding("haloes").isNoticed()) {
            model = "worn";
            reason = condition.finding(blurred >= SOFT ? "blur" : "haloes").words();
        } else if (before > 1) {
            model = "photographic";
            reason = "clean at its true size";
        } else {
            model = byFile.model();
            reason = byFile.reason();
        }
        Map<String, Object> settings = new LinkedHashMap<>();
        // twice as large as the file is, also where it is made smaller first
        settings.put("factor", Math.rint(100 * Math.min(MOST_FACTOR, 2 * before)) / 100);
        String chosen = model;
        if (isThere(chosen)) {
            settings.put("model", model);
            boolean untouched = !cleaned && sharper.isEmpty() && before == 1;
            Optional<Finding> softness =
                    condition.ifThere("softness").filter(found -> SoftnessGuess.isWorthTelling(found.value() / 100));
            if (untouched && model.equals("photographic") && softness.isPresent()) {
                settings.put("softness", Math.round(softness.get().value()));
                reason += "; " + softness.get().words();
            } else if (before > 1 && model.equals("photographic") && !condition.repeated()) {
                settings.put("softness", AVERAGED);
            }
        }
        if (!format.sar().equals(Rational.ONE)) {
            settings.put("pixels", "square");
            reason += "; pixels are " + format.sar().toString().replace('/', ':') + " and become square";
        }
        return new Part(Step.of("enlarge", settings), model + ": " + reason);
    }
}
