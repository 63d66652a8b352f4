package awlsmith.server.signin;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.problem.Refusal;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out. */
@RestController
class SessionController {
    private final SignInLink link;
    private final Password password;
    private final SecurityContextRepository contexts;
    private final ApplicationEventPublisher publisher;
    private final long largestUpload;

    SessionController(
            SignInLink link,
            Password password,
            SecurityContextRepository contexts,
            ApplicationEventPublisher publisher,
            AwlsmithProperties properties) {
        this.link = link;
        this.password = password;
        this.contexts = contexts;
        this.publisher = publisher;
        this.largestUpload = properties.largestUpload().toBytes();
    }

    /**
     * @param passwordSet whether signing in by password is possible
     * @param largestUpload bytes of the largest file that is taken in
     */
    record SessionView(boolean signedIn, boolean passwordSet, long largestUpload) {}

    record Credentials(String password) {}

    @GetMapping("/api/session")
    SessionView session(@Nullable Authentication who) {
        return new SessionView(who != null && who.isAuthenticated(), password.isSet(), largestUpload);
    }

    /** The link printed at start leads here. */
    @Hidden
    @GetMapping("/enter")
    ResponseEntity<Void> enter(@RequestParam String token, HttpServletRequest request, HttpServletResponse response) {
        boolean fresh = link.use(token);
        if (fresh) {
            signIn(request, response);
        }
        return ResponseEntity.status(HttpStatus.SEE_OTHER)
                .location(URI.create(fresh ? "/" : "/sign-in?used"))
                .build();
    }

    @PostMapping("/api/session")
    SessionView signIn(@RequestBody Credentials credentials, HttpServletRequest request, HttpServletResponse response) {
        if (!password.matches(credentials.password(), request.getRemoteAddr())) {
            long wait = password.wait(request.getRemoteAddr());
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    wait > 0
                            ? "too many wrong passwords; try again in " + wait + " seconds"
                            : "the password is wrong, or none is set");
        }
        signIn(request, response);
        return new SessionView(true, true, largestUpload);
    }

    @DeleteMapping("/api/session")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(HttpServletRequest request) {
        var session = request.getSession(false);
        if (session != null) {
            publisher.publishEvent(new SignedOut(session.getId()));
            session.invalidate();
        }
    }

    private void signIn(HttpServletRequest request, HttpServletResponse response) {
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        var context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated("operator", null, List.of()));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        request.getSession().setAttribute(OldSessions.MARK, password.mark());
    }
}
