/** Examining clips: a job that looks at every frame once, its findings and its curves. */
@NullMarked
package awlsmith.server.examine;

import org.jspecify.annotations.NullMarked;
