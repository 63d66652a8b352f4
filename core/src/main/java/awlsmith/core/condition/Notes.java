package awlsmith.core.condition;

import awlsmith.core.measure.Borders;
import awlsmith.core.picture.Format;
import java.util.List;

/** Everything noted of a clip, for {@link Condition} to judge. */
public record Notes(
        Format format,
        double rate,
        List<FrameNote> frames,
        List<FieldNote> fields,
        List<Sample> samples,
        List<FilmNote> film,
        Borders borders) {}
