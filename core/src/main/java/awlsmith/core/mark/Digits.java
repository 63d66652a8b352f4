package awlsmith.core.mark;

import awlsmith.core.colour.ScreenPicture;

/** Figures of times, five by seven dots each, so that no font has to be there. */
public final class Digits {
    /** Dots of one across, with those that keep it from the next. */
    public static final int WIDE = 6;

    public static final int HIGH = 7;

    private static final String KNOWN = "0123456789:;.";

    /** Rows from the top, five dots each, the leftmost in the highest bit. */
    private static final int[][] DOTS = {
        {0b01110, 0b10001, 0b10011, 0b10101, 0b11001, 0b10001, 0b01110},
        {0b00100, 0b01100, 0b00100, 0b00100, 0b00100, 0b00100, 0b01110},
        {0b01110, 0b10001, 0b00001, 0b00110, 0b01000, 0b10000, 0b11111},
        {0b01110, 0b10001, 0b00001, 0b00110, 0b00001, 0b10001, 0b01110},
        {0b00010, 0b00110, 0b01010, 0b10010, 0b11111, 0b00010, 0b00010},
        {0b11111, 0b10000, 0b11110, 0b00001, 0b00001, 0b10001, 0b01110},
        {0b00110, 0b01000, 0b10000, 0b11110, 0b10001, 0b10001, 0b01110},
        {0b11111, 0b00001, 0b00010, 0b00010, 0b00100, 0b00100, 0b00100},
        {0b01110, 0b10001, 0b10001, 0b01110, 0b10001, 0b10001, 0b01110},
        {0b01110, 0b10001, 0b10001, 0b01111, 0b00001, 0b00010, 0b01100},
        {0b00000, 0b00100, 0b00100, 0b00000, 0b00100, 0b00100, 0b00000},
        {0b00000, 0b00100, 0b00100, 0b00000, 0b00100, 0b00100, 0b01000},
        {0b00000, 0b00000, 0b00000, 0b00000, 0b00000, 0b01100, 0b01100},
    };

    private Digits() {}

    /**
     * Draws figures, colons, semicolons and dots; of other letters their place stays empty.
     *
     * @param x of the left edge; @param y of the upper edge; what lies beyond the picture is left out
     * @param dot pixels on a side of one dot
     * @param light of it, 0..255
     */
    public static void draw(ScreenPicture on, int x, int y, int dot, String text, int light) {
        for (int n = 0; n < text.length(); n++) {
            int which = KNOWN.indexOf(text.charAt(n));
            for (int row = 0; which >= 0 && row < HIGH; row++) {
                for (int column = 0; column < WIDE - 1; column++) {
                    if ((DOTS[which][row] >> WIDE - 2 - column & 1) == 1) {
                        square(on, x + (n * WIDE + column) * dot, y + row * dot, dot, light);
                    }
                }
            }
        }
    }

    private static void square(ScreenPicture on, int left, int top, int size, int light) {
        for (int y = Math.max(0, top); y < Math.min(on.height(), top + size); y++) {
            for (int x = Math.max(0, left); x < Math.min(on.width(), left + size); x++) {
                int at = 3 * (y * on.width() + x);
                on.rgb()[at] = on.rgb()[at + 1] = on.rgb()[at + 2] = (byte) light;
            }
        }
    }
}
