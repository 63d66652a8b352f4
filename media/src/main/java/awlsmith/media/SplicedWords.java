package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The subtitles of files that are put one behind another, one text for each of their tracks: what a file says is said later by
 * all that stands before it, and no longer than its pictures last.
 */
final class SplicedWords {
    /** The words of hundreds of films; more is no subtitles. */
    private static final long LARGEST = 64L << 20;

    private static final Duration LIMIT = Duration.ofHours(2);
    private static final Rational MILLISECOND = new Rational(1, 1000);

    /** SubRip's line of times (common practice, no source; FFmpeg writes it so). */
    private static final Pattern TIMES =
            Pattern.compile("(\\d+):(\\d\\d):(\\d\\d),(\\d{3}) --> (\\d+):(\\d\\d):(\\d\\d),(\\d{3})");

    /** A line of Advanced SubStation Alpha: its layer, when it is said, and all the rest. */
    private static final Pattern DIALOGUE = Pattern.compile(
            "(Dialogue: *[^,]*,)(\\d+):(\\d\\d):(\\d\\d)\\.(\\d\\d),(\\d+):(\\d\\d):(\\d\\d)\\.(\\d\\d)(,.*)");

    private SplicedWords() {}

    /**
     * @param info of a file
     * @param later seconds that its clock's beginning comes after that of the whole
     * @param until seconds of its own, from its clock's beginning, at which its pictures end
     */
    record Piece(MediaInfo info, Rational later, Rational until) {}

    /** @param file with the words of one track; @param language that it says it is in */
    record Track(Path file, String language) {}

    /** How many tracks of words the whole gets. */
    private static int slots(List<Piece> pieces) {
        return pieces.stream().mapToInt(one -> texts(one.info()).size()).max().orElse(0);
    }

    private static List<MediaInfo.Subtitles> texts(MediaInfo info) {
        return info.extras().subtitles().stream()
                .filter(MediaInfo.Subtitles::text)
                .toList();
    }

    /**
     * @param scratch folder for the texts
     * @param leftOut gets a sentence for each kind of subtitles that does not go along
     * @throws MediaException when the disk refuses them
     */
    static List<Track> write(List<Piece> pieces, Path scratch, List<String> leftOut, Cancel cancel) {
        pieces.stream()
                .flatMap(piece -> piece.info().extras().subtitles().stream())
                .filter(track -> !track.text())
                .findFirst()
                .ifPresent(track ->
                        leftOut.add("subtitles that are pictures (" + track.codec() + ") are not in the joined file"));
        var tracks = new ArrayList<Track>();
        for (int slot = 0; slot < slots(pieces); slot++) {
            track(slot, pieces, scratch, leftOut, cancel).ifPresent(tracks::add);
        }
        return tracks;
    }

    private static Optional<Track> track(
            int slot, List<Piece> pieces, Path scratch, List<String> leftOut, Cancel cancel) {
        var having = pieces.stream()
                .filter(piece -> texts(piece.info()).size() > slot)
                .toList();
        List<MediaInfo.Subtitles> tracks =
                having.stream().map(piece -> texts(piece.info()).get(slot)).toList();
        boolean styled = tracks.stream().allMatch(track -> track.codec().equals("ass"));
        var all = new StringBuilder();
        String head = "";
        boolean isTold = false;
        int said = 0;
        for (int n = 0; n < having.size(); n++) {
            Piece piece = having.get(n);
            List<String> lines;
            try {
                lines = read(piece.info(), tracks.get(n), styled, scratch, cancel);
            } catch (MediaException e) {
                // pictures are not kept apart for words that nobody can read
                leftOut.add("the subtitles of part " + (pieces.indexOf(piece) + 1)
                        + " cannot be read and are not in the joined file");
                continue;
            }
            if (styled) {
                head = head.isEmpty() ? head(lines) : head;
                if (!isTold && !head.equals(head(lines))) {
                    isTold = true;
                    leftOut.add("subtitles look as those of the first part do: other parts have other styles");
                }
                said += dialogue(lines, piece, all);
            } else {
                said += subrip(lines, piece, said, all);
            }
        }
        if (said == 0) {
            return Optional.empty();
        }
        Path file = scratch.resolve("words-" + slot + (styled ? ".ass" : ".srt"));
        try {
            Files.writeString(file, head + all);
        } catch (IOException e) {
            throw new MediaException("the disk refused the subtitles: " + e.getMessage(), e);
        }
        String language = tracks.stream()
                .map(MediaInfo.Subtitles::language)
                .filter(one -> !one.isEmpty())
                .findFirst()
                .orElse("");
        return Optional.of(new Track(file, language));
    }

