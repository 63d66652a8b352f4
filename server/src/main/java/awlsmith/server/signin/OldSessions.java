package awlsmith.server.signin;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.web.filter.OncePerRequestFilter;

/** Ends sessions that were begun before the password was changed: whoever knew the old one is out. */
final class OldSessions extends OncePerRequestFilter {
    /** Session attribute: the password's mark at signing in. */
    static final String MARK = "password-mark";

    /** Where Spring Security keeps who is signed in. */
    private static final String CONTEXT = HttpSessionSecurityContextRepository.SPRING_SECURITY_CONTEXT_KEY;

    private final Password password;

    OldSessions(Password password) {
        this.password = password;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var session = request.getSession(false);
        boolean signedIn = session != null && session.getAttribute(CONTEXT) != null;
        if (signedIn && !password.mark().equals(session.getAttribute(MARK))) {
            session.invalidate();
        }
        chain.doFilter(request, response);
    }
}
