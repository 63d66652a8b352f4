package awlsmith.core.recipe;

import java.util.regex.Pattern;

/**
 * A file that a step works with, by what is in it: a recipe stays true wherever it goes, and another file of the same name is
 * another one.
 *
 * @param name for people, the last part of a path
 * @param hash SHA-256 of the content, 64 hexadecimal digits
 */
public record FileRef(String name, String hash) {
    private static final Pattern WRITTEN = Pattern.compile("([^#/\\\\\\p{Cntrl}]{1,100})#([0-9a-f]{64})");
    private static final Pattern UNSAFE = Pattern.compile("[^\\p{L}\\p{N}._()-]");
    private static final int LONGEST = 80;

    /** @param name of a file, perhaps with its path; what could hurt anywhere becomes an underscore */
    public static FileRef of(String name, byte[] content) {
        String last = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
        String clean = UNSAFE.matcher(last).replaceAll("_");
        String brief = clean.length() > LONGEST ? clean.substring(clean.length() - LONGEST) : clean;
        return new FileRef(brief.isEmpty() ? "_" : brief, Sha256.hex(content));
    }

    /** @throws IllegalArgumentException when it is not written as {@link #toString} does */
    public static FileRef parse(String text) {
        var written = WRITTEN.matcher(text.trim());
        if (!written.matches()) {
            throw new IllegalArgumentException("not the name of a file with the hash of its content");
        }
        return new FileRef(written.group(1), written.group(2));
    }

    /** {@code name#hash}. */
    @Override
    public String toString() {
        return name + "#" + hash;
    }
}
