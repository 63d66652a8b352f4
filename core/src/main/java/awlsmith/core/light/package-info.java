/** The light of frames, made even along time. */
package awlsmith.core.light;
