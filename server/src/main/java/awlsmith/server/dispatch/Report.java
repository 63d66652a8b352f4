package awlsmith.server.dispatch;

import awlsmith.core.model.Models;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.web.util.HtmlUtils;
import tools.jackson.databind.json.JsonMapper;

/**
 * What was sent out, how it was made, and what was read back from it.
 *
 * @param source title of the clip; @param from first frame of it; @param end frame behind the last
 * @param sha256 of the file, as checksum programs print it
 * @param models what nets there were, by a fingerprint of all
 * @param checks that were held against what was asked for; a file that fails one is never sent out
 */
record Report(
        String file,
        String source,
        String take,
        int from,
        int end,
        Map<String, Object> recipe,
        Map<String, Object> deliverable,
        @Nullable String engine,
        String models,
        @Nullable String sha256,
        RenderView.Result result,
        @Nullable String note,
        Instant asked,
        @Nullable Instant finished,
        List<Check> checks) {

    record Check(String what, String found) {}

    static Report of(RenderView view, RenderJob job) {
        RenderView.Result result = view.result();
        var checks = new ArrayList<Check>();
        checks.add(new Check("decodes to its end", result.errors() + " complaints of the decoder"));
        if (result.hasPictures()) {
            pictures(result, checks);
        } else {
            checks.add(new Check("length", result.seconds() + " s, as the pictures of the span"));
        }
        checks.add(new Check(
                "sound",
                result.sound().isEmpty()
                        ? "none"
                        : String.join(", ", result.sound())
                                + (result.hasPictures()
                                        ? "; as long as the source's, in step with the pictures"
                                        : "")));
        return new Report(
                view.fileName(),
                view.clipTitle(),
                view.takeName(),
                job.from(),
                job.end(),
                job.recipe().toTree(),
                job.deliverable().toTree(),
                result.engine(),
                Models.fingerprint(),
                result.sha256(),
                result,
                view.note(),
                view.createdAt(),
                view.finishedAt(),
                List.copyOf(checks));
    }

    private static void pictures(RenderView.Result result, List<Check> checks) {
        checks.add(new Check("frames", Long.toString(result.frames())));
        checks.add(new Check("size", result.width() + "x" + result.height()));
        checks.add(new Check("frames a second", result.rate()));
        checks.add(new Check("length", result.seconds() + " s"));
        checks.add(new Check("depth", result.depth() + " bit"));
        checks.add(new Check(
                "colour",
                result.matrix() + ", " + result.range() + " range, " + result.transfer() + ", " + result.primaries()));
    }

    /** The same as a page that stands by itself. */
    String html(JsonMapper json) {
        var page = new StringBuilder();
        page.append("<!doctype html><html lang=en><meta charset=utf-8><title>")
                .append(text(file))
                .append("</title><style>body{font:15px/1.5 sans-serif;max-width:52em;margin:3em auto;padding:0 1em}")
                .append("th{text-align:left;font-weight:500;padding-right:2em;vertical-align:top}")
                .append("pre{background:#eee;padding:1em;overflow:auto}</style><h1>")
                .append(text(file))
                .append("</h1><p>")
                .append(text("Made of " + source + ", take " + take + ", frames " + from + " to " + (end - 1)
                        + " of it, with Awlsmith " + (engine == null ? "of before" : engine) + "."))
                .append("</p><h2>Read back from the file</h2><table>");
        for (Check check : checks) {
            row(page, check.what(), check.found());
        }
        row(page, "bytes", Long.toString(result.bytes()));
        row(page, "SHA-256", sha256 == null ? "not kept" : sha256);
        row(page, "nets", models);
        if (result.on() != null && result.workSeconds() != null) {
            long elsewhere = result.elsewhere() == null ? 0 : result.elsewhere();
            row(
                    page,
                    "made on",
                    result.on() + ", in " + Math.round(result.workSeconds()) + " s"
                            + (elsewhere > 0 ? "; " + elsewhere + " frames by other machines" : ""));
        }
        row(page, "asked for", asked.toString());
        row(page, "finished", String.valueOf(finished));
        if (note != null) {
            row(page, "note", note);
        }
        page.append("</table><h2>Recipe</h2><pre>")
                .append(text(pretty(json, recipe)))
                .append("</pre><h2>Sent out as</h2><pre>")
                .append(text(pretty(json, deliverable)))
                .append("</pre></html>");
        return page.toString();
    }

    private static String pretty(JsonMapper json, Object tree) {
        return json.writerWithDefaultPrettyPrinter().writeValueAsString(tree);
    }

    private static void row(StringBuilder page, String what, String found) {
        page.append("<tr><th>").append(text(what)).append("<td>").append(text(found));
    }

    private static String text(String plain) {
        return HtmlUtils.htmlEscape(plain);
    }
}
