/** The kinds of step there are. */
@NullMarked
package awlsmith.server.steps;

import org.jspecify.annotations.NullMarked;
