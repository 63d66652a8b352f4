package awlsmith.core.plan;

import java.util.List;
import java.util.Optional;

/** Every codec that pictures can go out in. */
public final class Codecs {
    public static final Codec H264 = new H264();
    public static final Codec H265 = new H265();
    public static final Codec PRORES = new ProRes();
    public static final Codec FFV1 = new Ffv1();

    private static final List<Codec> ALL = List.of(H264, H265, PRORES, FFV1);

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

    /** The usual one for files with this ending: the one that stands in no other container, else the first that may stand in it. */
    public static Codec usual(String ending) {
        return ALL.stream()
                .filter(codec -> codec.containers().size() == 1
                        && codec.containers().getFirst().ending().equals(ending))
                .findFirst()
                .or(() -> ALL.stream()
                        .filter(codec -> codec.containers().stream()
                                .anyMatch(in -> in.ending().equals(ending)))
                        .findFirst())
                .orElse(H264);
    }
}
