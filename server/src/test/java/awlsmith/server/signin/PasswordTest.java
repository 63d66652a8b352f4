package awlsmith.server.signin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import awlsmith.server.AwlsmithProperties;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.util.unit.DataSize;

class PasswordTest {
    @TempDir
    Path home;

    private final Clock clock = mock(Clock.class);

    private AwlsmithProperties properties() {
        return new AwlsmithProperties(
                home,
                false,
                DataSize.ofGigabytes(1),
                DataSize.ofGigabytes(1),
                96,
                java.util.List.of(),
                java.time.Duration.ofSeconds(10),
                java.util.List.of(),
                null);
    }

    @Test
    void anotherAddressThanLoopbackDemandsAPassword() throws Exception {
        assertThatThrownBy(() -> new Password(properties(), clock, "0.0.0.0"))
                .hasMessageContaining("no password is set");
        Files.writeString(Password.file(home), new BCryptPasswordEncoder().encode("a long enough one"));
        assertThat(new Password(properties(), clock, "0.0.0.0").isSet()).isTrue();
    }

    @Test
    void fiveWrongOnesCloseTheDoorForAWhile() throws Exception {
        Files.writeString(Password.file(home), new BCryptPasswordEncoder(4).encode("open sesame please"));
        var password = new Password(properties(), clock, "127.0.0.1");
        Instant now = Instant.parse("2026-01-01T00:00:00Z");
        when(clock.instant()).thenReturn(now);
        for (int i = 0; i < 5; i++) {
            assertThat(password.matches("wrong", "192.0.2.1")).isFalse();
        }
        assertThat(password.matches("open sesame please", "192.0.2.1")).isFalse();
        assertThat(password.wait("192.0.2.1")).isEqualTo(30);
        // from elsewhere the door is open
        assertThat(password.wait("192.0.2.2")).isZero();
        assertThat(password.matches("open sesame please", "192.0.2.2")).isTrue();
        when(clock.instant()).thenReturn(now.plusSeconds(31));
        assertThat(password.matches("open sesame please", "192.0.2.1")).isTrue();
    }

    @Test
    void withoutAPasswordNothingMatches() throws Exception {
        when(clock.instant()).thenReturn(Instant.EPOCH);
        assertThat(new Password(properties(), clock, "127.0.0.1").matches("", "192.0.2.1"))
                .isFalse();
    }

    @Test
    void theLinkIsUsedUpByTheRightTokenOnly() {
        var link = new SignInLink();
        String token = link.token();
        assertThat(link.use("x")).isFalse();
        assertThat(link.use(token)).isTrue();
        assertThat(link.use(token)).isFalse();
    }
}
