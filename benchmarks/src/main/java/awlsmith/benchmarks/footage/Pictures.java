package awlsmith.benchmarks.footage;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
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
}
