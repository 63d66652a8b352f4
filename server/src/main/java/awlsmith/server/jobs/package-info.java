/** Work in the background: declared, owned, stopped, tried again, in one form for all of it. */
@NullMarked
package awlsmith.server.jobs;

import org.jspecify.annotations.NullMarked;
