package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.MemoryCacheImageOutputStream;

/** Pictures for the browser with loss, in a tenth of the bytes: for a first look, never for judging. */
public final class Jpeg {
    private static final float QUALITY = 0.75f;

    private Jpeg() {}

    public static byte[] encode(ScreenPicture picture) {
        return encode(Png.image(picture));
    }

    public static byte[] ofPng(byte[] png) {
        try {
            return encode(ImageIO.read(new ByteArrayInputStream(png)));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static byte[] encode(BufferedImage image) {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        var bytes = new ByteArrayOutputStream(image.getWidth() * image.getHeight() / 8);
        try (var out = new MemoryCacheImageOutputStream(bytes)) {
            ImageWriteParam how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality(QUALITY);
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
