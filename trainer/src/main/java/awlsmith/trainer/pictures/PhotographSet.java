package awlsmith.trainer.pictures;

import awlsmith.benchmarks.footage.PackageCache;
import awlsmith.benchmarks.footage.Pictures;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.resample.Kernel;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/**
 * The clean pictures a model learns from and those it is checked on, never the same. Every photograph is reduced to half
 * its size or less first, so that the marks of its own compression and of its sensor's colour filter are gone.
 *
 * @param learn luma planes
 * @param check luma planes, one part of each held-out photograph
 */
public record PhotographSet(List<Plane> learn, List<Plane> check) {
    private static final int CHECK_SIDE = 384;
    private static final double[] REDUCTIONS = {2, 3};
    /** Smaller ones would show little but out-of-focus shapes. */
    private static final int LEAST_SIDE = 480;

    public static PhotographSet load(PackageCache packages) throws IOException {
        var learn = new ArrayList<Plane>();
        var check = new ArrayList<Plane>();
        for (PicturePackage from : PicturePackage.photographs()) {
            for (String name : from.pictures()) {
                Plane whole = Pictures.luma(packages.file(from.name(), name));
                for (double by : REDUCTIONS) {
                    int width = (int) (whole.width() / by) / 12 * 12;
                    int height = (int) (whole.height() / by) / 12 * 12;
                    if (Math.min(width, height) < LEAST_SIDE) {
                        continue;
                    }
                    Plane picture = Pictures.resized(whole, width, height, Kernel.CATMULL_ROM);
                    if (from.heldOut(name)) {
                        int side = CHECK_SIDE;
                        Plane part = picture.window(new Region((width - side) / 2, (height - side) / 2, side, side));
                        check.add(new Plane(part.packed(), 0, side, side, side));
                    } else {
                        learn.add(picture);
                    }
                }
            }
        }
        return new PhotographSet(learn, check);
    }
}
