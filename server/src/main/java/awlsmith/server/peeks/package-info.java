/** Small pictures to look along a clip quickly: a job that makes them, and where they are fetched. */
@NullMarked
package awlsmith.server.peeks;

import org.jspecify.annotations.NullMarked;
