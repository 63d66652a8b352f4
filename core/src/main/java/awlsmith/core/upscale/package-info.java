/** Enlarging with trained models: the plain enlargement of the resampler, corrected by a net. */
package awlsmith.core.upscale;
