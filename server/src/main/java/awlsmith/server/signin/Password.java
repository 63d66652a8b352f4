package awlsmith.server.signin;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.CannotStart;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Component;

/** The password for signing in from other machines, kept as a bcrypt hash in the data folder. */
@Component
class Password {
    private static final int FREE_TRIES = 5;
    private static final Duration PAUSE = Duration.ofSeconds(30);
    /** Addresses remembered; who comes from more of them is slowed down by the hash alone. */
    private static final int MOST_ADDRESSES = 10_000;

    private final Path file;
    private final Clock clock;
    private final BCryptPasswordEncoder encoder = new BCryptPasswordEncoder();
    /** By address, the least lately used first: one who guesses locks out nobody else. */
    private final Map<String, Tries> tries = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Tries> eldest) {
            return size() > MOST_ADDRESSES;
        }
    };

    private record Tries(int wrong, Instant openAgain) {
        static final Tries NONE = new Tries(0, Instant.EPOCH);
    }

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

    /** A mark of the password as it is now; sessions that carry another were begun before it was changed. */
    String mark() {
        try {
            byte[] kept = isSet() ? Files.readAllBytes(file) : "none".getBytes(StandardCharsets.US_ASCII);
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(kept), 0, 8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** Seconds for an address to wait after too many wrong ones; 0 when a try is free. */
    synchronized long wait(String address) {
        Instant open = tries.getOrDefault(address, Tries.NONE).openAgain();
        return Math.max(0, Duration.between(clock.instant(), open).toSeconds());
    }

    /** @param address where the offer comes from */
    boolean matches(String offered, String address) {
        Instant now = clock.instant();
        synchronized (this) {
            if (!isSet() || now.isBefore(tries.getOrDefault(address, Tries.NONE).openAgain())) {
                return false;
            }
            // counted before it is looked at, so that many at once are not all free
            int wrong = tries.getOrDefault(address, Tries.NONE).wrong() + 1;
            tries.put(address, wrong >= FREE_TRIES ? new Tries(0, now.plus(PAUSE)) : new Tries(wrong, Instant.EPOCH));
        }
        try {
            boolean right = encoder.matches(offered, Files.readString(file).strip());
            if (right) {
                synchronized (this) {
                    tries.remove(address);
                }
            }
            return right;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
