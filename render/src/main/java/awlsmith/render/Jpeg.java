package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;

/** Pictures for the browser with loss, in a tenth of the bytes: for a first look, never for judging. */
public final class Jpeg {
    private static final float QUALITY = 0.75f;

    private static final float FINE = 0.93f;

    private Jpeg() {}

    public static byte[] encode(ScreenPicture picture) {
        return encode(Png.image(picture));
    }

    /** For keeping: nothing is seen of the loss. */
    static byte[] fine(ScreenPicture picture) {
        return ImageBytes.of(Png.image(picture), "jpeg", FINE, picture.rgb().length / 4);
    }

    public static byte[] ofPng(byte[] png) {
        try {
            return encode(ImageIO.read(new ByteArrayInputStream(png)));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static byte[] encode(BufferedImage image) {
        return ImageBytes.of(image, "jpeg", QUALITY, image.getWidth() * image.getHeight() / 8);
    }
}
