/** Puts the demo archive on the shelf. */
@NullMarked
package awlsmith.server.demo;

import org.jspecify.annotations.NullMarked;
