package awlsmith.render;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.nio.file.Path;
import java.util.Optional;

/** Clips for tests, made by FFmpeg and read as the server reads them. */
final class MadeClips {
    private MadeClips() {}

    /** @param words FFmpeg's, before the file's name */
    static Clip made(Path file, String words) {
        TestClips.ffmpeg(words + " " + file);
        return read(file);
    }

    static Clip read(Path file) {
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }
}
