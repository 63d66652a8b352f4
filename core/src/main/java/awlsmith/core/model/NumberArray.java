package awlsmith.core.model;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

/**
 * One-dimensional arrays of 32-bit floats in the open NPY format, version 1.0.
 *
 * <p>Source: NumPy documentation, numpy.lib.format: magic, version, header length, a header written as a Python literal
 * padded to 64 bytes, then the numbers.
 */
public final class NumberArray {
    private static final byte[] MAGIC = {(byte) 0x93, 'N', 'U', 'M', 'P', 'Y', 1, 0};

    private NumberArray() {}

    /** The bytes of a file that holds these numbers. */
    public static byte[] write(float[] values) {
        String header = "{'descr': '<f4', 'fortran_order': False, 'shape': (" + values.length + ",), }";
        int padded = Math.ceilDiv(MAGIC.length + 2 + header.length() + 1, 64) * 64 - MAGIC.length - 2;
        ByteBuffer out = ByteBuffer.allocate(MAGIC.length + 2 + padded + values.length * Float.BYTES)
                .order(ByteOrder.LITTLE_ENDIAN);
        out.put(MAGIC).putShort((short) padded);
        out.put((header + " ".repeat(padded - header.length() - 1) + "\n").getBytes(StandardCharsets.US_ASCII));
        for (float v : values) {
            out.putFloat(v);
        }
        return out.array();
    }

    /** @throws IllegalArgumentException when the bytes are not such an array */
    public static float[] read(byte[] file) {
        ByteBuffer in = ByteBuffer.wrap(file).order(ByteOrder.LITTLE_ENDIAN);
        byte[] magic = new byte[MAGIC.length];
        if (file.length < MAGIC.length + 2) {
            throw new IllegalArgumentException("not an NPY file: too short");
        }
        in.get(magic);
        if (!java.util.Arrays.equals(magic, MAGIC)) {
            throw new IllegalArgumentException("not an NPY file of version 1.0");
        }
        int length = in.getShort() & 0xffff;
        int numbers = file.length - MAGIC.length - 2 - length;
        if (numbers < 0 || numbers % Float.BYTES != 0) {
            throw new IllegalArgumentException("the NPY file is cut short");
        }
        byte[] header = new byte[length];
        in.get(header);
        float[] values = new float[numbers / Float.BYTES];
        String text = new String(header, StandardCharsets.US_ASCII);
        if (!text.contains("'<f4'") || !text.contains("(" + values.length + ",)")) {
            throw new IllegalArgumentException(
                    "the NPY file does not hold " + values.length + " floats: " + text.strip());
        }
        in.asFloatBuffer().get(values);
        return values;
    }
}
