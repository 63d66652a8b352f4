/** Other machines that make parts of renders: who they are, what they get, what they bring. */
@NullMarked
package awlsmith.server.work;

import org.jspecify.annotations.NullMarked;
