/** Folders whose files are taken in, treated and sent out by themselves. */
@NullMarked
package awlsmith.server.watch;

import org.jspecify.annotations.NullMarked;
