package awlsmith.trainer.run;

import ai.onnxruntime.OnnxTensor;
import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtSession;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Plane;
import java.nio.FloatBuffer;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** A written model file under ONNX Runtime, whole pictures at once. */
public final class OnnxRun implements NetRunner, AutoCloseable {
    private final OrtEnvironment environment = OrtEnvironment.getEnvironment();
    private final OrtSession session;

    public OnnxRun(Path model) throws OrtException {
        try (var options = new OrtSession.SessionOptions()) {
            session = environment.createSession(model.toString(), options);
        }
    }

    @Override
    public void run(List<Plane> frames, Plane correction) {
        Plane in = frames.getFirst();
        long[] dims = {1, frames.size(), in.height(), in.width()};
        try (var input = OnnxTensor.createTensor(environment, packed(frames), dims);
                var result = session.run(Map.of("frame", input))) {
            ((OnnxTensor) result.get(0)).getFloatBuffer().get(correction.data());
        } catch (OrtException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void close() throws OrtException {
        session.close();
    }

    /** Planes one after the other, without gaps. */
    public static FloatBuffer packed(List<Plane> planes) {
        FloatBuffer all = FloatBuffer.allocate(
                planes.size() * planes.getFirst().width() * planes.getFirst().height());
        planes.forEach(plane -> all.put(plane.packed()));
        return all.flip();
    }
}
