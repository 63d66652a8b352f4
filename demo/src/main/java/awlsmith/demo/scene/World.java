package awlsmith.demo.scene;

import java.util.List;

/**
 * What there is at one moment.
 *
 * @param surfaces nearest first as seen from the camera
 * @param mirrored those worth seeing in the water, same order
 * @param sky behind everything
 * @param water the river, or null where none is in sight
 * @param foam places of broken water: {x, z, half length, half width}
 */
record World(List<Surface> surfaces, List<Surface> mirrored, Sky sky, Water water, List<double[]> foam) {}
