package awlsmith.server.problem;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import jakarta.servlet.FilterChain;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.sql.SQLTransientConnectionException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class DatabaseGoneFilterTest {
    private final HttpServletRequest request = mock(HttpServletRequest.class);
    private final HttpServletResponse response = mock(HttpServletResponse.class);
    private final FilterChain chain = mock(FilterChain.class);
    private final StringWriter body = new StringWriter();

    @BeforeEach
    void body() throws Exception {
        when(response.getWriter()).thenReturn(new PrintWriter(body));
    }

    @Test
    void aSessionThatCannotBeReadIsASentence() throws Exception {
        doThrow(new IllegalStateException(new SQLTransientConnectionException("connection refused")))
                .when(chain)
                .doFilter(any(), any());
        new DatabaseGoneFilter().doFilter(request, response, chain);
        verify(response).setStatus(503);
        assertThat(body)
                .hasToString(
                        "{\"type\":\"urn:awlsmith:problem:database\",\"status\":503,\"detail\":\"the database does not answer just"
                                + " now; nothing is lost, try again in a moment\"}");
    }

    @Test
    void otherTroubleAndAnswersBegunAreLeftAlone() throws Exception {
        doThrow(new IllegalStateException("a bug")).when(chain).doFilter(any(), any());
        assertThatThrownBy(() -> new DatabaseGoneFilter().doFilter(request, response, chain))
                .hasMessage("a bug");
        doThrow(new IllegalStateException(new SQLTransientConnectionException("gone")))
                .when(chain)
                .doFilter(any(), any());
        when(response.isCommitted()).thenReturn(true);
        assertThatThrownBy(() -> new DatabaseGoneFilter().doFilter(request, response, chain))
                .isInstanceOf(IllegalStateException.class);
        verify(response, never()).setStatus(503);
    }
}
