/** Dispatch: renders waiting, running and sent out. */
@NullMarked
package awlsmith.server.dispatch;

import org.jspecify.annotations.NullMarked;
