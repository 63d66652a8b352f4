package awlsmith.server.clips;

import awlsmith.core.picture.Rational;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** How the file of a clip is made before it can be read in; kept beside it, so that it is made anew after a restart. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Making.Gathering.class, name = "gathering"),
    @JsonSubTypes.Type(value = Making.Rebuilding.class, name = "rebuilding"),
    @JsonSubTypes.Type(value = Making.Joining.class, name = "joining")
})
sealed interface Making {
    /**
     * From numbered pictures.
     *
     * @param pictures absolute paths in their order; none when they lie packed in the clip's folder
     * @param rate frames a second
     * @param gaps what is to be told of numbers that are missing, empty when none is
     */
    record Gathering(List<String> pictures, String rate, String gaps) implements Making {
        Rational framesASecond() {
            return Rational.parse(rate);
        }
    }

    /**
     * From a damaged file.
     *
     * @param source absolute path
     * @param fill whether lost frames are made up and sound is kept in step, which decodes everything
     */
    record Rebuilding(String source, boolean fill) implements Making {}

    /**
     * Of several clips, one behind another, by their files and what their frames were read as, absolute paths.
     *
     * @param leftOut what is to be told of what did not go along; null before it is known, and when all did
     */
    record Joining(
            List<String> sources,
            List<String> indices,
            @Nullable String leftOut) implements Making {}
}
