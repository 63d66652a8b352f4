package awlsmith.core.recipe;

import java.util.List;
import java.util.stream.Collectors;

/** A recipe that cannot be used; the message holds every problem's sentence. */
public final class RecipeException extends RuntimeException {
    private final transient List<Problem> problems;

    /** @param problems at least one */
    public RecipeException(List<Problem> problems) {
        super(problems.stream().map(RecipeException::line).collect(Collectors.joining("; ")));
        this.problems = List.copyOf(problems);
    }

    /** Of one problem alone. */
    public RecipeException(Problem problem) {
        this(List.of(problem));
    }

    /** Everything that is wrong, not the first thing alone. */
    public List<Problem> problems() {
        return problems;
    }

    private static String line(Problem problem) {
        return problem.step() < 0 ? problem.sentence() : "step " + (problem.step() + 1) + ": " + problem.sentence();
    }
}