    /** Times count from where the first of the file's streams begins. */
    private static List<String> read(
            MediaInfo info, MediaInfo.Subtitles track, boolean styled, Path scratch, Cancel cancel) {
        String form = styled ? "ass" : "srt";
        Path file = scratch.resolve("piece." + form);
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error", "-y"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-i", Input.url(info.file()), "-map", "0:" + track.index(), "-c:s"));
        arguments.addAll(List.of(styled ? "copy" : "srt", "-f", form, Input.url(file)));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.copying(LIMIT, info.bytes(), file), line -> {})) {
            child.finish("reading the subtitles", cancel);
            if (Files.size(file) > LARGEST) {
                throw new MediaException("the subtitles of " + info.file().getFileName()
                        + " are larger than any words; take them out of the file");
            }
            // what is no UTF-8 becomes a question mark
            return new String(Files.readAllBytes(file), StandardCharsets.UTF_8)
                    .lines()
                    .toList();
        } catch (IOException e) {
            throw new MediaException("the subtitles could not be read: " + e.getMessage(), e);
        }
    }

    private static String head(List<String> lines) {
        return String.join(
                "",
                lines.stream()
                        .takeWhile(line -> !DIALOGUE.matcher(line).matches())
                        .map(line -> line + "\n")
                        .toList());
    }

    private static int dialogue(List<String> lines, Piece piece, StringBuilder out) {
        int said = 0;
        for (String line : lines) {
            Matcher found = DIALOGUE.matcher(line);
            if (!found.matches()) {
                continue;
            }
            Optional<Span> span = span(piece, found, 2, 10);
            if (span.isPresent()) {
                out.append(found.group(1)).append(hundredths(span.get().from())).append(',');
                out.append(hundredths(span.get().to())).append(found.group(10)).append('\n');
                said++;
            }
        }
        return said;
    }

    /** @param before how many stand before these */
    private static int subrip(List<String> lines, Piece piece, int before, StringBuilder out) {
        int said = 0;
        for (int n = 0; n < lines.size(); n++) {
            Matcher found = TIMES.matcher(lines.get(n));
            if (!found.lookingAt()) {
                continue;
            }
            int end = n + 1;
            while (end < lines.size() && !TIMES.matcher(lines.get(end)).lookingAt()) {
                end++;
            }
            // the number that stands over the next times is not of these words
            int last = end < lines.size() ? end - 1 : end;
            Optional<Span> span = span(piece, found, 1, 1);
            if (span.isPresent()) {
                said++;
                out.append(before + said).append('\n');
                out.append(thousandths(span.get().from())).append(" --> ");
                out.append(thousandths(span.get().to())).append('\n');
                out.append(String.join("\n", lines.subList(n + 1, last)).strip())
                        .append("\n\n");
            }
            n = last - 1;
        }
        return said;
    }

    /** Milliseconds of the whole. */
    private record Span(long from, long to) {}

    /** @param unit milliseconds of the last of the numbers that make a time; @param at the group of the first */
    private static Optional<Span> span(Piece piece, Matcher found, int at, int unit) {
        long until = piece.until().ticks(MILLISECOND);
        long later = piece.later().ticks(MILLISECOND);
        long from = time(found, at, unit);
        long to = Math.min(until, time(found, at + 4, unit));
        return to > from ? Optional.of(new Span(later + from, later + to)) : Optional.empty();
    }

    private static long time(Matcher found, int at, int unit) {
        return Long.parseLong(found.group(at)) * 3_600_000
                + Long.parseLong(found.group(at + 1)) * 60_000
                + Long.parseLong(found.group(at + 2)) * 1000
                + Long.parseLong(found.group(at + 3)) * unit;
    }

    private static String thousandths(long time) {
        return String.format(
                Locale.ROOT,
                "%02d:%02d:%02d,%03d",
                time / 3_600_000,
                time / 60_000 % 60,
                time / 1000 % 60,
                time % 1000);
    }

    private static String hundredths(long time) {
        long each = (time + 5) / 10;
        return String.format(
                Locale.ROOT, "%d:%02d:%02d.%02d", each / 360_000, each / 6000 % 60, each / 100 % 60, each % 100);
    }
}
