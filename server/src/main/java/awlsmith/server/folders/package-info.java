/** Folders of this machine that the operator allows footage to be linked from. */
@NullMarked
package awlsmith.server.folders;

import org.jspecify.annotations.NullMarked;
