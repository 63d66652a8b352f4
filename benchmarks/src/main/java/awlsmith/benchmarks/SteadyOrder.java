package awlsmith.benchmarks;

import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.steady.CameraPath;
import awlsmith.core.steady.SteadyMoves;
import awlsmith.core.steady.SteadyStage;
import awlsmith.core.steady.Warp;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** Whether a picture is steadied before it is enlarged or behind that, and straightened with it or before, where the camera's way is known exactly. */
final class SteadyOrder {
    private static final int FRAMES = 13;
    private static final int BORDER = 40;
    private static final double SEEN = 0.84;
    private static final Shaking.Kind KIND = new Shaking.Kind("shifts, turns", 0.008, 0.5, 0, 0, 0);
    private static final double DEGREES = 3;

    private final Scratch scratch;

    SteadyOrder(Scratch scratch) {
        this.scratch = scratch;
    }

    static List<String> head() {
        return List.of(
                "",
                "## Before or behind enlarging, together or one after the other",
                "",
                FRAMES
                        + " frames as the shaking camera sees them, made half as large by area, steadied by exactly the way it took and enlarged by 2 with"
                        + " photographic. PSNR-Y in dB against what a still camera sees, and the mean gradient as a share of its. Straightened: steadied and"
                        + " turned by " + DEGREES
                        + " degrees in one resampling or in two, at full size; gradient as a share of the shaken clip's.",
                "",
                "| clip | steadied, then enlarged: PSNR | gradient | enlarged, then steadied: PSNR | gradient | straightened together: gradient | one after the other |",
                "|---|---|---|---|---|---|---|");
    }

    String row(String name, Path file) {
        Path truth = scratch.file("order.mkv");
        Command.ffmpeg("-i " + file + " -an -vf scale='min(1280,iw)':-2,format=yuv420p -frames:v " + FRAMES
                + " -fps_mode passthrough -c:v ffv1 " + truth);
        var shaking = new Shaking(KIND, 25, 11);
        Path shaken = scratch.file("order-shaken.mkv");
        scratch.made(truth, shaken, SEEN, shaking::shake);
        Path small = scratch.file("order-small.mkv");
        Command.ffmpeg("-i " + shaken + " -vf scale=iw/2:ih/2:flags=area -c:v ffv1 " + small);
        List<Plane> wanted = scratch.luma(truth);
        Function<Format, Stage> steady = format -> steady(format, shaking, Warp.NONE);
        List<Plane> before = scratch.through(small, format -> {
            var stages = new ArrayList<Stage>(List.of(steady.apply(format)));
            stages.addAll(enlarging(format));
            return stages;
        });
        List<Plane> behind = scratch.through(small, format -> {
            var stages = new ArrayList<Stage>(enlarging(format));
            stages.add(steady.apply(stages.getLast().output()));
            return stages;
        });
        Warp turned = Warp.similar(0, 0, -Math.toRadians(DEGREES), 1);
        List<Plane> together = scratch.through(shaken, format -> List.of(steady(format, shaking, turned)));
        List<Plane> apart = scratch.through(shaken, format -> List.of(steady.apply(format), turn(format, turned)));
        double sharp = gradient(scratch.luma(shaken));
        return Figures.text(
                "| %s | %.2f | %.3f | %.2f | %.3f | %.3f | %.3f |",
                name,
                psnr(before, wanted),
                gradient(before) / gradient(middles(wanted, before)),
                psnr(behind, wanted),
                gradient(behind) / gradient(middles(wanted, behind)),
                gradient(together) / sharp,
                gradient(apart) / sharp);
    }

    private static List<Stage> enlarging(Format format) {
        return new Recipe(List.of(Step.parse("enlarge factor=2 model=photographic softness=0")))
                .on(Material.of(format))
                .chain()
                .stages();
    }

    private static Stage steady(Format format, Shaking shaking, Warp turned) {
        Warp[] warps = new Warp[FRAMES];
        for (int n = 0; n < FRAMES; n++) {
            warps[n] = turned.then(shaking.way(n).inverse());
        }
        return stage(format, warps);
    }

    private static Stage turn(Format format, Warp turned) {
        return stage(format, Collections.nCopies(FRAMES, turned).toArray(new Warp[0]));
    }

    private static Stage stage(Format format, Warp[] warps) {
        double height = format.height() / (double) format.width();
        List<Warp> still = Collections.nCopies(FRAMES, Warp.NONE);
        var path = new CameraPath(still, still, new int[] {0}, 0, height);
        var moves = new SteadyMoves(Optional.of(path), CameraPath.Kind.TURN, warps, 0);
        return new SteadyStage(format, 0, 0, moves, SteadyStage.Edges.MIRROR);
    }

    /** What the still camera sees of the clean frames. */
    private static List<Plane> middles(List<Plane> clean, List<Plane> like) {
        Plane size = like.getFirst();
        return clean.stream()
                .map(p -> p.window(new Region(
                        (p.width() - size.width()) / 2, (p.height() - size.height()) / 2, size.width(), size.height())))
                .toList();
    }

    private static double psnr(List<Plane> got, List<Plane> clean) {
        List<Plane> wanted = middles(clean, got);
        double sum = 0;
        for (int n = 0; n < got.size(); n++) {
            sum += Psnr.of(got.get(n), wanted.get(n), BORDER);
        }
        return sum / got.size();
    }

    private static double gradient(List<Plane> frames) {
        return frames.stream()
                .mapToDouble(p -> Gradient.mean(p, BORDER))
                .average()
                .orElseThrow();
    }
}
