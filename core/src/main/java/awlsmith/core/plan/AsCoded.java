package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** The source's own packets: put into another container, cut at key frames, given other words; no sample changes. */
final class AsCoded extends Untreated {
    @Override
    public String id() {
        return "copy";
    }

    @Override
    public String label() {
        return "As it is coded";
    }

    @Override
    public String purpose() {
        return "the source's pictures without being coded anew: nothing is lost, no step can change them, spans are cut at key frames";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.MKV, Container.MP4, Container.MOV);
    }

    @Override
    public boolean isLossless() {
        return true;
    }

    @Override
    public Taking taking(Container container) {
        return Taking.SOURCE;
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return amount.frames() * amount.sourceBits() / 8;
    }
}
