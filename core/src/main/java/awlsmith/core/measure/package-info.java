/** Figures for how far two pictures are apart. */
package awlsmith.core.measure;
