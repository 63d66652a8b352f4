package awlsmith.server.signin;

import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Whether a session that was signed in once still counts. */
@Component
public class SignedIn {
    /** Session attribute: the password's mark at signing in. */
    public static final String MARK = OldSessions.MARK;

    private final Password password;

    SignedIn(Password password) {
        this.password = password;
    }

    /** @param mark as the session carries it */
    public boolean isStill(@Nullable Object mark) {
        return password.mark().equals(mark);
    }
}
