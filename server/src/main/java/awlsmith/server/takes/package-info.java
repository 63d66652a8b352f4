/** Takes: one recipe on one clip. */
@NullMarked
package awlsmith.server.takes;

import org.jspecify.annotations.NullMarked;
