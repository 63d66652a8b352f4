package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.LongConsumer;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;

/** Puts single pictures into one file as they are, a frame each: nothing is decoded, so nothing is lost. */
public final class Gatherer {
    private static final Duration LIMIT = Duration.ofHours(4);
    private static final Pattern FRAME = Pattern.compile("frame=\\s*(\\d+)");

    /** A file that only calls itself a picture must not be taken for a list of other files. */
    private static final String KINDS = "concat,image2,png_pipe,jpeg_pipe,tiff_pipe,webp_pipe";

    private Gatherer() {}

    private record Size(int width, int height) {}

    /**
     * @param pictures in their order, all of one size
     * @param rate frames a second
     * @param scratch folder for the list of pictures
     * @param out Matroska file to write
     * @param progress hears how many are in
     * @throws MediaException when one is missing, of another size or no picture
     */
    public static void gather(
            List<Path> pictures, Rational rate, Path scratch, Path out, LongConsumer progress, Cancel cancel) {
        check(pictures, cancel);
        Path list = scratch.resolve("pictures.txt");
        try {
            Files.writeString(list, listing(pictures, rate));
        } catch (IOException e) {
            throw new MediaException("the list of pictures could not be written: " + e.getMessage(), e);
        }
        var arguments = new ArrayList<String>(List.of(
                "-hide_banner", "-nostdin", "-loglevel", "level+warning", "-nostats", "-progress", "pipe:2", "-y"));
        arguments.addAll(List.of("-protocol_whitelist", "file", "-format_whitelist", KINDS));
        arguments.addAll(List.of("-f", "concat", "-safe", "0", "-i", Input.url(list)));
        arguments.addAll(List.of("-map", "0:v:0", "-c:v", "copy", "-r", rate.toString(), "-f", "matroska"));
        arguments.add(Input.url(out));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.copying(LIMIT, bytes(pictures), out), line -> {
            var frame = FRAME.matcher(line);
            if (frame.find()) {
                progress.accept(Long.parseLong(frame.group(1)));
            }
        })) {
            child.finish("gathering the pictures", cancel);
        }
    }

    private static long bytes(List<Path> pictures) {
        return pictures.stream().mapToLong(picture -> picture.toFile().length()).sum();
    }

    /** One of another size would be stretched to the first one's without a word. */
    private static void check(List<Path> pictures, Cancel cancel) {
        if (pictures.isEmpty()) {
            throw new MediaException("there are no pictures to gather");
        }
        Optional<Size> first = Optional.empty();
        for (Path picture : pictures) {
            cancel.check();
            if (!Files.isRegularFile(picture)) {
                throw new MediaException(picture.getFileName() + " is gone; take the pictures in again");
            }
            Optional<Size> size = size(picture);
            if (first.isEmpty()) {
                first = size;
            } else if (size.isPresent() && !size.equals(first)) {
                throw new MediaException(String.format(
                        Locale.ROOT,
                        "%s is %dx%d, the pictures before it are %dx%d; the frames of a clip must all have one size",
                        picture.getFileName(),
                        size.get().width(),
                        size.get().height(),
                        first.get().width(),
                        first.get().height()));
            }
        }
    }

    /** From its header alone; empty for kinds that Java does not read. */
    private static Optional<Size> size(Path picture) {
        try (var in = ImageIO.createImageInputStream(picture.toFile())) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                return webp(picture);
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                return Optional.of(new Size(reader.getWidth(0), reader.getHeight(0)));
            } finally {
                reader.dispose();
            }
        } catch (MediaException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            throw new MediaException(
                    picture.getFileName() + " cannot be read as a picture; leave it out, or take it in again", e);
        }
    }

    /** Its size is not read; that it is a WebP picture at all is (RIFF container, developers.google.com/speed/webp). */
    private static Optional<Size> webp(Path picture) throws IOException {
        byte[] head;
        try (var in = Files.newInputStream(picture)) {
            head = in.readNBytes(12);
        }
        String text = new String(head, StandardCharsets.ISO_8859_1);
        if (!text.startsWith("RIFF") || !text.endsWith("WEBP")) {
            throw new MediaException(picture.getFileName() + " is no picture, whatever its name says; leave it out");
        }
        return Optional.empty();
    }

    private static String listing(List<Path> pictures, Rational rate) {
        String seconds = String.format(Locale.ROOT, "%.9f", rate.inverse().toDouble());
        var list = new StringBuilder("ffconcat version 1.0\n");
        for (Path picture : pictures) {
            String path = picture.toAbsolutePath().toString().replace("'", "'\\''");
            list.append("file 'file:").append(path).append("'\n");
            list.append("option framerate ").append(rate).append('\n');
            list.append("duration ").append(seconds).append('\n');
        }
        return list.toString();
    }
}
