package awlsmith.demo.scene;

/**
 * Where one looks from.
 *
 * @param x right, @param y up, @param z away: the eye's place in metres
 * @param pan radians to the right
 * @param tilt radians upward
 * @param roll radians clockwise
 * @param view half the picture's width at distance 1
 */
record Camera(double x, double y, double z, double pan, double tilt, double roll, double view) {}
