/** Refusals and how they reach the user. */
@NullMarked
package awlsmith.server.problem;

import org.jspecify.annotations.NullMarked;
