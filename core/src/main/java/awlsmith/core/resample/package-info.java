/** Kernels, their tap tables and the passes that resample planes. */
package awlsmith.core.resample;
