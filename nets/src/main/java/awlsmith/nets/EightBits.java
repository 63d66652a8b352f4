package awlsmith.nets;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * Whether nets are run in their eight-bit form. That is quicker only where the processor multiplies bytes and adds them up in
 * one instruction; elsewhere such instructions are put together from several, and some overflow.
 */
final class EightBits {
    /** {@code on} or {@code off} in place of what the processor says. */
    private static final String PROPERTY = "awlsmith.eight-bits";

    private static final List<String> INSTRUCTIONS = List.of("avx512_vnni", "avx_vnni");

    private EightBits() {}

    static boolean areQuick() {
        String asked = System.getProperty(PROPERTY, "");
        if (!asked.isEmpty()) {
            return asked.equals("on");
        }
        try {
            return isNamed(Files.readString(Path.of("/proc/cpuinfo")));
        } catch (IOException e) {
            return false;
        }
    }

    /** @param cpuinfo as Linux tells it; every core's line must name one of the instructions, the first stands for all */
    static boolean isNamed(String cpuinfo) {
        return cpuinfo.lines()
                .filter(line -> line.startsWith("flags"))
                .findFirst()
                .map(line -> List.of(line.split("\\s+")))
                .filter(flags -> INSTRUCTIONS.stream().anyMatch(flags::contains))
                .isPresent();
    }
}
