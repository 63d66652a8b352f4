/** The models: their cards and how fast they are on this machine. */
@NullMarked
package awlsmith.server.models;

import org.jspecify.annotations.NullMarked;
