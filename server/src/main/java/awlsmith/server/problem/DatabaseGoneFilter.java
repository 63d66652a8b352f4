package awlsmith.server.problem;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Says so in a sentence when the database does not answer. It stands before all other filters, as the session is read
 * from the database before any controller, and its advice, is reached.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class DatabaseGoneFilter extends OncePerRequestFilter {
    static final String SENTENCE = "the database does not answer just now; nothing is lost, try again in a moment";
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseGoneFilter.class);

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (ServletException | RuntimeException e) {
            if (!fromDatabase(e) || response.isCommitted()) {
                throw e;
            }
            LOG.warn("the database did not answer: {}", e.getMessage());
            response.reset();
            response.setStatus(HttpServletResponse.SC_SERVICE_UNAVAILABLE);
            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
            response.setCharacterEncoding(StandardCharsets.UTF_8);
            response.getWriter()
                    .write("{\"type\":\"urn:awlsmith:problem:database\",\"status\":503,\"detail\":\"" + SENTENCE
                            + "\"}");
        }
    }

    private static boolean fromDatabase(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof SQLException) {
                return true;
            }
        }
        return false;
    }
}
