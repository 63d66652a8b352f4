package awlsmith.core.picture;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A frame's label in hours, minutes, seconds and frames (SMPTE ST 12-1). At 30000/1001 frames a second, and twice that, two
 * (four) numbers may be left out every minute but each tenth, so that labels keep step with the clock.
 *
 * @param frame counted from 00:00:00:00, dropped numbers not counted
 * @param count frames a second of the labels, a whole number
 * @param drop whether numbers are dropped
 */
public record TimeCode(long frame, int count, boolean drop) {
    private static final Pattern TEXT = Pattern.compile("(\\d{1,2}):(\\d{1,2}):(\\d{1,2})([:;.])(\\d{1,2})");

    public TimeCode {
        if (frame < 0 || count < 1 || (drop && count % 30 != 0)) {
            throw new IllegalArgumentException("frame is " + frame + " at " + count
                    + " a second; numbers are dropped at 30 and its multiples alone");
        }
    }

    /** @return empty when the text is no label at this rate, such as one of the dropped ones */
    public static Optional<TimeCode> parse(String text, Rational rate) {
        var found = TEXT.matcher(text.trim());
        int count = (int) Math.max(1, Math.round(rate.toDouble()));
        if (!found.matches()) {
            return Optional.empty();
        }
        int minutes = 60 * Integer.parseInt(found.group(1)) + Integer.parseInt(found.group(2));
        int seconds = Integer.parseInt(found.group(3));
        int frames = Integer.parseInt(found.group(5));
        boolean drop = !found.group(4).equals(":") && count % 30 == 0;
        int dropped = drop ? count / 15 : 0;
        if (Integer.parseInt(found.group(2)) > 59
                || seconds > 59
                || frames >= count
                || (seconds == 0 && frames < dropped && minutes % 10 != 0)) {
            return Optional.empty();
        }
        long number = (minutes * 60L + seconds) * count + frames - dropped * (long) (minutes - minutes / 10);
        return Optional.of(new TimeCode(number, count, drop));
    }

    /** So many frames later; a day follows on a day. */
    public TimeCode plus(long frames) {
        long day = 24 * 6 * inTenMinutes();
        return new TimeCode(Math.floorMod(frame + frames, day), count, drop);
    }

    private long inTenMinutes() {
        return 600L * count - (drop ? 9L * count / 15 : 0);
    }

    /** The same moment where so many times as many frames are counted. */
    public TimeCode times(int factor) {
        return new TimeCode(frame * factor, count * factor, drop);
    }

    /**
     * The same moment counted at another rate; of a frame's part of a second the label below.
     *
     * @param rate frames a second
     * @return empty where frames are not labelled so: rates are whole, or 1000/1001 of a whole one (SMPTE ST 12-1)
     */
    public Optional<TimeCode> at(Rational rate) {
        int other = (int) Math.max(1, Math.round(rate.toDouble()));
        boolean labelled = rate.equals(Rational.of(other)) || rate.equals(new Rational(1000L * other, 1001));
        if (!labelled || other > 99) {
            return Optional.empty();
        }
        if (other % count == 0) {
            return Optional.of(times(other / count));
        }
        String label = toString();
        long frames = Long.parseLong(label.substring(9)) * other / count;
        return parse(label.substring(0, 8) + String.format(Locale.ROOT, ":%02d", frames), rate);
    }

    /** {@code 01:02:03:04}, with {@code ;} before the frames where numbers are dropped. */
    @Override
    public String toString() {
        long n = frame;
        if (drop) {
            int dropped = count / 15;
            long rest = n % inTenMinutes();
            long minutes = rest < 60L * count ? 0 : (rest - 60L * count) / (60L * count - dropped) + 1;
            n += dropped * (9 * (n / inTenMinutes()) + minutes);
        }
        long seconds = n / count;
        return String.format(
                Locale.ROOT,
                "%02d:%02d:%02d%s%02d",
                seconds / 3600,
                seconds / 60 % 60,
                seconds % 60,
                drop ? ";" : ":",
                n % count);
    }
}
