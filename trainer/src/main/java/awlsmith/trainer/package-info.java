/** Trains the nets in plain Java and writes them as ONNX files with their cards. Never part of the server. */
package awlsmith.trainer;
