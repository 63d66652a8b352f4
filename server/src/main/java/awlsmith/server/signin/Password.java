package awlsmith.server.signin;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.CannotStart;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Component;

/** The password for signing in from other machines, kept as a bcrypt hash in the data folder. */
@Component
class Password {
    private static final int FREE_TRIES = 5;
    private static final Duration PAUSE = Duration.ofSeconds(30);

    private final Path file;
    private final Clock clock;
    private final BCryptPasswordEncoder encoder = new BCryptPasswordEncoder();
    private int wrong;
    private Instant openAgain = Instant.EPOCH;

    Password(AwlsmithProperties properties, Clock clock, @Value("${server.address}") String address)
            throws UnknownHostException {
        this.file = file(properties.home());
        this.clock = clock;
        if (!InetAddress.getByName(address).isLoopbackAddress() && !isSet()) {
            throw new CannotStart(
                    "Listening on " + address + " lets other machines in, and no password is set.",
                    "Set one with ./awlsmith password, or leave AWLSMITH_ADDRESS out to listen on this machine alone.");
        }
    }

    static Path file(Path home) {
        return home.resolve("password");
    }

    boolean isSet() {
        return Files.exists(file);
    }

    /** Seconds to wait after too many wrong ones; 0 when a try is free. */
    synchronized long wait(Instant now) {
        return Math.max(0, Duration.between(now, openAgain).toSeconds());
    }

    synchronized boolean matches(String offered) {
        Instant now = clock.instant();
        if (!isSet() || now.isBefore(openAgain)) {
            return false;
        }
        try {
            if (encoder.matches(offered, Files.readString(file).strip())) {
                wrong = 0;
                return true;
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        wrong++;
        if (wrong >= FREE_TRIES) {
            wrong = 0;
            openAgain = now.plus(PAUSE);
        }
        return false;
    }
}
