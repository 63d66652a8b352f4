package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.LongConsumer;
import java.util.regex.Pattern;

/**
 * Puts files one behind another as they are, such as those that a camera cut one recording into: packets are copied, nothing is decoded, nothing
 * is lost. That every frame of it decodes to what it did before is proved from the index of the result. Subtitles that are words and chapters
 * go along, each with its own pictures.
 */
public final class Splicer {
    /** More are no recording that was cut up. */
    public static final int MOST = 500;

    private static final Duration LIMIT = Duration.ofHours(4);
    private static final Pattern FRAME = Pattern.compile("frame=\\s*(\\d+)");

    private Splicer() {}

    /** @param index of its frames */
    public record Piece(MediaInfo info, FrameIndex index) {}

    /** What keeps pieces from being one file, in a sentence; empty where nothing does. */
    public static Optional<String> apart(List<MediaInfo> pieces) {
        MediaInfo first = pieces.getFirst();
        if (first.video().quarters() != 0) {
            return Optional.of(
                    "the pictures are turned by a note in the file, which a joined file does not hold: send them out"
                            + " first, which turns them for good, and join what was sent");
        }
        for (MediaInfo other : pieces) {
            String what = difference(first, other);
            if (!what.isEmpty()) {
                return Optional.of(
                        "the files are not of one kind: " + other.file().getFileName() + " has " + what
                                + ". Send them all out in one codec and size first, and join what was sent");
            }
        }
        return Optional.empty();
    }

    private static String difference(MediaInfo first, MediaInfo other) {
        var one = first.video();
        var two = other.video();
        Format a = one.format();
        Format b = two.format();
        if (a.width() != b.width() || a.height() != b.height()) {
            return "%dx%d, the first %dx%d".formatted(b.width(), b.height(), a.width(), a.height());
        }
        if (!one.codec().equals(two.codec())) {
            return "%s, the first %s".formatted(CodecNames.of(two.codec()), CodecNames.of(one.codec()));
        }
        if (!one.decodeAs().equals(two.decodeAs())
                || !a.colour().equals(b.colour())
                || !a.sar().equals(b.sar())) {
            return "other depth, colours or shape of its samples than the first";
        }
        if (one.quarters() != two.quarters()) {
            return "pictures that are turned otherwise than the first's";
        }
        if (one.steady() && two.steady() && !one.rate().equals(two.rate())) {
            return "%s frames a second, the first %s".formatted(two.rate(), one.rate());
        }
        if (first.sounds().size() != other.sounds().size()) {
            return "%d sound tracks, the first %d"
                    .formatted(other.sounds().size(), first.sounds().size());
        }
        for (int n = 0; n < first.sounds().size(); n++) {
            var s = first.sounds().get(n);
            var t = other.sounds().get(n);
            if (!s.codec().equals(t.codec()) || s.rate() != t.rate() || s.channels() != t.channels()) {
                return "other sound than the first";
            }
        }
        return "";
    }

