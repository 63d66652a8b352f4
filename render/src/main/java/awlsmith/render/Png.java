package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferByte;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.MemoryCacheImageOutputStream;

/** Pictures for the browser: lossless, packed fast rather than small. */
public final class Png {
    /** 1 is no packing, 0 the tightest; this end of the scale is several times as fast and little larger. */
    private static final float PACKING = 0.9f;

    private Png() {}

    public static byte[] encode(ScreenPicture picture) {
        BufferedImage image = image(picture);
        ImageWriter writer = ImageIO.getImageWritersByFormatName("png").next();
        var bytes = new ByteArrayOutputStream(picture.rgb().length / 2);
        try (var out = new MemoryCacheImageOutputStream(bytes)) {
            ImageWriteParam how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality(PACKING);
            writer.setOutput(out);
            writer.write(null, new IIOImage(image, null, null), how);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            writer.dispose();
        }
        return bytes.toByteArray();
    }

    static BufferedImage image(ScreenPicture picture) {
        var image = new BufferedImage(picture.width(), picture.height(), BufferedImage.TYPE_3BYTE_BGR);
        byte[] bgr = ((DataBufferByte) image.getRaster().getDataBuffer()).getData();
        byte[] rgb = picture.rgb();
        for (int i = 0; i < bgr.length; i += 3) {
            bgr[i] = rgb[i + 2];
            bgr[i + 1] = rgb[i + 1];
            bgr[i + 2] = rgb[i];
        }
        return image;
    }
}
