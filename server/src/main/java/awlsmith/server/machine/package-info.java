/** The machine the server works on. */
@NullMarked
package awlsmith.server.machine;

import org.jspecify.annotations.NullMarked;
