package awlsmith.server.signin;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.stereotype.Component;

/** The token of the link printed at start: good for one sign-in. */
@Component
class SignInLink {
    private final AtomicReference<String> token = new AtomicReference<>(fresh());

    String token() {
        return token.get();
    }

    /** True once for the right token; wrong ones use nothing up. */
    boolean use(String offered) {
        String now = token.get();
        return now != null && same(now, offered) && token.compareAndSet(now, null);
    }

    private static boolean same(String a, String b) {
        return MessageDigest.isEqual(a.getBytes(StandardCharsets.UTF_8), b.getBytes(StandardCharsets.UTF_8));
    }

    private static String fresh() {
        byte[] bytes = new byte[24];
        new SecureRandom().nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }
}
