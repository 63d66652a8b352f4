package awlsmith.render.cli;

import awlsmith.core.pipeline.Budget;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.recipe.RecipeException;
import awlsmith.media.MediaException;
import java.io.PrintStream;
import java.util.Arrays;
import java.util.List;

/** Entry of {@code awlsmith render}, {@code awlsmith send}, {@code awlsmith join}, {@code awlsmith segment}, {@code awlsmith examine}, {@code awlsmith steps} and {@code awlsmith codecs}. */
public final class Main {
    static final int DONE = 0;
    static final int FAILED = 1;
    static final int MISUSED = 2;
    static final int STOPPED = 130;

    private Main() {}

    public static void main(String[] arguments) {
        System.exit(run(Arrays.asList(arguments), System.out, System.err, new Cancel()));
    }

    /** The command without the process around it: returns the exit code. */
    static int run(List<String> arguments, PrintStream out, PrintStream err, Cancel cancel) {
        if (arguments.isEmpty()) {
            err.println("awlsmith: say what to do: render, send, join, segment, worker, examine, steps or codecs");
            return MISUSED;
        }
        List<String> rest = arguments.subList(1, arguments.size());
        try {
            return switch (arguments.getFirst()) {
                case "steps" -> {
                    out.print(StepsText.all());
                    yield DONE;
                }
                case "codecs" -> {
                    out.print(StepsText.codecs());
                    yield DONE;
                }
                case "render" -> new RenderCommand(RenderOptions.parse(rest), new PlainTelling(err), cancel).run();
                case "send" -> new SendCommand(rest, out, err, cancel).run();
                case "join" -> new JoinCommand(rest, err, cancel).run();
                case "segment" -> new SegmentCommand(rest, err, cancel).run();
                case "worker" -> new WorkerCommand(rest, System.getenv(), err, cancel).run();
                case "examine" -> new ExamineCommand(rest, out, err, cancel).run();
                default -> {
                    err.println("awlsmith: '" + arguments.getFirst()
                            + "' is not known; there are: render, send, join, segment, worker, examine, steps, codecs");
                    yield MISUSED;
                }
            };
        } catch (RenderOptions.Misuse | RecipeException e) {
            err.println("awlsmith: " + e.getMessage());
            return MISUSED;
        } catch (MediaException e) {
            err.println("awlsmith: " + e.getMessage());
            return FAILED;
        } catch (Budget.Exceeded e) {
            err.println("awlsmith: " + e.getMessage());
            return FAILED;
        } catch (Cancel.Stopped e) {
            err.println("awlsmith: stopped; nothing was written");
            return STOPPED;
        } catch (OutOfMemoryError e) {
            err.println("awlsmith: too little memory for pictures of this size; choose a smaller size");
            return FAILED;
        }
    }
}
