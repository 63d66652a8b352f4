package awlsmith.demo.scene;

/** A piece of footage before anything spoils it: a world and a camera for every moment. */
public interface Shot {
    /** What there is to see at this many seconds. */
    World world(double seconds);

    /** Where the camera is at this many seconds. */
    Camera camera(double seconds);

    /** Seconds from the first row of a frame to the last, 0 for a shutter that opens everywhere at once. */
    default double rolling() {
        return 0;
    }

    double seconds();
}
