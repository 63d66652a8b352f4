/** Noise found and taken out. */
package awlsmith.core.clean;
