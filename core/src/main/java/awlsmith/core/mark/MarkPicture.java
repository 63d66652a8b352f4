package awlsmith.core.mark;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A small picture with transparency, to be laid over others.
 *
 * @param colours R', G', B' weighed by opacity, 0..1
 * @param opacity 0 (clear) to 1
 */
public record MarkPicture(List<Plane> colours, Plane opacity) {
    /** Pixels on a side. */
    public static final int LARGEST = 4096;

    private static final int SAMPLES = 4;
    private static final int LONGEST_HEADER = 200;

    public MarkPicture {
        colours = List.copyOf(colours);
    }

    public int width() {
        return opacity.width();
    }

    public int height() {
        return opacity.height();
    }

    /**
     * Out of a portable arbitrary map: RGB_ALPHA, 8 bits, straight. Source: the pam(5) page of Netpbm.
     *
     * @throws IllegalArgumentException with a sentence when it is none
     */
    public static MarkPicture read(byte[] pam) {
        String header = new String(pam, 0, Math.min(pam.length, LONGEST_HEADER), StandardCharsets.ISO_8859_1);
        int end = header.indexOf("ENDHDR\n");
        if (!header.startsWith("P7\n") || end < 0) {
            throw new IllegalArgumentException("it is no picture; add a PNG file");
        }
        int width = number(header, "WIDTH");
        int height = number(header, "HEIGHT");
        if (number(header, "DEPTH") != SAMPLES || number(header, "MAXVAL") != 255) {
            throw new IllegalArgumentException("a mark has red, green, blue and opacity of 8 bits each");
        }
        if (width < 1 || height < 1 || width > LARGEST || height > LARGEST) {
            throw new IllegalArgumentException(
                    "it has " + width + "x" + height + " pixels; a mark has 1 to " + LARGEST + " on a side");
        }
        int at = end + "ENDHDR\n".length();
        if (pam.length - at != (long) SAMPLES * width * height) {
            throw new IllegalArgumentException("it is cut short, or longer than it says");
        }
        var colours = new ArrayList<Plane>();
        for (int c = 0; c < 3; c++) {
            colours.add(Plane.of(width, height));
        }
        Plane opacity = Plane.of(width, height);
        for (int i = 0; i < width * height; i++) {
            float a = (pam[at + SAMPLES * i + 3] & 0xff) / 255f;
            opacity.data()[i] = a;
            for (int c = 0; c < 3; c++) {
                colours.get(c).data()[i] = a * (pam[at + SAMPLES * i + c] & 0xff) / 255f;
            }
        }
        return new MarkPicture(colours, opacity);
    }

    private static int number(String header, String key) {
        for (String line : header.split("\n")) {
            if (line.toUpperCase(Locale.ROOT).startsWith(key + " ")) {
                String value = line.substring(key.length()).strip();
                if (value.matches("\\d{1,9}")) {
                    return Integer.parseInt(value);
                }
            }
        }
        throw new IllegalArgumentException("its header does not tell " + key);
    }

    /** A picture written so. @param rgba red, green, blue, opacity of every pixel, row by row */
    public static byte[] write(int width, int height, byte[] rgba) {
        byte[] header = ("P7\nWIDTH " + width + "\nHEIGHT " + height
                        + "\nDEPTH 4\nMAXVAL 255\nTUPLTYPE RGB_ALPHA\nENDHDR\n")
                .getBytes(StandardCharsets.ISO_8859_1);
        byte[] all = new byte[header.length + rgba.length];
        System.arraycopy(header, 0, all, 0, header.length);
        System.arraycopy(rgba, 0, all, header.length, rgba.length);
        return all;
    }

    /** The same in another size; no haloes: none of its colours comes out brighter than it is opaque. */
    public MarkPicture at(int newWidth, int newHeight) {
        if (newWidth == width() && newHeight == height()) {
            return this;
        }
        var resampler = new PlaneResampler(
                TapTable.forAxis(Kernel.MITCHELL, width(), newWidth, 1, 0),
                TapTable.forAxis(Kernel.MITCHELL, height(), newHeight, 1, 0));
        Plane newOpacity = resampled(resampler, opacity, newWidth, newHeight);
        float[] a = newOpacity.data();
        for (int i = 0; i < a.length; i++) {
            a[i] = Math.clamp(a[i], 0f, 1f);
        }
        var all = new ArrayList<Plane>();
        for (Plane colour : colours) {
            Plane made = resampled(resampler, colour, newWidth, newHeight);
            float[] c = made.data();
            for (int i = 0; i < c.length; i++) {
                c[i] = Math.clamp(c[i], 0f, a[i]);
            }
            all.add(made);
        }
        return new MarkPicture(all, newOpacity);
    }

    private static Plane resampled(PlaneResampler resampler, Plane from, int width, int height) {
        Plane to = Plane.of(width, height);
        resampler.resample(from, 0, 0, to, 0, 0, Work.alone());
        return to;
    }

    /** The same as light as a display of high range shows white. @param white code of that, 0..1 */
    MarkPicture dimmed(float white) {
        if (white == 1) {
            return this;
        }
        var all = new ArrayList<Plane>();
        for (Plane colour : colours) {
            Plane made = Plane.of(width(), height());
            for (int i = 0; i < made.data().length; i++) {
                made.data()[i] = white * colour.data()[i];
            }
            all.add(made);
        }
        return new MarkPicture(all, opacity);
    }
}
