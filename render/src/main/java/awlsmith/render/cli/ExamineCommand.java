package awlsmith.render.cli;

import awlsmith.core.condition.Condition;
import awlsmith.core.condition.Dropped;
import awlsmith.core.condition.Fade;
import awlsmith.core.condition.Finding;
import awlsmith.core.condition.Judge;
import awlsmith.core.condition.Suggestion;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import java.io.PrintStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;

/** Tells a file's condition on standard output. */
final class ExamineCommand {
    private final List<String> arguments;
    private final PrintStream out;
    private final PrintStream err;
    private final Cancel cancel;

    ExamineCommand(List<String> arguments, PrintStream out, PrintStream err, Cancel cancel) {
        this.arguments = arguments;
        this.out = out;
        this.err = err;
        this.cancel = cancel;
    }

    int run() {
        if (arguments.size() != 1 || arguments.getFirst().startsWith("--")) {
            throw new RenderOptions.Misuse("examine wants one file: awlsmith examine IN");
        }
        MediaInfo info = Prober.probe(Path.of(arguments.getFirst()));
        Examined examined = Examined.of(
                info, Runtime.getRuntime().availableProcessors(), done -> err.printf("\rframe %d ", done), cancel);
        int frames = examined.clip().index().orElseThrow().count();
        err.printf(Locale.ROOT, "\r%d frames, %.0f a second%n", frames, frames / Math.max(1e-3, examined.seconds()));
        tell(examined.judge(), examined.suggestion());
        return Main.DONE;
    }

    private void tell(Judge judge, Suggestion suggestion) {
        Condition condition = judge.condition();
        for (Finding finding : condition.findings()) {
            out.printf(
                    Locale.ROOT,
                    "%-14s %s %9.2f %-16s %s%n",
                    finding.label(),
                    finding.isNoticed() ? "!" : " ",
                    finding.value(),
                    finding.unit(),
                    finding.words());
        }
        var curves = judge.curves();
        list("cuts at frames", curves.cuts());
        list("repeated frames", curves.repeats());
        list("flashes at frames", curves.flashes());
        list("fades from frames", curves.fades().stream().map(Fade::from).toList());
        list(
                "frames missing before",
                curves.dropped().stream().map(Dropped::frame).toList());
        out.println("suggested:");
        for (Suggestion.Part part : suggestion.parts()) {
            out.println("  " + part.step().kind() + " " + part.step().settings().given() + ": " + part.reason());
        }
        suggestion.notes().forEach(note -> out.println("  note: " + note));
    }

    private void list(String what, List<Long> numbers) {
        if (!numbers.isEmpty()) {
            int shown = Math.min(40, numbers.size());
            out.println(what + ": " + numbers.subList(0, shown) + (shown < numbers.size() ? " and more" : ""));
        }
    }
}
