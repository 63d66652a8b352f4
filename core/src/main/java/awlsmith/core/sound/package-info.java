/** What can be measured of a clip's sound. */
package awlsmith.core.sound;
