package awlsmith.server.signin;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;

/** {@code awlsmith password}: asks for a password and keeps its hash. */
public final class SetPassword {
    private static final int SHORTEST = 12;
    /** bcrypt looks at no more bytes than this. */
    private static final int LONGEST = 72;

    private SetPassword() {}

    public static void main(String[] arguments) throws IOException {
        String password = read();
        int length = password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length;
        if (length < SHORTEST || length > LONGEST) {
            System.err.println("awlsmith: the password must have " + SHORTEST + " to " + LONGEST
                    + " letters; nothing was changed");
            System.exit(2);
        }
        Path file = Password.file(Path.of(arguments[0]));
        Files.createDirectories(file.getParent());
        Files.deleteIfExists(file);
        Files.createFile(file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        Files.writeString(file, new BCryptPasswordEncoder().encode(password));
        System.err.println("the password is set");
    }

    private static String read() throws IOException {
        if (System.console() != null) {
            return new String(System.console().readPassword("new password: "));
        }
        String line = new BufferedReader(new InputStreamReader(System.in)).readLine();
        return line == null ? "" : line;
    }
}
