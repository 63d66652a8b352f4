package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** What goes out without a picture being treated for it: nothing of pictures can be set, and nothing limits them. */
abstract class Untreated implements Codec {
    @Override
    public List<Param> params() {
        return List.of();
    }

    @Override
    public int largestSide() {
        return Integer.MAX_VALUE;
    }

    @Override
    public boolean holdsAlpha() {
        return true;
    }

    /** It tells what the source told, or nothing. */
    @Override
    public boolean tellsColour() {
        return false;
    }

    @Override
    public Format format(Format treated, Settings settings) {
        return treated;
    }
}
