package awlsmith.core.condition;

import awlsmith.core.sound.SoundCheck;
import java.util.List;
import java.util.Locale;

/** What was heard, as findings. Where a level is bad is common practice, no source, but for the loudness of EBU R 128. */
final class SoundFindings {
    /** What EBU R 128 asks of programmes. */
    private static final double WANTED = -23;

    private SoundFindings() {}

    static List<Finding> of(SoundCheck.Result sound) {
        double off = Math.abs(sound.loudness() - WANTED);
        return List.of(
                new Finding(
                        "loudness",
                        "Loudness",
                        sound.loudness(),
                        "LUFS",
                        (off - 4) / 24,
                        sound.loudness() <= -70 ? "silent" : say("%.1f LUFS; EBU R 128 asks for -23", sound.loudness()),
                        "integrated loudness (ITU-R BS.1770-4)"),
                new Finding(
                        "floor",
                        "Sound noise",
                        sound.floor(),
                        "dB",
                        (sound.floor() + 62) / 90,
                        say("the quietest parts lie %.0f dB below full scale", -sound.floor()),
                        "level of the quietest tenth of pieces of 50 ms"),
                new Finding(
                        "hum",
                        "Hum",
                        sound.hum(),
                        "dB",
                        (sound.hum() - 4) / 24,
                        sound.hum() < 6
                                ? "no hum of the mains"
                                : say("hum of %d Hz mains stands out by %.0f dB", sound.mains(), sound.hum()),
                        "mains frequency and its multiples against what lies beside them (Goertzel 1958)"),
                new Finding(
                        "clipping",
                        "Clipped sound",
                        100 * sound.clipped(),
                        "% of samples",
                        100 * sound.clipped() / 0.4,
                        sound.clipped() == 0
                                ? "nothing cut off"
                                : say("%.2f %% of samples are cut off", 100 * sound.clipped()),
                        "three and more samples in a row at full scale"));
    }

    private static String say(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }
}
