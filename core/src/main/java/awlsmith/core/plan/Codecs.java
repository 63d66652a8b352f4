package awlsmith.core.plan;

import java.util.List;
import java.util.Optional;

/** Every codec that pictures can go out in. */
public final class Codecs {
    public static final Codec H264 = new H264();
    public static final Codec H265 = new H265();
    public static final Codec PRORES = new ProRes();
    public static final Codec FFV1 = new Ffv1();
    public static final Codec AV1 = new Av1();
    public static final Codec VP9 = new Vp9();
    public static final Codec DNXHR = new DnxHr();

    private static final List<Codec> ALL = List.of(
            H264,
            H265,
            AV1,
            VP9,
            PRORES,
            DNXHR,
            FFV1,
            new Jpeg2000(),
            new Pictures(Pictures.Kind.PNG),
            new Pictures(Pictures.Kind.TIFF),
            new Pictures(Pictures.Kind.JPEG),
            new Pictures(Pictures.Kind.EXR),
            new Animated(true),
            new Animated(false),
            new Webp(),
            new ContactSheet(),
            new SoundAlone(),
            new AsCoded());

    private Codecs() {}

    /** All of them, the one that plays in most places first. */
    public static List<Codec> all() {
        return ALL;
    }

    /** The one of this name. */
    public static Optional<Codec> find(String id) {
        return ALL.stream().filter(codec -> codec.id().equals(id)).findFirst();
    }

    /** @throws IllegalArgumentException with a sentence when there is none of this name */
    public static Codec byId(String id) {
        return find(id).orElseThrow(() -> new IllegalArgumentException("codec is '" + id + "', must be one of "
                + String.join(", ", ALL.stream().map(Codec::id).toList())));
    }

    /** The usual one for files with this ending: nothing is lost in Matroska, WebM is for browsers, else the first that may stand in it. */
    public static Codec usual(String ending) {
        return switch (ending) {
            case "mkv" -> FFV1;
            case "webm" -> VP9;
            default ->
                ALL.stream()
                        .filter(codec -> codec.containers().stream()
                                .anyMatch(in -> in.ending().equals(ending)))
                        .findFirst()
                        .orElse(H264);
        };
    }
}
