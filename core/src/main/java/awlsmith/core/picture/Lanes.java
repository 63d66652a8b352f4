package awlsmith.core.picture;

import jdk.incubator.vector.FloatVector;

/** Which form of the hot kernels runs; chosen once when the program starts. */
public enum Lanes {
    SCALAR,
    VECTOR;

    private static final Lanes CHOSEN = choose(System.getProperty("awlsmith.lanes", "auto"));

    /** By the property {@code awlsmith.lanes}, else vectors where this Java has them. */
    public static Lanes chosen() {
        return CHOSEN;
    }

    /** What was chosen and why, in a sentence for the start-up log. */
    public static String account() {
        return CHOSEN == VECTOR
                ? "vector kernels, " + FloatVector.SPECIES_PREFERRED.length() + " floats at a time"
                : "scalar kernels: the JDK's vector module is not loaded, or was turned off by -Dawlsmith.lanes=scalar";
    }

    private static Lanes choose(String wish) {
        boolean loaded = ModuleLayer.boot().findModule("jdk.incubator.vector").isPresent();
        return switch (wish) {
            case "auto" -> loaded ? VECTOR : SCALAR;
            case "scalar" -> SCALAR;
            case "vector" -> {
                if (!loaded) {
                    throw new IllegalStateException(
                            "awlsmith.lanes=vector needs the JVM flag --add-modules jdk.incubator.vector");
                }
                yield VECTOR;
            }
            default ->
                throw new IllegalArgumentException("awlsmith.lanes is " + wish + ", must be auto, scalar or vector");
        };
    }
}
