/** What was lost of a clip, made up for. */
package awlsmith.core.mend;
