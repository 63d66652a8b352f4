/** Transparency: a plane of its own that goes along with the picture, and what its colour means beside it. */
package awlsmith.core.alpha;
