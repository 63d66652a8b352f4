package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** A source's pictures as they are coded, into a file of their own. */
public final class PacketCopy {
    /** What players expect in it (MP4 registration authority's list of codecs; common practice). */
    private static final Set<String> IN_MP4 = Set.of("h264", "hevc", "av1", "vp9", "mpeg4", "mpeg2video", "mpeg1video");

    private static final Set<String> IN_MOV = Set.of(
            "h264", "hevc", "mpeg4", "mpeg2video", "mjpeg", "prores", "dnxhd", "dvvideo", "png", "qtrle", "rawvideo");

    private static final Set<String> IN_MKV =
            Set.of("ffv1", "vp8", "theora", "huffyuv", "utvideo", "jpeg2000", "wmv2", "wmv3", "vc1");

    private static final Rational MICRO = new Rational(1, 1_000_000);

    private static final int GOES = 3;

    private static final Duration LIMIT = Duration.ofHours(4);

    private PacketCopy() {}

    /** Why a source's codec cannot stand in a container, in a sentence. */
    public static Optional<String> refusal(MediaInfo source, Container container) {
        if (source.video().quarters() != 0 && container == Container.MKV) {
            return Optional.of(
                    "the pictures are turned by a note in the file, which MKV does not hold; choose MP4 or MOV");
        }
        String codec = source.video().codec();
        boolean held = switch (container) {
            case MP4 -> IN_MP4.contains(codec);
            case MOV -> IN_MOV.contains(codec);
            default -> IN_MKV.contains(codec) || IN_MP4.contains(codec) || IN_MOV.contains(codec);
        };
        return held
                ? Optional.empty()
                : Optional.of(CodecNames.of(codec) + " as the source has it is not read in " + container.label()
                        + (container == Container.MKV
                                        || !refusal(source, Container.MKV).isEmpty()
                                ? "; choose a codec"
                                : "; choose MKV"));
    }

    /**
     * @param piece to copy
     * @param index of the source's frames
     * @param folder to write to
     * @return the file, which begins at 0
     */
    public static Path copy(MediaInfo source, KeyFrames.Piece piece, FrameIndex index, Path folder, Cancel cancel) {
        String codec = source.video().codec();
        String ending = IN_MP4.contains(codec) && !codec.startsWith("mpeg1") && !codec.startsWith("mpeg2")
                ? "mp4"
                : IN_MOV.contains(codec) ? "mov" : "nut";
        Path out = folder.resolve("copied." + ending);
        int wanted = piece.packets();
        int asked = wanted;
        for (int go = 0; go < GOES; go++) {
            write(source, piece, index, asked, out, cancel);
            int got = PacketSizes.of(out, cancel).bytes().size();
            if (got == wanted) {
                break;
            }
            // FFmpeg also counts what it read before the key frame and left out
            asked += wanted - got;
        }
        return out;
    }

    private static void write(
            MediaInfo source, KeyFrames.Piece piece, FrameIndex index, int packets, Path out, Cancel cancel) {
        String codec = source.video().codec();
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error", "-y"));
        arguments.addAll(Input.guards());
        if (piece.frames().from() > 0) {
            // a millionth later, as what is cut off of its time would lead to the key frame before it
            String at = Joiner.decimal(index.clock(piece.frames().from()).plus(MICRO));
            arguments.addAll(List.of("-seek_timestamp", "1", "-ss", at));
        }
        arguments.addAll(List.of(
                "-i", Input.url(source.file()), "-map", "0:" + source.video().index()));
        arguments.addAll(List.of("-c:v", "copy", "-frames:v", "" + packets, "-map_metadata", "-1"));
        if (codec.equals("hevc")) {
            arguments.addAll(CodecWords.tag(Codecs.H265, out));
        }
        arguments.addAll(List.of("-fflags", "+bitexact", Input.url(out)));
        try (Child child =
                Child.start(Tool.FFMPEG, arguments, Limits.copying(LIMIT, source.bytes(), out), line -> {})) {
            child.finish("copying the pictures", cancel);
        }
    }

    /**
     * Whether a copy's frames are those of its source.
     *
     * @throws MediaException when they are not
     */
    public static void prove(FrameIndex source, KeyFrames.Piece piece, FrameIndex copy) {
        if (!copy.isPart(source, Math.toIntExact(piece.frames().from()))
                || copy.count() != piece.frames().count()) {
            throw new MediaException("copied as they are, not every frame comes back as it was (" + copy.count()
                    + " of " + piece.frames().count()
                    + "): the file's key frames are not what they say. Choose a codec, which codes it anew");
        }
    }
}