    /**
     * @param pieces in their order
     * @param scratch folder for their list
     * @param out Matroska file to write
     * @param progress hears how many frames are in
     * @return what did not go along, in a sentence; empty when all did
     * @throws MediaException when they are not of one kind, or one cannot be read
     */
    public static Optional<String> join(
            List<Piece> pieces, Path scratch, Path out, LongConsumer progress, Cancel cancel) {
        apart(pieces.stream().map(Piece::info).toList()).ifPresent(why -> {
            throw new MediaException(why);
        });
        Path list = scratch.resolve("pieces.txt");
        List<Rational> begins = begins(pieces);
        List<MediaInfo.Chapter> chapters = chapters(pieces, begins);
        Path marks = scratch.resolve("chapters.txt");
        try {
            Files.writeString(list, listing(pieces, begins));
            Files.writeString(marks, ChapterList.of(chapters));
        } catch (IOException e) {
            throw new MediaException("the list of files could not be written: " + e.getMessage(), e);
        }
        var said = new ArrayList<SplicedWords.Piece>();
        for (int n = 0; n < pieces.size(); n++) {
            Piece piece = pieces.get(n);
            said.add(new SplicedWords.Piece(
                    piece.info(), begins.get(n), lead(piece).plus(length(piece))));
        }
        var leftOut = new ArrayList<String>();
        List<SplicedWords.Track> words = SplicedWords.write(said, scratch, leftOut, cancel);
        MediaInfo first = pieces.getFirst().info();
        long bytes = pieces.stream().mapToLong(piece -> piece.info().bytes()).sum();
        var arguments = new ArrayList<String>(List.of(
                "-hide_banner", "-nostdin", "-loglevel", "level+error", "-nostats", "-progress", "pipe:2", "-y"));
        // where a file leaves times out, as MPEG streams do, they are filled in
        arguments.addAll(List.of("-fflags", "+genpts"));
        arguments.addAll(Input.guardsWith("concat"));
        arguments.addAll(List.of("-f", "concat", "-safe", "0", "-i", Input.url(list)));
        for (SplicedWords.Track track : words) {
            arguments.addAll(List.of("-protocol_whitelist", "file", "-i", Input.url(track.file())));
        }
        if (!chapters.isEmpty()) {
            arguments.addAll(List.of("-protocol_whitelist", "file", "-f", "ffmetadata", "-i", Input.url(marks)));
        }
        arguments.addAll(List.of("-map", "0:" + first.video().index()));
        for (MediaInfo.Sound sound : first.sounds()) {
            arguments.addAll(List.of("-map", "0:" + sound.index()));
        }
        for (int n = 0; n < words.size(); n++) {
            arguments.addAll(List.of("-map", (n + 1) + ":s"));
            if (!words.get(n).language().isEmpty()) {
                arguments.addAll(
                        List.of("-metadata:s:s:" + n, "language=" + words.get(n).language()));
            }
        }
        arguments.addAll(List.of("-c", "copy", "-map_chapters"));
        arguments.add(chapters.isEmpty() ? "-1" : Integer.toString(words.size() + 1));
        arguments.addAll(ChapterList.titles(chapters));
        first.extras().timecode().ifPresent(code -> arguments.addAll(List.of("-metadata:s:v:0", "timecode=" + code)));
        arguments.addAll(List.of("-f", "matroska", Input.url(out)));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.copying(LIMIT, bytes, out), line -> {
            var frame = FRAME.matcher(line);
            if (frame.find()) {
                progress.accept(Long.parseLong(frame.group(1)));
            }
        })) {
            child.finish("joining the files", cancel);
        }
        return leftOut.isEmpty() ? Optional.empty() : Optional.of(String.join("; ", leftOut));
    }

    /**
     * Whether a joined file's frames are those of its pieces, each decoding to what it did.
     *
     * @throws MediaException when they are not
     */
    public static void prove(List<FrameIndex> pieces, FrameIndex joined) {
        long wanted = pieces.stream().mapToLong(FrameIndex::count).sum();
        if (joined.count() != wanted || !joined.isSame(pieces)) {
            throw new MediaException("joined as they are, not every frame comes back as it was (" + joined.count()
                    + " of " + wanted
                    + " frames): the files were coded apart. Send them all out in one codec first, and"
                    + " join what was sent");
        }
    }

    /** Where each file's own clock begins, seconds after the first's: its pictures follow those before it, whatever sound lasts. */
    private static List<Rational> begins(List<Piece> pieces) {
        var begins = new ArrayList<Rational>();
        Rational at = Rational.ZERO;
        for (int n = 0; n < pieces.size(); n++) {
            begins.add(at);
            if (n + 1 < pieces.size()) {
                Piece piece = pieces.get(n);
                at = at.plus(lead(piece)).plus(length(piece)).minus(lead(pieces.get(n + 1)));
            }
        }
        return begins;
    }

    private static String listing(List<Piece> pieces, List<Rational> begins) {
        var list = new StringBuilder("ffconcat version 1.0\n");
        for (int n = 0; n < pieces.size(); n++) {
            String path =
                    pieces.get(n).info().file().toAbsolutePath().toString().replace("'", "'\\''");
            list.append("file 'file:").append(path).append("'\n");
            if (n + 1 < pieces.size()) {
                Rational lasts = begins.get(n + 1).minus(begins.get(n));
                list.append("duration ").append(Joiner.decimal(lasts)).append('\n');
            }
        }
        return list.toString();
    }

    /** Those of all pieces, each within its own pictures. */
    private static List<MediaInfo.Chapter> chapters(List<Piece> pieces, List<Rational> begins) {
        var all = new ArrayList<MediaInfo.Chapter>();
        for (int n = 0; n < pieces.size(); n++) {
            Piece piece = pieces.get(n);
            Rational end = lead(piece).plus(length(piece));
            for (MediaInfo.Chapter chapter : piece.info().extras().chapters()) {
                Rational from = chapter.start().minus(piece.info().start());
                Rational to = chapter.end().minus(piece.info().start());
                Rational last = to.compareTo(end) < 0 ? to : end;
                Rational first = from.isPositive() ? from : Rational.ZERO;
                if (last.compareTo(first) > 0 && all.size() < Prober.MOST_CHAPTERS) {
                    Rational begin = begins.get(n);
                    all.add(new MediaInfo.Chapter(begin.plus(first), begin.plus(last), chapter.title()));
                }
            }
        }
        return all;
    }

    /** Seconds from a file's beginning to its first picture. */
    private static Rational lead(Piece piece) {
        return piece.index().clock(0).minus(piece.info().start());
    }

    /** Seconds that its pictures last; the last as long as the one before it. */
    private static Rational length(Piece piece) {
        FrameIndex index = piece.index();
        int last = index.count() - 1;
        Rational each = piece.info().video().steady() || last == 0
                ? piece.info().video().rate().inverse()
                : index.time(last).minus(index.time(last - 1L));
        return index.time(last).plus(each);
    }
}
