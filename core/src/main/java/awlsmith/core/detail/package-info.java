/** Sharpness, texture and contrast: what there is of them, made firmer, calmed, or given back. */
package awlsmith.core.detail;
