package awlsmith.footage;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import javax.imageio.ImageIO;

/** Reads pictures as luma and reduces them. */
public final class Pictures {
    private Pictures() {}

    /** Luma 0..1 of a picture file, gamma as stored, with the weights of ITU-R BT.709-6, item 3.2. */
    public static Plane luma(Path file) throws IOException {
        BufferedImage image = ImageIO.read(file.toFile());
        if (image == null) {
            throw new IOException(file.getFileName() + " is not a picture that can be read");
        }
        return luma(image);
    }

    /** As {@link #luma(Path)}, of a picture in memory. */
    public static Plane luma(BufferedImage image) {
        Plane luma = Plane.of(image.getWidth(), image.getHeight());
        int[] row = new int[image.getWidth()];
        for (int y = 0; y < image.getHeight(); y++) {
            image.getRGB(0, y, row.length, 1, row, 0, row.length);
            int at = luma.row(y);
            for (int x = 0; x < row.length; x++) {
                int rgb = row[x];
                luma.data()[at + x] =
                        (0.2126f * (rgb >> 16 & 255) + 0.7152f * (rgb >> 8 & 255) + 0.0722f * (rgb & 255)) / 255;
            }
        }
        return luma;
    }

    /**
     * A picture file as 4:2:0 with chroma in the middle, ITU-R BT.709-6 items 3.2 and 3.3, sides multiples of 4: luma 0..1,
     * colour differences -0.5..0.5.
     */
    public static Frame colour(Path file) throws IOException {
        BufferedImage image = ImageIO.read(file.toFile());
        if (image == null) {
            throw new IOException(file.getFileName() + " is not a picture that can be read");
        }
        int width = image.getWidth() / 4 * 4;
        int height = image.getHeight() / 4 * 4;
        Plane whole = luma(image);
        Plane luma = new Plane(whole.window(new Region(0, 0, width, height)).packed(), 0, width, height, width);
        Plane blue = Plane.of(width / 2, height / 2);
        Plane red = Plane.of(width / 2, height / 2);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int rgb = image.getRGB(x, y);
                int at = y / 2 * (width / 2) + x / 2;
                blue.data()[at] += ((rgb & 255) / 255f - luma.at(x, y)) / 1.8556f / 4;
                red.data()[at] += ((rgb >> 16 & 255) / 255f - luma.at(x, y)) / 1.5748f / 4;
            }
        }
        var format = new Format(width, height, Chroma.S420, Siting.CENTRE, 8, ColourTags.UNKNOWN, Rational.ONE);
        return new Frame(format, format.whole(), List.of(luma, blue, red), 0, Rational.ZERO);
    }

    /** A picture at another size, anti-aliased when smaller. */
    public static Plane resized(Plane picture, int width, int height, Kernel kernel) {
        Plane out = Plane.of(width, height);
        new PlaneResampler(
                        TapTable.forAxis(kernel, picture.width(), width, 1, 0),
                        TapTable.forAxis(kernel, picture.height(), height, 1, 0))
                .resample(picture, 0, 0, out, 0, 0, Work.alone());
        return out;
    }

    /** Rounded in place to the 220 steps that eight-bit video has from black to white (ITU-R BT.709-6, item 4.6). */
    public static Plane eightBits(Plane p) {
        float[] data = p.data();
        for (int i = 0; i < data.length; i++) {
            data[i] = Math.round(Math.clamp(data[i], 0, 1) * 219) / 219f;
        }
        return p;
    }

    /** The same with the room that such video has below black and above white: codes 1 to 254. */
    public static Plane eightBitsWithRoom(Plane p) {
        float[] data = p.data();
        for (int i = 0; i < data.length; i++) {
            data[i] = Math.clamp(Math.round(data[i] * 219), 1 - 16, 254 - 16) / 219f;
        }
        return p;
    }
}
