/** Motion between two pictures. */
package awlsmith.core.motion;
