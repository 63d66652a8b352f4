/** What is set for everybody. */
@NullMarked
package awlsmith.server.settings;

import org.jspecify.annotations.NullMarked;
