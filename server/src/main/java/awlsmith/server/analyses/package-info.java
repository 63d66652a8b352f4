/** Looks through whole clips that steps of a recipe wait for. */
@NullMarked
package awlsmith.server.analyses;

import org.jspecify.annotations.NullMarked;
