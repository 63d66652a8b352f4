/** Lookup tables that recipes work with. */
@NullMarked
package awlsmith.server.tables;

import org.jspecify.annotations.NullMarked;
