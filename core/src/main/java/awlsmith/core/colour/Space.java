package awlsmith.core.colour;

/** What a step's samples mean to it; a treatment brings pictures there and back. */
public enum Space {
    /** As the pictures are coded: luma and chroma or R'G'B', through their transfer curve. */
    CODED,
    /** R'G'B' through the transfer curve, every plane at full size; of grey pictures their one plane. */
    RGB,
    /** Red, green and blue in proportion to light, at full size; of grey pictures their one plane. */
    LIGHT
}
