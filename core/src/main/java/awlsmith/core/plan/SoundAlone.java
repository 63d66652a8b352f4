package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** The sound of the span by itself, as long as its pictures and at their pace; no picture is treated for it. */
final class SoundAlone extends Untreated {
    @Override
    public String id() {
        return "sound";
    }

    @Override
    public String label() {
        return "Sound alone";
    }

    @Override
    public String purpose() {
        return "the span's sound without pictures, for who mixes it or writes down what is said";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.WAV, Container.FLAC, Container.M4A, Container.MKA);
    }

    @Override
    public Taking taking(Container container) {
        return Taking.SOUND;
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return 0;
    }
}
