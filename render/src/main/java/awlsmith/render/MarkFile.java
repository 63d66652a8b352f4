package awlsmith.render;

import awlsmith.core.mark.MarkPicture;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Iterator;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;

/** Pictures that are laid over others come as PNG, or whatever the JDK reads, and are kept as their bare samples, which the core reads. */
public final class MarkFile {
    private MarkFile() {}

    /** Whether content begins as PNG, JPEG or GIF do. Sources: PNG (ISO/IEC 15948) 5.2; JPEG (ITU-T T.81) B.1.1; GIF89a, 17. */
    public static boolean isPicture(byte[] content) {
        return begins(content, 0x89, 'P', 'N', 'G')
                || begins(content, 0xff, 0xd8, 0xff)
                || begins(content, 'G', 'I', 'F', '8');
    }

    private static boolean begins(byte[] content, int... with) {
        if (content.length < with.length) {
            return false;
        }
        for (int i = 0; i < with.length; i++) {
            if ((content[i] & 0xff) != with[i]) {
                return false;
            }
        }
        return true;
    }

    /**
     * The samples of a picture, as {@link MarkPicture#read} takes them.
     *
     * @throws IllegalArgumentException with a sentence when it cannot be read or is too large
     */
    public static byte[] samples(byte[] content) {
        try (var stream = ImageIO.createImageInputStream(new ByteArrayInputStream(content))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(stream);
            if (!readers.hasNext()) {
                throw new IllegalArgumentException("it is no picture that can be read; add a PNG file");
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(stream, true, true);
                // before any memory is asked for: a header of a few bytes may claim gigabytes
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                if (width > MarkPicture.LARGEST || height > MarkPicture.LARGEST) {
                    throw new IllegalArgumentException("it has " + width + "x" + height + " pixels; a mark has 1 to "
                            + MarkPicture.LARGEST + " on a side");
                }
                return MarkPicture.write(width, height, rgba(reader.read(0)));
            } finally {
                reader.dispose();
            }
        } catch (IOException | IndexOutOfBoundsException e) {
            throw new IllegalArgumentException("the picture is damaged or cut short; save it again", e);
        }
    }

    private static byte[] rgba(BufferedImage image) {
        int width = image.getWidth();
        int height = image.getHeight();
        int[] row = new int[width];
        byte[] rgba = new byte[4 * width * height];
        int at = 0;
        for (int y = 0; y < height; y++) {
            image.getRGB(0, y, width, 1, row, 0, width);
            for (int argb : row) {
                rgba[at++] = (byte) (argb >> 16);
                rgba[at++] = (byte) (argb >> 8);
                rgba[at++] = (byte) argb;
                rgba[at++] = (byte) (argb >> 24);
            }
        }
        return rgba;
    }
}
