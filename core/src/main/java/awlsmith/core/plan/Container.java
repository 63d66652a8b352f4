package awlsmith.core.plan;

import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;

/** What holds pictures, sound and all that goes along in one file, and how sound may stand in it. */
public enum Container {
    /** What nearly every player reads in it, though more is allowed (common practice, no source). */
    MP4("mp4", "MP4", Sound.AAC, EnumSet.of(Sound.AAC, Sound.OPUS, Sound.FLAC)),
    MOV("mov", "MOV", Sound.AAC, EnumSet.of(Sound.AAC, Sound.PCM)),
    MKV("mkv", "MKV", Sound.FLAC, EnumSet.of(Sound.AAC, Sound.OPUS, Sound.FLAC, Sound.PCM)),
    /** Its guidelines name Opus and Vorbis alone. */
    WEBM("webm", "WebM", Sound.OPUS, EnumSet.of(Sound.OPUS)),
    /** SMPTE ST 378, operational pattern 1a; samples as they are (SMPTE ST 382). */
    MXF("mxf", "MXF", Sound.PCM, EnumSet.of(Sound.PCM)),
    GIF("gif", "GIF", Sound.NONE, EnumSet.noneOf(Sound.class)),
    APNG("apng", "APNG", Sound.NONE, EnumSet.noneOf(Sound.class)),
    /** Pictures of which each is coded for itself, and how long it is shown. */
    WEBP("webp", "WebP", Sound.NONE, EnumSet.noneOf(Sound.class)),
    /** Pictures by their numbers, packed as they are into one file. */
    ZIP("zip", "ZIP", Sound.NONE, EnumSet.noneOf(Sound.class)),
    /** One picture by itself. */
    PNG("png", "one PNG", Sound.NONE, EnumSet.noneOf(Sound.class)),
    TIFF("tiff", "one TIFF", Sound.NONE, EnumSet.noneOf(Sound.class)),
    JPEG("jpg", "one JPEG", Sound.NONE, EnumSet.noneOf(Sound.class)),
    EXR("exr", "one OpenEXR", Sound.NONE, EnumSet.noneOf(Sound.class)),
    /** One track each. */
    WAV("wav", "WAV", Sound.PCM, EnumSet.of(Sound.PCM)),
    FLAC("flac", "FLAC", Sound.FLAC, EnumSet.of(Sound.FLAC)),
    M4A("m4a", "M4A", Sound.AAC, EnumSet.of(Sound.AAC)),
    /** Matroska without pictures, with all tracks. */
    MKA("mka", "MKA", Sound.FLAC, EnumSet.of(Sound.AAC, Sound.OPUS, Sound.FLAC, Sound.PCM));

    private final String ending;
    private final String label;
    private final Sound usual;
    private final Set<Sound> sounds;

    Container(String ending, String label, Sound usual, Set<Sound> sounds) {
        this.ending = ending;
        this.label = label;
        this.usual = usual;
        this.sounds = sounds;
    }

    /** Of file names, without its dot. */
    public String ending() {
        return ending;
    }

    /** Name on the screen. */
    public String label() {
        return label;
    }

    /** What sound is coded as that cannot go along as it is; {@link Sound#NONE} where none can go along. */
    public Sound usualSound() {
        return usual;
    }

    /** Whether sound can go along. */
    public boolean holdsSound() {
        return usual != Sound.NONE;
    }

    /** Whether sound may stand in it in this way. */
    public boolean holds(Sound sound) {
        return sound == Sound.NONE || sound == Sound.KEPT && holdsSound() || sounds.contains(sound);
    }

    /**
     * Whether it has a place for what a file says of itself. QuickTime's user data has none for a description that FFmpeg writes; the reel
     * stands beside its time code, where FFmpeg writes it in MOV alone.
     *
     * @param tag of {@link Tags#KEYS}
     */
    public boolean tells(String tag) {
        return switch (this) {
            case MP4, MKV, WEBM, M4A, MKA -> !tag.equals(Tags.REEL);
            case WAV, FLAC -> !tag.equals("description") && !tag.equals(Tags.REEL);
            case MOV -> !tag.equals("description");
            case MXF, GIF, APNG, WEBP, ZIP, PNG, TIFF, JPEG, EXR -> false;
        };
    }

    /** Whether it is single pictures, not a film. */
    public boolean isPictures() {
        return this == ZIP || isPicture();
    }

    /** Whether each of its pictures is coded for itself, before they are put together. */
    public boolean isOfStills() {
        return isPictures() || this == WEBP;
    }

    /** Whether it is one picture. */
    public boolean isPicture() {
        return this == PNG || this == TIFF || this == JPEG || this == EXR;
    }

    /** Tracks of sound that it holds at most. */
    public int mostTracks() {
        return this == WAV || this == FLAC || this == M4A ? 1 : Integer.MAX_VALUE;
    }

    /** @param ending of a file's name, in small letters, without its dot */
    public static Optional<Container> byEnding(String ending) {
        for (Container container : values()) {
            if (container.ending.equals(ending)) {
                return Optional.of(container);
            }
        }
        return Optional.empty();
    }
}
