/** Trained models as resources, their cards, and ONNX Runtime behind {@link awlsmith.core.upscale.NetRunner}. */
package awlsmith.nets;
