package awlsmith.core.condition;

import awlsmith.core.measure.Borders;
import awlsmith.core.picture.Format;
import awlsmith.core.retime.Blending;
import java.util.List;
import java.util.Optional;

/** Everything noted of a clip, for {@link Condition} to judge. @param blending what its frames were mixed from */
public record Notes(
        Format format,
        double rate,
        List<FrameNote> frames,
        List<FieldNote> fields,
        List<Sample> samples,
        List<FilmNote> film,
        Borders borders,
        Optional<Blending> blending) {}
