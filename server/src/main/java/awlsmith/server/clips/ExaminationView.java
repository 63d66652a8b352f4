package awlsmith.server.clips;

import awlsmith.core.condition.Condition;
import awlsmith.core.condition.Finding;
import awlsmith.core.condition.Suggestion;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How far a clip has been examined, and its condition once it has.
 *
 * @param progress 0..1
 * @param problem why it could not be examined
 */
public record ExaminationView(
        State state,
        double progress,
        @Nullable String problem,
        @Nullable ConditionFacts condition) {
    public enum State {
        WAITING,
        RUNNING,
        DONE,
        STOPPED,
        FAILED
    }

    /**
     * @param findings in a fixed order
     * @param worst id of the worst that anyone would notice, if there is one
     * @param scan progressive, top_first or bottom_first, as measured
     * @param cuts number of places where a scene begins
     */
    public record ConditionFacts(
            List<FindingView> findings, @Nullable String worst, String scan, int cuts, SuggestionView suggestion) {
        public static ConditionFacts of(Condition condition, Suggestion suggestion) {
            return new ConditionFacts(
                    condition.findings().stream().map(FindingView::of).toList(),
                    condition.worst().map(Finding::id).orElse(null),
                    condition.scan().name().toLowerCase(Locale.ROOT),
                    condition.cuts(),
                    new SuggestionView(
                            suggestion.parts().stream()
                                    .map(part -> new SuggestedStep(
                                            part.step().kind(),
                                            part.step().settings().tree(),
                                            part.reason()))
                                    .toList(),
                            suggestion.notes()));
        }
    }

    /** One measure; see {@link Finding}. */
    public record FindingView(
            String id,
            String label,
            double value,
            String unit,
            double severity,
            boolean noticed,
            String words,
            String method) {
        static FindingView of(Finding finding) {
            double value = Double.isFinite(finding.value()) ? finding.value() : 0;
            return new FindingView(
                    finding.id(),
                    finding.label(),
                    value,
                    finding.unit(),
                    finding.severity(),
                    finding.isNoticed(),
                    finding.words(),
                    finding.method());
        }
    }

    /** @param notes what was found that no step can treat */
    public record SuggestionView(List<SuggestedStep> steps, List<String> notes) {}

    /** @param reason with the figure it rests on */
    public record SuggestedStep(String step, Map<String, Object> settings, String reason) {}
}
