/** Resumable uploads by the open tus protocol, version 1.0.0. */
@NullMarked
package awlsmith.server.uploads;

import org.jspecify.annotations.NullMarked;
