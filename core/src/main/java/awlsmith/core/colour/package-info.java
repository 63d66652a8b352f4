/** Between luma with chroma and RGB, and between plane layouts. */
package awlsmith.core.colour;
