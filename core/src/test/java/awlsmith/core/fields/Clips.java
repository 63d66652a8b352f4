package awlsmith.core.fields;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Clips painted by a formula, for tests. */
public final class Clips {
    private Clips() {}

    /** A sample of one plane of one frame. */
    public interface Paint {
        double at(int frame, int plane, int x, int y);
    }

    public static Format format(int width, int height, Chroma chroma) {
        return new Format(width, height, chroma, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    /** At 25 frames a second. */
    public static FrameSource painted(Format format, int count, Paint paint) {
        return new FrameSource() {
            @Override
            public Format format() {
                return format;
            }

            @Override
            public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
                return stream(format, Math.min(count, range.end()), range.from(), window, paint, pool);
            }
        };
    }

    private static FrameStream stream(Format format, long end, long from, Region window, Paint paint, PlanePool pool) {
        return new FrameStream() {
            private long next = from;

            @Override
            public Format format() {
                return format;
            }

            @Override
            public Optional<Frame> next() {
                if (next >= end) {
                    return Optional.empty();
                }
                Frame frame = Frame.blank(format, window, next, new Rational(next, 25), pool);
                for (int p = 0; p < frame.planes().size(); p++) {
                    int left = window.x() / format.chroma().stepX(p);
                    int top = window.y() / format.chroma().stepY(p);
                    for (int y = 0; y < frame.plane(p).height(); y++) {
                        for (int x = 0; x < frame.plane(p).width(); x++) {
                            frame.plane(p).set(x, y, (float) paint.at((int) next, p, x + left, y + top));
                        }
                    }
                }
                next++;
                return Optional.of(frame);
            }

            @Override
            public void close() {
                next = end;
            }
        };
    }

    public static List<Frame> run(FrameSource clip, FrameRange range, Region part, Stage... stages) {
        var frames = new ArrayList<Frame>();
        var chain = new Chain(clip.format(), List.of(stages));
        try (var stream = chain.open(clip, range, part, new PlanePool(0), Work.alone())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(frame.get());
            }
        }
        return frames;
    }
}
