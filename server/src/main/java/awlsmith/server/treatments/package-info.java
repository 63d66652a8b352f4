/** Recipes on clips, with what is known of each clip. */
@NullMarked
package awlsmith.server.treatments;

import org.jspecify.annotations.NullMarked;
