/** Where large data lies. */
@NullMarked
package awlsmith.server.storage;

import org.jspecify.annotations.NullMarked;
