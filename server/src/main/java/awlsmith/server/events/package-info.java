/** What changes, told to every open page. */
@NullMarked
package awlsmith.server.events;

import org.jspecify.annotations.NullMarked;
