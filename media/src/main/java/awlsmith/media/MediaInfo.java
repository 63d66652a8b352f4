package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.plan.ModelSuggestion;
import awlsmith.core.plan.Tags;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * What a file says of itself.
 *
 * @param file where it lies
 * @param container name of its kind, as FFmpeg calls it
 * @param bytes size of the file
 * @param start the file's clock where the first of its streams begins, seconds
 * @param duration seconds, when the file tells
 * @param bitRate bits a second of everything, 0 when unknown
 * @param video the picture track
 * @param sounds the sound tracks
 * @param extras what else goes along
 */
public record MediaInfo(
        Path file,
        String container,
        long bytes,
        Rational start,
        Optional<Rational> duration,
        long bitRate,
        Video video,
        List<Sound> sounds,
        Extras extras) {
    public MediaInfo {
        sounds = List.copyOf(sounds);
    }

    /**
     * @param index of the stream in its file
     * @param codec short name
     * @param profile as the codec names it, or empty
     * @param format of the decoded pictures, turned upright; its colour tags are those the file tells
     * @param decodeAs FFmpeg's pixel format that carries them to us
     * @param clear the same where the file's pictures can be transparent, with a plane that tells it
     * @param quarters clockwise that a player turns the coded picture by, 0..3
     * @param rate nominal frames a second
     * @param steady whether the file claims one rate throughout
     * @param timeBase seconds a tick
     * @param start the file's clock where the stream says that it begins, seconds
     * @param bitRate bits a second, 0 when unknown
     * @param frames counted by the container, 0 when it does not tell
     */
    public record Video(
            int index,
            String codec,
            String profile,
            Format format,
            String decodeAs,
            Optional<Clear> clear,
            int quarters,
            Rational rate,
            boolean steady,
            Rational timeBase,
            Rational start,
            long bitRate,
            long frames) {
        /** Pictures with their transparency: @param decodeAs FFmpeg's pixel format that carries them to us */
        public record Clear(Format format, String decodeAs) {}

        /** The format with what untagged colour is taken for, by the lines as they are coded. */
        public Format resolved() {
            return resolved(format);
        }

        /** The same of the pictures with their transparency, where they can have any. */
        public Format resolvedClear() {
            return resolved(clear.map(Clear::format).orElse(format));
        }

        private Format resolved(Format of) {
            int coded = quarters % 2 == 1 ? of.width() : of.height();
            return of.withColour(of.colour().resolved(of.chroma(), coded));
        }

        /** @param withAlpha whether with their transparency, where they can have any */
        String decodeAs(boolean withAlpha) {
            return withAlpha ? clear.map(Clear::decodeAs).orElse(decodeAs) : decodeAs;
        }
    }

    /** @param rate samples a second; @param start seconds at which it begins, against the file's clock */
    public record Sound(int index, String codec, int rate, int channels, Rational start, long bitRate) {}

    /**
     * What goes along with pictures and sound.
     *
     * @param timecode of the first frame, as the file writes it
     * @param tags what the file says of itself
     */
    public record Extras(List<Subtitles> subtitles, List<Chapter> chapters, Optional<String> timecode, Tags tags) {
        public static final Extras NONE = new Extras(List.of(), List.of(), Optional.empty(), Tags.NONE);

        public Extras {
            subtitles = List.copyOf(subtitles);
            chapters = List.copyOf(chapters);
        }
    }

    /** @param text whether they are words, not pictures */
    public record Subtitles(int index, String codec, boolean text, String language) {}

    /** @param start seconds of the file's clock; @param end likewise */
    public record Chapter(Rational start, Rational end, String title) {}

    /** The same as if it had no subtitles. */
    public MediaInfo withoutSubtitles() {
        var bare = new Extras(List.of(), extras.chapters(), extras.timecode(), extras.tags());
        return new MediaInfo(file, container, bytes, start, duration, bitRate, video, sounds, bare);
    }

    /** The first track of words. */
    public Optional<Subtitles> words() {
        return extras.subtitles().stream().filter(Subtitles::text).findFirst();
    }

    /** The same of a file that was moved. */
    public MediaInfo at(Path place) {
        return new MediaInfo(place, container, bytes, start, duration, bitRate, video, sounds, extras);
    }

    /** Bits a second of the pictures, or of everything where the file does not tell them apart; 0 when unknown. */
    public long pictureBitRate() {
        return video.bitRate() > 0 ? video.bitRate() : bitRate;
    }

    /** The model that codec and bit rate speak for. @param rate frames a second */
    public ModelSuggestion model(double rate) {
        Format format = video.format();
        return ModelSuggestion.of(
                video.codec(), CodecNames.of(video.codec()), format.width(), format.height(), rate, pictureBitRate());
    }

    /** Frames to expect: the container's count, else length times rate, else 0. */
    public long expectedFrames() {
        if (video.frames() > 0) {
            return video.frames();
        }
        return duration.map(
                        d -> Math.max(1, Math.round(d.toDouble() * video.rate().toDouble())))
                .orElse(0L);
    }
}
