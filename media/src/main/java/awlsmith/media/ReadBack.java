package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Reads a finished file to the end and says what is really in it. */
public final class ReadBack {
    private ReadBack() {}

    /**
     * @param info what the file says
     * @param index of the frames that really decode
     * @param sounds seconds of each sound track that really decode
     */
    public record Facts(MediaInfo info, FrameIndex index, List<Rational> sounds) {
        public long frames() {
            return index.count();
        }

        /** Of its pictures, with the transparency that they can have. */
        public Format format() {
            var video = info.video();
            return video.clear().map(MediaInfo.Video.Clear::format).orElse(video.format());
        }

        /** Complaints of the decoder. */
        public int errors() {
            return index.errors();
        }

        /** The file's clock where the picture begins. */
        public Rational start() {
            return index.clock(0);
        }

        /** Seconds from the first frame to the last. */
        public Rational length() {
            return index.time(index.count() - 1L);
        }

        public Facts at(java.nio.file.Path place) {
            return new Facts(info.at(place), index, sounds);
        }
    }

    /** @throws MediaException when it cannot be read */
    public static Facts of(java.nio.file.Path file, Cancel cancel) {
        MediaInfo info = Prober.probe(file);
        FrameIndex index = Indexer.index(info, n -> {}, cancel);
        var sounds = new ArrayList<Rational>();
        for (MediaInfo.Sound track : info.sounds()) {
            sounds.add(SoundLength.of(info, track, Optional.empty(), cancel));
        }
        return new Facts(info, index, List.copyOf(sounds));
    }
}
