package awlsmith.render;

import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Sound;
import awlsmith.media.Joiner;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.ReadBack;
import awlsmith.media.SoundFile;
import awlsmith.media.SoundLength;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Holds what was read back from a finished file against what was asked for. */
final class Verdict {
    /** Seconds that a picture's time may be off: Matroska counts in thousandths, and two are rounded. */
    private static final double TIME_SLACK = 0.002;

    /** Seconds that sound may be longer or shorter: its packets are cut whole, and coders add some silence. */
    private static final double SOUND_SLACK = 0.12;

    /** Seconds that no file has. */
    private static final Rational ALL = Rational.of(1_000_000);

    private final RenderRequest request;
    private final Format asked;
    private final Joiner.Along along;
    private final long frames;

    Verdict(RenderRequest request, Format asked, Joiner.Along along, long frames) {
        this.request = request;
        this.asked = asked;
        this.along = along;
        this.frames = frames;
    }

    /** @throws MediaException with a sentence that names everything that is not as it was asked for */
    void demand(ReadBack.Facts facts, Cancel cancel) {
        var wrong = new ArrayList<String>();
        if (facts.frames() != frames) {
            wrong.add("it holds " + facts.frames() + " frames, " + frames + " were rendered");
        }
        if (facts.errors() > 0) {
            wrong.add("its decoder complains " + facts.errors() + " times");
        }
        picture(facts.format(), wrong);
        times(facts, wrong);
        sounds(facts, wrong, cancel);
        refuse(wrong);
    }

    private static void refuse(List<String> wrong) {
        if (!wrong.isEmpty()) {
            throw new MediaException("the finished file is not what was asked for: " + String.join("; ", wrong)
                    + ". Start the render again");
        }
    }

    /** The same of a file of sound alone. */
    static void demandSound(SoundFile.Facts facts, Joiner.Along along, Container container, Cancel cancel) {
        var wrong = new ArrayList<String>();
        List<MediaInfo.Sound> wanted = SoundFile.tracks(along, container);
        if (facts.tracks().size() != wanted.size()) {
            wrong.add("it has " + facts.tracks().size() + " sound tracks, " + wanted.size() + " were to go out");
        }
        if (facts.errors() > 0) {
            wrong.add("its decoder complains " + facts.errors() + " times");
        }
        var span = new SoundLength.Span(along.start(), along.lasting());
        for (int n = 0; n < Math.min(wanted.size(), facts.tracks().size()); n++) {
            Rational lasts = SoundFile.isCopied(wanted.get(n), along, container)
                    ? SoundLength.of(along.source(), wanted.get(n), Optional.of(span), cancel)
                    : along.seconds();
            close("sound", facts.seconds().get(n).toDouble(), lasts.toDouble(), SOUND_SLACK, wrong);
        }
        refuse(wrong);
    }

    private void picture(Format got, List<String> wrong) {
        Codec codec = request.deliverable().codec();
        Format read = codec.readAs(asked);
        same("size", got.width() + "x" + got.height(), asked.width() + "x" + asked.height(), wrong);
        same("depth", got.depth(), read.depth(), wrong);
        same("transparency", got.alpha().isThere(), read.alpha().isThere(), wrong);
        same("layout", got.chroma(), asked.chroma(), wrong);
        if (!codec.tellsColour()) {
            return;
        }
        same("sample aspect", got.sar(), asked.sar(), wrong);
        same("scan", got.scan(), asked.scan(), wrong);
        if (asked.chroma().isSubsampled() && !got.siting().isSame(asked.siting(), asked.chroma())) {
            same("chroma location", got.siting(), asked.siting(), wrong);
        }
        if (asked.chroma() == awlsmith.core.picture.Chroma.GREY) {
            // without colour its matrix says nothing
            return;
        }
        ColourTags tags = got.colour();
        var container = request.deliverable().container();
        if (container == Container.MXF && tags.isSameMeaning(asked.colour())) {
            // it has one label for what other files know by several names (SMPTE RP 224)
            return;
        }
        same("matrix", tags.matrix(), asked.colour().matrix(), wrong);
        same("range", tags.rangeFor(got.chroma()), asked.colour().rangeFor(asked.chroma()), wrong);
        same("transfer", tags.transfer(), asked.colour().transfer(), wrong);
        same("primaries", tags.primaries(), asked.colour().primaries(), wrong);
    }

    private static void same(String what, Object got, Object wanted, List<String> wrong) {
        if (!got.equals(wanted)) {
            wrong.add("its " + what + " is " + got + ", " + wanted + " was asked for");
        }
    }

    private void times(ReadBack.Facts facts, List<String> wrong) {
        long first = request.outputRange().from();
        double length = request.lasting(first, frames - 1).toDouble();
        double slack = Math.max(TIME_SLACK, 2 * request.deliverable().codec().tick());
        close("length", facts.length().toDouble(), length, slack, wrong);
    }

    private void sounds(ReadBack.Facts facts, List<String> wrong, Cancel cancel) {
        List<MediaInfo.Sound> wanted =
                along.sound() == Sound.NONE ? List.of() : along.source().sounds();
        // a span may lie where a track has nothing
        if (facts.sounds().size() > wanted.size()
                || along.whole() && facts.sounds().size() < wanted.size()) {
            wrong.add("it has " + facts.sounds().size() + " sound tracks, " + wanted.size() + " were to go along");
            return;
        }
        for (int n = 0; n < facts.sounds().size(); n++) {
            Optional<SoundLength.Span> span = along.whole() && !along.isPaced()
                    ? Optional.empty()
                    : Optional.of(new SoundLength.Span(along.start(), along.whole() ? ALL : along.lasting()));
            double source = SoundLength.of(along.source(), wanted.get(n), span, cancel)
                    .dividedBy(along.speed())
                    .toDouble();
            if (along.isPaced()) {
                // silence stands before sound that begins later than the pictures
                Rational late = wanted.get(n).start().minus(along.start());
                source += late.isPositive() ? late.dividedBy(along.speed()).toDouble() : 0;
            }
            if (request.deliverable().container() == Container.MXF) {
                // silence is put where there was none
                source = along.seconds().toDouble();
            }
            close("sound", facts.sounds().get(n).toDouble(), source, SOUND_SLACK, wrong);
            if (along.whole() && !along.isPaced()) {
                double apart = facts.info()
                        .sounds()
                        .get(n)
                        .start()
                        .minus(facts.start())
                        .toDouble();
                double before = wanted.get(n).start().minus(along.start()).toDouble();
                close("sound against the picture", apart, before, SOUND_SLACK, wrong);
            }
        }
    }

    private static void close(String what, double got, double wanted, double slack, List<String> wrong) {
        if (Math.abs(got - wanted) > slack) {
            wrong.add(String.format(Locale.ROOT, "its %s is %.3f s, %.3f s was asked for", what, got, wanted));
        }
    }
}
