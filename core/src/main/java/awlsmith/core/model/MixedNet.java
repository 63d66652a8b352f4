package awlsmith.core.model;

import awlsmith.core.picture.Plane;
import java.util.List;

/**
 * What two nets of the same shape say, mixed.
 *
 * @param share of the second, 0..1
 */
public record MixedNet(NetRunner first, NetRunner second, float share) implements NetRunner {
    @Override
    public void run(List<Plane> frames, Plane correction) {
        first.run(frames, correction);
        Plane other = Plane.of(correction.width(), correction.height());
        second.run(frames, other);
        for (int y = 0; y < correction.height(); y++) {
            int at = correction.row(y);
            int from = other.row(y);
            for (int x = 0; x < correction.width(); x++) {
                correction.data()[at + x] +=
                        share * (other.data()[from + x] - correction.data()[at + x]);
            }
        }
    }

    @Override
    public long bytes(int width, int height) {
        return first.bytes(width, height) + second.bytes(width, height);
    }
}
