package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import java.util.Optional;

/** A stage that changes samples where they are, done in part: what comes out is led from what went in towards what the stage makes. */
public final class ShareStage implements Stage {
    private final Stage whole;
    private final float share;

    /**
     * @param whole one that keeps size, place and time of every frame
     * @param share of the way to what it makes, 0..1
     */
    public ShareStage(Stage whole, double share) {
        this.whole = whole;
        this.share = (float) share;
    }

    @Override
    public Stage inner() {
        return whole.inner();
    }

    @Override
    public Format output() {
        return whole.output();
    }

    @Override
    public Optional<Chain> beside() {
        return whole.beside();
    }

    @Override
    public int before() {
        return whole.before();
    }

    @Override
    public int after() {
        return whole.after();
    }

    @Override
    public long workBytes() {
        return whole.workBytes();
    }

    @Override
    public long sharedBytes() {
        return whole.sharedBytes();
    }

    @Override
    public Region needs(Region wanted) {
        return wanted.around(whole.needs(wanted));
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Frame made = whole.treat(input, wanted, pool, work);
        Frame own = input.at(0).cut(wanted);
        for (int p = 0; p < made.planes().size(); p++) {
            Plane from = own.plane(p);
            Plane to = made.plane(p);
            work.bands(to.height(), 64, (first, end) -> {
                for (int y = first; y < end; y++) {
                    lead(from.data(), from.row(y), to.data(), to.row(y), to.width());
                }
            });
        }
        return made;
    }

    private void lead(float[] own, int i, float[] made, int j, int count) {
        for (int x = 0; x < count; x++) {
            made[j + x] = own[i + x] + share * (made[j + x] - own[i + x]);
        }
    }
}
