/** Recipes kept under a name, to begin takes of other clips with. */
@NullMarked
package awlsmith.server.recipes;

import org.jspecify.annotations.NullMarked;
