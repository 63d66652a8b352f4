package awlsmith.server.examine;

import awlsmith.core.condition.Curves;
import awlsmith.core.condition.Dropped;
import awlsmith.core.condition.Fade;
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
import java.util.stream.Stream;

/** A clip's curves on disk: five rows of floats and lists of frame numbers; older files lack the last two. */
final class CurvesFile {
    private static final int MAGIC = 0x41574332;
    /** Of files written before fades and missing frames were noted. */
    private static final int MAGIC_WITHOUT = 0x41574331;

    private static final int FADE = 4;
    private static final int DROPPED = 3;

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
            for (List<Long> list :
                    List.of(curves.cuts(), curves.repeats(), curves.flashes(), fades(curves), dropped(curves))) {
                out.writeInt(list.size());
                for (long number : list) {
                    out.writeLong(number);
                }
            }
        }
        Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    }

    private static List<Long> fades(Curves curves) {
        return curves.fades().stream()
                .flatMap(fade -> Stream.of(fade.from(), fade.end(), fade.in() ? 1L : 0L, fade.black() ? 1L : 0L))
                .toList();
    }

    private static List<Long> dropped(Curves curves) {
        return curves.dropped().stream()
                .flatMap(one -> Stream.of(one.frame(), (long) one.lost(), one.byClock() ? 1L : 0L))
                .toList();
    }

    static Curves load(Path file) throws IOException {
        try (var in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file)))) {
            int magic = in.readInt();
            if (magic != MAGIC && magic != MAGIC_WITHOUT) {
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
            for (int k = 0; k < (magic == MAGIC ? 5 : 3); k++) {
                int size = in.readInt();
                var list = new ArrayList<Long>();
                for (int i = 0; i < size; i++) {
                    list.add(in.readLong());
                }
                lists.add(list);
            }
            var fades = new ArrayList<Fade>();
            var dropped = new ArrayList<Dropped>();
            if (magic == MAGIC) {
                List<Long> f = lists.get(3);
                for (int i = 0; i + FADE <= f.size(); i += FADE) {
                    fades.add(new Fade(f.get(i), f.get(i + 1), f.get(i + 2) == 1, f.get(i + 3) == 1));
                }
                List<Long> d = lists.get(4);
                for (int i = 0; i + DROPPED <= d.size(); i += DROPPED) {
                    dropped.add(new Dropped(d.get(i), d.get(i + 1).intValue(), d.get(i + 2) == 1));
                }
            }
            return new Curves(
                    rows[0],
                    rows[1],
                    rows[2],
                    rows[3],
                    rows[4],
                    lists.get(0),
                    lists.get(1),
                    lists.get(2),
                    fades,
                    dropped);
        }
    }
}
