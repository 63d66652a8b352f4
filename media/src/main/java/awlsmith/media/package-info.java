/**
 * Reading and writing video files through FFmpeg and ffprobe, run as separate processes with limits. Nothing a file says
 * reaches a command line unchecked.
 */
package awlsmith.media;
