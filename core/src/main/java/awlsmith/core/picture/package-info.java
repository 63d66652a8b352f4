/** Planes, frames, formats and exact time: what every other package computes on. */
package awlsmith.core.picture;
