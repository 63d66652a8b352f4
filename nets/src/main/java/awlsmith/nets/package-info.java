/** Trained models as resources, their cards, and ONNX Runtime behind {@link awlsmith.core.model.NetRunner}. */
package awlsmith.nets;
