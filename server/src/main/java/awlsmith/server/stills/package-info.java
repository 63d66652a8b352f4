/** Stills: single frames to look at, source or treated. */
@NullMarked
package awlsmith.server.stills;

import org.jspecify.annotations.NullMarked;
