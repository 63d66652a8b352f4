/** Turning, straightening and cutting pictures. */
package awlsmith.core.shape;
