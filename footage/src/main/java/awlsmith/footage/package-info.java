/** Material to measure and train on: pictures and clips from Debian packages, made worse in declared ways. */
package awlsmith.footage;
