/** Source held against treated: figures, scopes, single pixels, telling places. */
@NullMarked
package awlsmith.server.compare;

import org.jspecify.annotations.NullMarked;
