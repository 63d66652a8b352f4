/** Pins: places of a clip to look at again and again. */
@NullMarked
package awlsmith.server.pins;

import org.jspecify.annotations.NullMarked;
