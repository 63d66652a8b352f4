package awlsmith.server.machine;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Whether somebody works at the screens just now: has asked for a picture, or changed something, within the last minute. A page that is only open
 * asks for neither, and other machines are nobody.
 */
@Component
public class Presence extends OncePerRequestFilter {
    private static final long WHILE_NANOS = TimeUnit.MINUTES.toNanos(1);
    private static final String OTHER_MACHINES = "/api/work";

    private volatile long last = System.nanoTime() - WHILE_NANOS;

    public boolean isSomebody() {
        return System.nanoTime() - last < WHILE_NANOS;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!request.getMethod().equals("GET") && !request.getRequestURI().startsWith(OTHER_MACHINES)) {
            last = System.nanoTime();
        }
        chain.doFilter(request, response);
    }
}
