package awlsmith.core.recipe;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Names things by what is in them: SHA-256 (FIPS 180-4), as 64 hexadecimal digits. */
public final class Sha256 {
    private Sha256() {}

    /** Of a text in UTF-8. */
    public static String hex(String text) {
        return hex(text.getBytes(StandardCharsets.UTF_8));
    }

    /** Of a file's content. */
    public static String hex(byte[] content) {
        return HexFormat.of().formatHex(digest().digest(content));
    }

    /** To be given a large file's content piece by piece. */
    public static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
