/** Puts a recipe to work on a clip: decoding, treating and encoding at once, in segments that survive a restart. */
package awlsmith.render;
