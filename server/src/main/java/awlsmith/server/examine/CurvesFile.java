package awlsmith.server.examine;

import awlsmith.core.condition.Curves;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;

/** A clip's curves on disk: five rows of floats and three lists of frame numbers. */
final class CurvesFile {
    private static final int MAGIC = 0x41574331;

    private CurvesFile() {}

    static void save(Curves curves, Path file) throws IOException {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        try (var out = new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(part)))) {
            out.writeInt(MAGIC);
            out.writeInt(curves.light().length);
            for (float[] row :
                    new float[][] {curves.light(), curves.change(), curves.noise(), curves.shake(), curves.combed()}) {
                for (float v : row) {
                    out.writeFloat(v);
                }
            }
            for (List<Long> list : List.of(curves.cuts(), curves.repeats(), curves.flashes())) {
                out.writeInt(list.size());
                for (long number : list) {
                    out.writeLong(number);
                }
            }
        }
        Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    }

    static Curves load(Path file) throws IOException {
        try (var in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file)))) {
            if (in.readInt() != MAGIC) {
                throw new IOException("not a file of curves: " + file);
            }
            int count = in.readInt();
            float[][] rows = new float[5][count];
            for (float[] row : rows) {
                for (int i = 0; i < count; i++) {
                    row[i] = in.readFloat();
                }
            }
            var lists = new ArrayList<List<Long>>();
            for (int k = 0; k < 3; k++) {
                int size = in.readInt();
                var list = new ArrayList<Long>();
                for (int i = 0; i < size; i++) {
                    list.add(in.readLong());
                }
                lists.add(list);
            }
            return new Curves(rows[0], rows[1], rows[2], rows[3], rows[4], lists.get(0), lists.get(1), lists.get(2));
        }
    }
}
