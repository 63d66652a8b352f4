package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Deliverable;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Numbered pictures: read back, and put into one archive. */
public final class PictureFiles {
    /** One moment for all: the same pictures make the same archive. */
    private static final LocalDateTime TIME = LocalDateTime.of(2000, 1, 1, 0, 0);

    private static final int BUFFER = 1 << 16;

    private PictureFiles() {}

    /** Of their names, without its dot. */
    public static String ending(Deliverable deliverable) {
        String id = deliverable.codec().id();
        return id.equals("jpeg") ? "jpg" : id;
    }

    /**
     * Decodes them all.
     *
     * @param files that {@link FinalEncoding#pictures} wrote
     * @param rate frames a second that they stand for
     */
    public static ReadBack.Facts readBack(List<Path> files, Rational rate, Cancel cancel) {
        if (files.isEmpty()) {
            throw new MediaException("no picture was written; start the render again");
        }
        Path first = files.getFirst();
        String name = first.getFileName().toString();
        MediaInfo info = Prober.picture(first, name.substring(name.lastIndexOf('.') + 1));
        var video = info.video();
        var told = new MediaInfo.Video(
                video.index(),
                video.codec(),
                video.profile(),
                video.format(),
                video.decodeAs(),
                video.clear(),
                video.quarters(),
                rate,
                true,
                rate.inverse(),
                Rational.ZERO,
                0,
                files.size());
        var errors = new AtomicInteger();
        int frames = decoded(files, errors, cancel);
        var times = new long[frames];
        for (int n = 0; n < frames; n++) {
            times[n] = n;
        }
        var index = new FrameIndex(
                rate.inverse(),
                times,
                new int[0],
                errors.get(),
                new int[0],
                0,
                false,
                FrameIndex.AlphaSeen.NOT_LOOKED_FOR);
        var pictures = new MediaInfo(
                first,
                info.container(),
                files.stream().mapToLong(file -> file.toFile().length()).sum(),
                Rational.ZERO,
                Optional.of(rate.inverse().times(files.size())),
                0,
                told,
                List.of(),
                MediaInfo.Extras.NONE);
        return new ReadBack.Facts(pictures, index, List.of());
    }

    private static int decoded(List<Path> files, AtomicInteger errors, Cancel cancel) {
        Path first = files.getFirst();
        String name = first.getFileName().toString();
        String kind = name.substring(name.lastIndexOf('.') + 1);
        // one by itself is opened, not looked for: who decodes may read what is ours alone, but is not told that it is
        // there
        List<String> input = files.size() == 1
                ? List.of("-f", Prober.pipe(kind), "-i", "file:" + name)
                : List.of("-f", "image2", "-start_number", "0", "-i", "file:p%07d." + kind);
        var arguments = new ArrayList<String>(List.of(
                "-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error", "-protocol_whitelist", "file"));
        arguments.addAll(input);
        arguments.addAll(List.of("-f", "framecrc", "pipe:1"));
        var count = new AtomicInteger();
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.coding(first.getParent()), line -> {
                    if (line.contains("[error]")) {
                        errors.incrementAndGet();
                    }
                });
                var lines = new BufferedReader(new InputStreamReader(child.output(), StandardCharsets.UTF_8))) {
            var counting = Thread.ofVirtual()
                    .start(() -> lines.lines()
                            .filter(line -> !line.startsWith("#"))
                            .forEach(line -> count.incrementAndGet()));
            child.finish("reading the pictures back", cancel);
            counting.join();
        } catch (IOException e) {
            throw new MediaException("the pictures could not be read back: " + e.getMessage(), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
        return count.get();
    }

    /**
     * Moves pictures into one archive, one after another, so that the disk never holds all of them twice. They stay as they are (PKWARE
     * APPNOTE, method 0): they are packed already.
     *
     * @param name that all begin with
     * @param first number
     */
    public static void pack(List<Path> files, String name, long first, Path archive, Cancel cancel) throws IOException {
        var buffer = new byte[BUFFER];
        try (var out = new ZipOutputStream(Files.newOutputStream(archive), StandardCharsets.UTF_8)) {
            out.setMethod(ZipOutputStream.STORED);
            long number = first;
            for (Path file : files) {
                cancel.check();
                String old = file.getFileName().toString();
                var entry = new ZipEntry("%s_%06d%s".formatted(name, number++, old.substring(old.lastIndexOf('.'))));
                entry.setTimeLocal(TIME);
                entry.setSize(Files.size(file));
                entry.setCrc(crc(file, buffer));
                out.putNextEntry(entry);
                Files.copy(file, out);
                out.closeEntry();
                Files.delete(file);
            }
        }
    }

    private static long crc(Path file, byte[] buffer) throws IOException {
        var crc = new CRC32();
        try (var in = Files.newInputStream(file)) {
            for (int read = in.read(buffer); read > 0; read = in.read(buffer)) {
                crc.update(buffer, 0, read);
            }
        }
        return crc.getValue();
    }
}
