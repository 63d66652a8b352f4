package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferByte;

/** Pictures for the browser: lossless, packed fast rather than small. */
public final class Png {
    /** 1 is no packing, 0 the tightest; this end of the scale is several times as fast and little larger. */
    private static final float PACKING = 0.9f;

    private Png() {}

    public static byte[] encode(ScreenPicture picture) {
        return ImageBytes.of(image(picture), "png", PACKING, picture.rgb().length / 2);
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
