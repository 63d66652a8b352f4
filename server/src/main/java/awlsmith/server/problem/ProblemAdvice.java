package awlsmith.server.problem;

import awlsmith.core.pipeline.Budget;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.recipe.RecipeException;
import awlsmith.media.MediaException;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import org.springframework.web.util.DisconnectedClientHelper;

/** Turns refusals and failures into RFC 9457 problem details with a sentence a user can act on. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    @ExceptionHandler
    ProblemDetail refused(Refusal refusal) {
        HttpStatus status = switch (refusal.kind()) {
            case INVALID -> HttpStatus.UNPROCESSABLE_CONTENT;
            case NOT_ALLOWED -> HttpStatus.FORBIDDEN;
            case UNKNOWN -> HttpStatus.NOT_FOUND;
            case CONFLICT -> HttpStatus.CONFLICT;
            case TOO_LARGE -> HttpStatus.CONTENT_TOO_LARGE;
            case NO_SPACE -> HttpStatus.INSUFFICIENT_STORAGE;
        };
        return problem(status, refusal.kind().name().toLowerCase(java.util.Locale.ROOT), refusal.getMessage());
    }

    @ExceptionHandler
    ProblemDetail recipe(RecipeException wrong) {
        var problem = problem(HttpStatus.UNPROCESSABLE_CONTENT, "recipe", wrong.getMessage());
        problem.setProperty(
                "problems",
                wrong.problems().stream()
                        .map(p -> Map.of("step", p.step(), "key", p.key(), "sentence", p.sentence()))
                        .toList());
        return problem;
    }

    @ExceptionHandler
    ProblemDetail media(MediaException wrong) {
        return problem(HttpStatus.UNPROCESSABLE_CONTENT, "media", wrong.getMessage());
    }

    @ExceptionHandler
    ProblemDetail argument(IllegalArgumentException wrong) {
        return problem(HttpStatus.UNPROCESSABLE_CONTENT, "invalid", String.valueOf(wrong.getMessage()));
    }

    @ExceptionHandler(Cancel.Stopped.class)
    ProblemDetail stopped() {
        return problem(HttpStatus.CONFLICT, "stopped", "this was stopped because something newer was asked for");
    }

    @ExceptionHandler({DataAccessResourceFailureException.class, org.jooq.exception.DataAccessException.class})
    ProblemDetail database(Exception wrong) {
        LOG.warn("the database did not answer: {}", wrong.getMessage());
        return problem(HttpStatus.SERVICE_UNAVAILABLE, "database", DatabaseGoneFilter.SENTENCE);
    }

    @ExceptionHandler
    ProblemDetail memory(Budget.Exceeded wrong) {
        return problem(HttpStatus.INSUFFICIENT_STORAGE, "memory", wrong.getMessage());
    }

    @ExceptionHandler(OutOfMemoryError.class)
    ProblemDetail memory() {
        return problem(
                HttpStatus.INSUFFICIENT_STORAGE,
                "memory",
                "too little memory for a picture of this size; choose a smaller one");
    }

    /** Nothing is left to be answered when the page is gone; nor can anything be said behind half a file. */
    @ExceptionHandler
    @Nullable
    ProblemDetail unexpected(Exception wrong, HttpServletResponse response) {
        if (DisconnectedClientHelper.isClientDisconnectedException(wrong) || response.isCommitted()) {
            return null;
        }
        LOG.error("unexpected", wrong);
        // the answer was to be of another kind, a font or a film
        response.reset();
        return problem(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "unexpected",
                "something went wrong inside Awlsmith; the log says what. Try again, and restart it if it stays so");
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException wrong, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        return handleExceptionInternal(
                wrong,
                problem(
                        HttpStatus.BAD_REQUEST,
                        "unreadable",
                        "what was sent cannot be read as what is expected here: "
                                + "it must be JSON with fields of the right kind"),
                headers,
                HttpStatus.BAD_REQUEST,
                request);
    }

    private static ProblemDetail problem(HttpStatus status, String code, String sentence) {
        var problem = ProblemDetail.forStatusAndDetail(status, sentence);
        problem.setType(URI.create("urn:awlsmith:problem:" + code));
        return problem;
    }
}
