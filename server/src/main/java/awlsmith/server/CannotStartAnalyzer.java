package awlsmith.server;

import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Makes a sentence of {@link CannotStart} where a stack trace would come. Named in META-INF/spring.factories. */
class CannotStartAnalyzer extends AbstractFailureAnalyzer<CannotStart> {
    @Override
    protected FailureAnalysis analyze(Throwable whole, CannotStart cause) {
        return new FailureAnalysis(cause.getMessage(), cause.remedy(), cause);
    }
}
