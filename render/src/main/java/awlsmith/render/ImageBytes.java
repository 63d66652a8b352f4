package awlsmith.render;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.MemoryCacheImageOutputStream;

/** An image as the bytes of a file. */
final class ImageBytes {
    private ImageBytes() {}

    /**
     * @param format that the JDK writes
     * @param quality 0..1, as the format means it
     * @param about how many bytes it may become
     */
    static byte[] of(BufferedImage image, String format, float quality, int about) {
        ImageWriter writer = ImageIO.getImageWritersByFormatName(format).next();
        var bytes = new ByteArrayOutputStream(about);
        try (var out = new MemoryCacheImageOutputStream(bytes)) {
            ImageWriteParam how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality(quality);
            writer.setOutput(out);
            writer.write(null, new IIOImage(image, null, null), how);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            writer.dispose();
        }
        return bytes.toByteArray();
    }
}
