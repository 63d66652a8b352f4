package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.sound.Loudness;
import awlsmith.core.sound.SoundCheck;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Decodes a clip's first sound track and listens to it. */
public final class SoundReading {
    private static final int PIECE = 1 << 14;

    private SoundReading() {}

    /** Empty where there is no sound, or none that can be decoded. */
    public static Optional<SoundCheck.Result> check(MediaInfo info, Cancel cancel) {
        if (info.sounds().isEmpty()) {
            return Optional.empty();
        }
        MediaInfo.Sound track = info.sounds().getFirst();
        int channels = track.channels() == 1 ? 1 : 2;
        var arguments =
                new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-i", Input.url(info.file()), "-map", "0:" + track.index(), "-vn"));
        arguments.addAll(List.of("-ar", "" + Loudness.RATE, "-ac", "" + channels, "-f", "f32le", "pipe:1"));
        var check = new SoundCheck(channels);
        long heard = 0;
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.decoding(info), line -> {})) {
            byte[] bytes = new byte[PIECE * channels * Float.BYTES];
            float[] values = new float[PIECE * channels];
            InputStream in = child.output();
            for (int n = in.readNBytes(bytes, 0, bytes.length); n > 0; n = in.readNBytes(bytes, 0, bytes.length)) {
                cancel.check();
                int count = n / Float.BYTES / channels * channels;
                ByteBuffer.wrap(bytes)
                        .order(ByteOrder.LITTLE_ENDIAN)
                        .asFloatBuffer()
                        .get(values, 0, count);
                check.add(values, count);
                heard += count;
            }
        } catch (IOException e) {
            cancel.check();
        }
        return heard == 0 ? Optional.empty() : Optional.of(check.result());
    }
}
