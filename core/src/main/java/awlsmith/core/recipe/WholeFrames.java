package awlsmith.core.recipe;

import java.util.List;

/** Steps that need lines of one time. */
final class WholeFrames {
    private WholeFrames() {}

    /** @param otherwise what would happen to woven fields, behind "the picture here is interlaced: " */
    static List<Problem> check(Given given, String otherwise) {
        return given.format().scan().isInterlaced()
                ? List.of(Problem.at("", "the picture here is interlaced: " + otherwise + ". Deinterlace before"))
                : List.of();
    }
}
