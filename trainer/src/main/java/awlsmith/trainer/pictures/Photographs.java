package awlsmith.trainer.pictures;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import awlsmith.footage.PackageCache;
import awlsmith.footage.PictureSet;
import awlsmith.footage.Pictures;
import java.io.IOException;
import java.util.stream.Collectors;

/**
 * Photographs of Debian's wallpaper packages. Each is reduced to half its size or less first, so that the marks of its
 * own compression and of its sensor's colour filter are gone.
 */
public final class Photographs {
    private static final double[] REDUCTIONS = {2, 3};
    /** Smaller ones would show little but out-of-focus shapes. */
    private static final int LEAST_SIDE = 480;

    private Photographs() {}

    public static PictureSet load(PackageCache packages) throws IOException {
        var gathering = new PictureSet.Gathering();
        for (PicturePackage from : PicturePackage.photographs()) {
            for (String name : from.pictures()) {
                Plane whole = Pictures.luma(packages.file(from.name(), name));
                for (double by : REDUCTIONS) {
                    int width = PictureSet.side(whole.width() / by);
                    int height = PictureSet.side(whole.height() / by);
                    if (Math.min(width, height) >= LEAST_SIDE) {
                        gathering.add(Pictures.resized(whole, width, height, Kernel.CATMULL_ROM), from.heldOut(name));
                    }
                }
            }
        }
        return gathering.done("photographs from Debian's "
                + PicturePackage.photographs().stream()
                        .map(p -> p.name() + " (" + p.licence() + ")")
                        .collect(Collectors.joining(", "))
                + ", reduced to a half and a third first");
    }
}
