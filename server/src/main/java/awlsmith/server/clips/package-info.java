/** Clips: footage on the shelf. Others use Clips, ClipView and the events. */
@NullMarked
package awlsmith.server.clips;

import org.jspecify.annotations.NullMarked;
