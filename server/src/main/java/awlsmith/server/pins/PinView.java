package awlsmith.server.pins;

import java.util.UUID;

/**
 * A place in a clip.
 *
 * @param frame of the source
 * @param x left edge, y top edge, width and height in pixels of the source picture, turned as the take turns it; it may
 *     lie outside of what a take makes
 */
public record PinView(UUID id, UUID clipId, String name, int frame, double x, double y, double width, double height) {}
