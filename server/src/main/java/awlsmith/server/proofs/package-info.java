/** Proofs: short spans rendered in the background, source and treated in exact step. */
@NullMarked
package awlsmith.server.proofs;

import org.jspecify.annotations.NullMarked;
