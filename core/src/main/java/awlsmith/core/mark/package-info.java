/** Pictures laid over the picture: marks. */
package awlsmith.core.mark;
