/** Frames pulled through stages: ranges, regions, bands, stopping. */
package awlsmith.core.pipeline;
